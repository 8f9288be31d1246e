import Autocomplete from "@mui/material/Autocomplete";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { Controller, type Control, type useForm } from "react-hook-form";
import type { Schemas } from "../../../api/client";
import { TextPart } from "../../../parts/form/TextPart";
import { Tick } from "../../../parts/Tick";
import { WriteBox } from "../../../parts/WriteBox";
import { stateWords } from "../../../parts/words";
import type { AsksTyped } from "../Acknowledged/asking";
import { AsksPart } from "../Acknowledged/AsksPart";
import { NoticeFilesPart } from "./NoticeFilesPart";
import type { Typed } from "./noticing";

/** What a notice says, to whom, from when and until when it stands above the others. */
export function NoticeForm(props: {
  form: ReturnType<typeof useForm<Typed>>;
  typed: Typed;
  view: Schemas["NoticesView"];
  was?: Schemas["NoticeLine"];
  /** How many were posted from here: what did not arrive for one is not said beside the next. */
  round: number;
}) {
  const { control } = props.form;
  const { typed, view, was } = props;
  const one = typed.classes.length === 1 && view.classes.find((k) => k.id === typed.classes[0]);
  return (
    <form className="notice-form" onSubmit={(e) => e.preventDefault()}>
      <Controller
        control={control}
        name="text"
        rules={{ validate: (t) => t.trim() !== "" || "Type what is to be told." }}
        render={({ field, fieldState }) => (
          <div>
            <WriteBox
              label="Notice"
              value={field.value}
              onChange={field.onChange}
              rows={4}
              error={fieldState.invalid}
            />
            {fieldState.error && (
              <p className="notice-wrong" role="alert">
                {fieldState.error.message}
              </p>
            )}
          </div>
        )}
      />
      <NoticeFilesPart key={props.round} control={control} />
      {!was && view.mayTellSchool && (
        <Controller
          control={control}
          name="school"
          render={({ field }) => (
            <Tick label="To everybody of the school" value={field.value} onChange={field.onChange} />
          )}
        />
      )}
      {!was && !typed.school && (
        <Controller
          control={control}
          name="classes"
          rules={{ validate: (c, all) => all.school || c.length > 0 || "Choose a class." }}
          render={({ field, fieldState }) => (
            <div className="notice-line">
              <Autocomplete
                multiple
                autoHighlight
                disableCloseOnSelect
                limitTags={6}
                options={view.classes}
                value={view.classes.filter((k) => field.value.includes(k.id))}
                onChange={(_, v) => field.onChange(v.map((k) => k.id))}
                getOptionLabel={(k) => k.name}
                getOptionKey={(k) => k.id}
                renderOption={(p, k) => (
                  <li {...p} key={k.id}>
                    {k.name}
                    {k.state !== "Open" && `, ${stateWords[k.state]}`}
                  </li>
                )}
                isOptionEqualToValue={(a, b) => a.id === b.id}
                renderInput={(p) => (
                  <TextField
                    {...p}
                    label="Classes"
                    placeholder={field.value.length === 0 ? "type a class" : undefined}
                    error={fieldState.invalid}
                    helperText={fieldState.error?.message}
                    slotProps={{ ...p.slotProps, inputLabel: { ...p.slotProps?.inputLabel, shrink: true } }}
                  />
                )}
              />
              {field.value.length < view.classes.length && view.classes.length > 1 && (
                <Button onClick={() => field.onChange(view.classes.map((k) => k.id))}>
                  All {view.classes.length} classes
                </Button>
              )}
            </div>
          )}
        />
      )}
      {!was && one && one.groups.length > 0 && !typed.school && (
        <Controller
          control={control}
          name="group"
          render={({ field }) => (
            <TextField
              select
              label="For"
              {...field}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            >
              <MenuItem value="">all of the class</MenuItem>
              {one.groups.map((g) => (
                <MenuItem key={g.id} value={String(g.id)}>
                  group {g.name} alone
                </MenuItem>
              ))}
            </TextField>
          )}
        />
      )}
      <div className="notice-line">
        {was?.state !== "Posted" && (
          <TextPart
            control={control}
            name="postOn"
            type="date"
            label="Post on (empty for now)"
            slotProps={{ inputLabel: { shrink: true } }}
          />
        )}
        {was?.state !== "Posted" && typed.postOn !== "" && (
          <TextPart
            control={control}
            name="postAt"
            type="time"
            label="At"
            slotProps={{ inputLabel: { shrink: true } }}
          />
        )}
        <TextPart
          control={control}
          name="pinnedUntil"
          type="date"
          label="On top until (empty for not)"
          slotProps={{ inputLabel: { shrink: true } }}
        />
      </div>
      {!typed.school && <AsksPart control={control as unknown as Control<AsksTyped>} asks={typed.asks} />}
    </form>
  );
}
