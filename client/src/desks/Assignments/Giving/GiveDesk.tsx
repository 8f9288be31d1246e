import Autocomplete from "@mui/material/Autocomplete";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { Controller, useWatch } from "react-hook-form";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../../api/client";
import { useWorkspace } from "../../../api/queries";
import { useAct } from "../../../api/useAct";
import { useBegun } from "../../../api/useBegun";
import { ClassBar } from "../../../parts/ClassBar";
import { Desk } from "../../../parts/Desk";
import { pathsOf } from "../../../parts/folders/lines";
import { useRefusal } from "../../../parts/form/refusal";
import { TextPart } from "../../../parts/form/TextPart";
import { WrittenPart } from "../../../parts/form/WrittenPart";
import { useKeptForm } from "../../../parts/form/useKeptForm";
import { siteOf } from "../../../parts/HandedThing";
import { Criteria } from "../../../parts/Criteria";
import { sayMarked } from "../../../parts/marks";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { Written } from "../../../parts/Written";
import { sayDue } from "../../../parts/due";
import { count, sayDay } from "../../../parts/words";
import { AlsoIn } from "./AlsoIn";
import { AttachPart } from "./AttachPart";
import { MarkedPart } from "./MarkedPart";
import { GivenTo } from "./GivenTo";
import { GivePreview } from "./GivePreview";
import "./give.css";
import { blank, bodyOf, typedOf, type Typed } from "./giving";

/** Writes an assignment, or changes one: as students will read it, and at the right who will find it and where it falls. */
export function GiveDesk() {
  const { id, assignment } = useParams();
  const workspace = useWorkspace(Number(id));
  const w = workspace.data;
  const was = w?.assignments.find((a) => a.id === Number(assignment));
  if (!w || (assignment !== undefined && !was))
    return (
      <Desk title="Give an assignment">
        <Problem error={workspace.error} />
        {w && (
          <Typography>There is no such assignment any more. It may be in the bin of the class.</Typography>
        )}
      </Desk>
    );
  return <GiveForm key={was?.id ?? "new"} w={w} was={was} />;
}

