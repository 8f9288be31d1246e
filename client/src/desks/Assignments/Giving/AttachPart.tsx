import Autocomplete from "@mui/material/Autocomplete";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useController, type Control } from "react-hook-form";
import type { Schemas } from "../../../api/client";
import { Ask } from "../../../parts/Ask";
import { useSending } from "../../../parts/form/useSending";
import { FileButton } from "../../../parts/FileButton";
import { StateMark } from "../../../parts/StateMark";
import { webAddress } from "../../../parts/Written";
import { sayBytes } from "../../../parts/words";
import type { Typed, TypedThing } from "./giving";

/** What belongs to an assignment: files that are sent, links, and things that stand in the class already. */
export function AttachPart({ w, control }: { w: Schemas["WorkspaceView"]; control: Control<Typed> }) {
  const { field, fieldState } = useController({ control, name: "things" });
  const things = field.value;
  const [asking, setAsking] = useState<"link" | "item" | null>(null);
  const add = (...more: TypedThing[]) => field.onChange([...things, ...more]);
  const { send, sending, wrong } = useSending(`/api/classes/${w.head.id}/assignments/files`, (arrived) =>
    add(...arrived.map((f) => ({ upload: f.id, name: f.name, kind: "File" as const, size: f.size }))),
  );
  const free = w.items.filter((i) => !i.byStudent && things.every((t) => t.item !== i.id));
  return (
    <div role="group" aria-label="Attached" className="give-things">
      <Typography variant="body2">Attached{things.length === 0 ? ": nothing" : ""}</Typography>
      {things.length > 0 && (
        <ul className="attached">
          {things.map((t, n) => (
            <li key={`${t.id ?? ""}-${t.upload ?? ""}-${t.item ?? ""}-${n}`} className="handed-thing">
              <span>{t.name}</span>
              <span className="soft">
                {t.item != null ? "of the class" : t.kind === "Link" ? t.url : t.size ? sayBytes(t.size) : ""}
              </span>
              {n > 0 && (
                <Button
                  color="inherit"
                  aria-label={`${t.name} one up`}
                  onClick={() =>
                    field.onChange(things.map((x, m) => (m === n - 1 ? t : m === n ? things[n - 1]! : x)))
                  }
                >
                  Up
                </Button>
              )}
              <Button
                color="inherit"
                aria-label={`Take off ${t.name}`}
                onClick={() => field.onChange(things.filter((x) => x !== t))}
              >
                Take off
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div className="handed-adding">
        <FileButton multiple disabled={sending !== null} onFiles={(files) => void send(files)}>
          Attach files…
        </FileButton>
        <Button variant="outlined" onClick={() => setAsking("link")}>
          Attach a link…
        </Button>
        {free.length > 0 && (
          <Button variant="outlined" onClick={() => setAsking("item")}>
            Attach a thing of the class…
          </Button>
        )}
      </div>
      <span role="status">{sending && `${sending} is on its way`}</span>
      {[...wrong, ...(fieldState.error?.message ? [fieldState.error.message] : [])].map((x) => (
        <StateMark key={x} mark="blocked" wrap>
          {x}
        </StateMark>
      ))}
      {asking === "link" && <AskLink onClose={() => setAsking(null)} onLink={(t) => add(t)} />}
      {asking === "item" && (
        <AskItem items={free} onClose={() => setAsking(null)} onItems={(t) => add(...t)} />
      )}
    </div>
  );
}

function AskLink(props: { onClose: () => void; onLink: (t: TypedThing) => void }) {
  const [url, setUrl] = useState("");
  const [name, setName] = useState("");
  const good = /^https?:\/\/[^\s/]+/i.test(webAddress(url));
  return (
    <Ask
      open
      title="Attach a link"
      act="Attach it"
      disabled={!good || name.trim() === ""}
      onAct={() => {
        props.onLink({ name: name.trim(), url: url.trim(), kind: "Link" });
        props.onClose();
      }}
      onClose={props.onClose}
    >
      <TextField
        fullWidth
        autoFocus
        margin="dense"
        label="Address"
        placeholder="https://"
        value={url}
        error={url.trim() !== "" && !good}
        helperText={url.trim() !== "" && !good ? "Give it whole, as https://example.org/page." : ""}
        onChange={(e) => setUrl(e.target.value)}
      />
      <TextField
        fullWidth
        margin="dense"
        label="What it is called"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
    </Ask>
  );
}

function AskItem(props: {
  items: readonly Schemas["ItemView"][];
  onClose: () => void;
  onItems: (t: TypedThing[]) => void;
}) {
  const [chosen, setChosen] = useState<Schemas["ItemView"][]>([]);
  return (
    <Ask
      open
      title="Attach things of the class"
      act={chosen.length > 1 ? `Attach ${chosen.length} things` : "Attach it"}
      disabled={chosen.length === 0}
      onAct={() => {
        props.onItems(
          chosen.map((i) => ({
            item: i.id,
            name: i.name,
            kind: i.kind,
            url: i.url ?? undefined,
            size: i.size ?? undefined,
          })),
        );
        props.onClose();
      }}
      onClose={props.onClose}
    >
      <Typography variant="body2">
        Whoever finds the assignment opens it there, also where they do not see its folder. When it is
        changed, it is changed here too; in the bin, it is hidden.
      </Typography>
      <Autocomplete
        multiple
        autoHighlight
        disableCloseOnSelect
        options={props.items}
        value={chosen}
        onChange={(_, v) => setChosen(v)}
        getOptionLabel={(i) => i.name}
        getOptionKey={(i) => i.id}
        renderInput={(p) => <TextField {...p} margin="dense" autoFocus label="Files, links and pages" />}
      />
    </Ask>
  );
}
