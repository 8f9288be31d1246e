import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { Controller } from "react-hook-form";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { useRefusal } from "../../../parts/form/refusal";
import { TextPart } from "../../../parts/form/TextPart";
import { useKeptForm } from "../../../parts/form/useKeptForm";
import { Problem } from "../../../parts/Problem";
import { PickStudents, type Picked } from "./PickStudents";

interface Typed {
  name: string;
  email: string;
  language: string;
  children: Picked[];
}

/** Somebody at home, added or changed by hand. What is typed is kept until it is saved. */
export function ContactForm(props: {
  contact: Schemas["ContactLine"] | null;
  languages: Schemas["LetterLanguage"][];
  onClose: () => void;
}) {
  const k = props.contact;
  const form = useKeptForm<Typed>(`contact:${k ? `${k.id}:${k.version}` : "new"}`, {
    name: k?.name ?? "",
    email: k?.email ?? "",
    language: k?.language ?? props.languages[0]!.code,
    children: k?.children.map((x) => ({ id: x.id, name: x.name })) ?? [],
  });
  const save = useAct(
    async (typed: Typed, headers) => {
      const body = { ...typed, children: typed.children.map((x) => x.id) };
      if (k)
        await take(
          api.PUT("/api/families/{contactId}", {
            params: { path: { contactId: k.id }, query: { version: k.version } },
            body,
            headers,
          }),
        );
      else await take(api.POST("/api/families", { body, headers }));
    },
    () => {
      form.drop();
      props.onClose();
    },
  );
  const rest = useRefusal(form, save.error, ["name", "email", "language", "children"]);
  const fed = k?.children.filter((x) => !x.byHand) ?? [];
  return (
    <Ask
      open
      kept
      title={k ? `Change ${k.name}` : "Add a contact"}
      act={k ? "Save the contact" : "Add the contact"}
      busy={save.isPending}
      onAct={() => void form.handleSubmit((typed) => save.mutate(typed))()}
      onDrop={() => {
        form.drop();
        props.onClose();
      }}
      onClose={props.onClose}
    >
      <div className="contact-form">
        <TextPart control={form.control} name="name" label="Name" autoFocus />
        <TextPart
          control={form.control}
          name="email"
          label="E-mail address"
          help="Without one no letter goes to them."
        />
        <TextPart control={form.control} name="language" label="Language of letters" select>
          {props.languages.map((l) => (
            <MenuItem key={l.code} value={l.code}>
              {l.name}
            </MenuItem>
          ))}
        </TextPart>
        <Controller
          control={form.control}
          name="children"
          render={({ field, fieldState }) => (
            <PickStudents
              label="Contact of"
              picked={field.value}
              onChange={field.onChange}
              error={fieldState.error?.message}
            />
          )}
        />
        {fed.length > 0 && (
          <Typography variant="body2" color="textSecondary">
            {fed.map((x) => x.name).join(", ")}: so say the school's records, and go on saying it.
          </Typography>
        )}
        {!k && (
          <Typography variant="body2" color="textSecondary">
            Whoever is added here may be written to: the weekly letter goes to them while it is sent.
          </Typography>
        )}
        <Problem error={rest} />
      </div>
    </Ask>
  );
}