function GiveForm({ w, was }: { w: Schemas["WorkspaceView"]; was?: Schemas["AssignmentView"] }) {
  const classId = w.head.id;
  const bank = w.head.kind === "Department";
  const go = useNavigate();
  const [address] = useSearchParams();
  const also = (address.get("also") ?? "")
    .split(",")
    .map(Number)
    .filter((k) => k > 0 && k !== classId);
  const form = useKeptForm<Typed>(
    was ? `assignment:${was.id}:${was.version}` : `assignment:${classId}:new:${also.join("-")}`,
    was ? typedOf(was) : { ...blank(w), alsoIn: also },
  );
  const [made, setMade] = useState<Schemas["MadeAssignment"] | null>(null);
  const begun = useBegun(was?.version ?? 0);
  const typed = useWatch({ control: form.control }) as Typed;
  const save = useAct(
    ({ publish, version }: { publish: boolean; version: number }, headers) => {
      const body = bodyOf(form.getValues(), publish);
      return was
        ? take(
            api.PUT("/api/classes/{classId}/assignments/{assignmentId}", {
              params: {
                path: { classId, assignmentId: was.id },
                query: { version },
              },
              body,
              headers,
            }),
          )
        : take(
            api.POST("/api/classes/{classId}/assignments", { params: { path: { classId } }, body, headers }),
          );
    },
    (done) => {
      form.drop();
      if (done.blindSpots.length > 0 && !bank) setMade(done);
      else void go(`/classes/${classId}/work?assignment=${done.id}`);
    },
  );
  const beside = useRefusal(form, save.error, [
    "title",
    "instructions",
    "points",
    "dueOn",
    "lateDays",
    "folders",
    "alsoIn",
    "things",
  ]);
  const body = bodyOf(typed, false);
  const marked = sayMarked({
    points: body.scheme
      ? body.scheme.criteria.reduce((sum, c) => sum + Math.max(0, ...c.levels.map((l) => l.points)), 0)
      : body.points,
    scheme: body.scheme,
  });
  const paths = useMemo(() => pathsOf(w.folders), [w.folders]);
  const send = (publish: boolean) =>
    void form.handleSubmit(() => save.mutate({ publish, version: begun(save.error) }))();
  if (made)
    return (
      <Desk
        title={was ? "Changed, with a blind spot" : "Made, with a blind spot"}
        lead={<ClassBar head={w.head} />}
      >
        <StateMark mark="attention">
          {count(made.blindSpots.length, "student can’t", "students can’t")} see any folder it is filed in:
        </StateMark>
        <Typography>{made.blindSpots.join(", ")}</Typography>
        <Button variant="contained" onClick={() => void go(`/classes/${classId}/work?assignment=${made.id}`)}>
          Understood
        </Button>
      </Desk>
    );
  return (
    <Desk
      title={was ? `Change “${was.title}”` : "Give an assignment"}
      wide
      lead={<ClassBar head={w.head} />}
      slip={
        <>
          {!bank && <GivePreview classId={classId} typed={typed} was={was} />}
          {was ? (
            <Button variant="contained" disabled={save.isPending} onClick={() => send(false)}>
              Change it
            </Button>
          ) : (
            <>
              {!bank && (
                <Button variant="contained" disabled={save.isPending} onClick={() => send(true)}>
                  Make and publish
                </Button>
              )}
              <Button
                variant={bank ? "contained" : "outlined"}
                disabled={save.isPending}
                onClick={() => send(false)}
              >
                {bank
                  ? "Put it in the bank"
                  : typed.publishOn
                    ? `Keep it until ${sayDay(typed.publishOn)}`
                    : "Keep as draft"}
              </Button>
            </>
          )}
          <Problem error={beside} />
          {form.kept && (
            <Typography variant="body2">
              What you typed is kept here until you save it. <Button onClick={form.drop}>Drop it</Button>
            </Typography>
          )}
        </>
      }
    >
      <div className="give">
        <form
          className="give-form"
          onSubmit={(e) => {
            e.preventDefault();
          }}
        >
          <TextPart
            control={form.control}
            name="title"
            label="Title"
            autoFocus={!was}
            check={(t) => (t.trim() === "" ? "Type a title: students find it by that." : undefined)}
          />
          <WrittenPart control={form.control} name="instructions" label="Instructions" />
          <AttachPart w={w} control={form.control} />
          <MarkedPart control={form.control} />
          <div className="give-line">
            <TextPart
              control={form.control}
              name="dueOn"
              type="date"
              label="Due"
              slotProps={{ inputLabel: { shrink: true } }}
            />
            <TextPart
              control={form.control}
              name="dueTime"
              type="time"
              label="By (empty for all day)"
              slotProps={{ inputLabel: { shrink: true } }}
            />
          </div>
          <div className="give-line">
            <Controller
              control={form.control}
              name="late"
              render={({ field }) => (
                <TextField
                  select
                  label="Late work"
                  {...field}
                  onChange={(e) => field.onChange(e.target.value)}
                >
                  <MenuItem value="always">is taken</MenuItem>
                  <MenuItem value="days">is taken for some days</MenuItem>
                  <MenuItem value="none">is not taken</MenuItem>
                </TextField>
              )}
            />
            {typed.late === "days" && (
              <TextPart
                control={form.control}
                name="lateDays"
                label="Days after it is due"
                check={(t) =>
                  /^\d{1,3}$/.test(t.trim()) && Number(t) > 0 ? undefined : "Type whole days, 1 or more."
                }
              />
            )}
          </div>
          <Controller
            control={form.control}
            name="folders"
            rules={{
              validate: (f: number[]) => f.length > 0 || "Pick at least one folder: students find it there.",
            }}
            render={({ field, fieldState }) => (
              <Autocomplete
                multiple
                autoHighlight
                disableCloseOnSelect
                options={w.folders}
                value={w.folders.filter((f) => field.value.includes(f.id))}
                onChange={(_, v) => field.onChange(v.map((f) => f.id))}
                getOptionLabel={(f) => paths.get(f.id) ?? f.name}
                getOptionKey={(f) => f.id}
                isOptionEqualToValue={(a, b) => a.id === b.id}
                renderInput={(p) => (
                  <TextField
                    {...p}
                    inputRef={field.ref}
                    label="Filed in (one folder or several)"
                    error={fieldState.invalid}
                    helperText={fieldState.error?.message}
                  />
                )}
              />
            )}
          />
          {!bank && <GivenTo classId={classId} control={form.control} was={was} />}
          {!bank && !was && typed.to.length === 0 && <AlsoIn classId={classId} control={form.control} />}
          {!bank && !was?.published && (
            <div className="give-line">
              <TextPart
                control={form.control}
                name="publishOn"
                type="date"
                label="Published by itself on"
                help="Empty: you publish it yourself"
                slotProps={{ inputLabel: { shrink: true } }}
              />
              {typed.publishOn && (
                <TextPart
                  control={form.control}
                  name="publishTime"
                  type="time"
                  label="At"
                  slotProps={{ inputLabel: { shrink: true } }}
                />
              )}
            </div>
          )}
        </form>
        <section className="give-sheet" aria-label="As students read it">
          <Typography variant="body2" className="soft">
            As students read it
          </Typography>
          <h2>{typed.title.trim() || "No title yet"}</h2>
          <p className="soft">
            {sayDue({ dueOn: typed.dueOn || null, dueTime: typed.dueTime || null }) || "no date"}
            {marked && `, ${marked}`}
            {typed.dueOn && typed.late === "none" && ", late work is not taken"}
          </p>
          {typed.instructions.trim() === "" ? (
            <p className="soft">No instructions yet.</p>
          ) : (
            <Written text={typed.instructions} lines />
          )}
          {body.scheme && <Criteria scheme={body.scheme} />}
          {typed.things.length > 0 && (
            <ul className="attached" aria-label="Attached, as students see it">
              {typed.things.map((t, n) => (
                <li key={n}>
                  {t.name}{" "}
                  {t.kind === "Link" && t.url && <span className="soft">link to {siteOf(t.url)}</span>}
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </Desk>
  );
}
