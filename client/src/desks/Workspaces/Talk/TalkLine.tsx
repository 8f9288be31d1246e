import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Problem } from "../../../parts/Problem";
import { Written } from "../../../parts/Written";
import { sayMoment } from "../../../parts/words";

/** A message: who wrote it and when, what it says, and what may be done with it. */
export function TalkLine(props: {
  classId: number;
  folderId: number;
  message: Schemas["TalkMessage"];
  /** May it be hidden, and its writer be set to read only? */
  staff: boolean;
  note?: string;
  onAnswer?: () => void;
}) {
  const { classId, folderId, message: m } = props;
  const [hiding, setHiding] = useState(false);
  const [why, setWhy] = useState("");
  const path = { classId, folderId, messageId: m.id };
  const hide = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/folders/{folderId}/talk/messages/{messageId}/hiding", {
          params: { path },
          body: { why },
          headers,
        }),
      ),
    () => setHiding(false),
  );
  const show = useAct((_: void, headers) =>
    take(
      api.DELETE("/api/classes/{classId}/folders/{folderId}/talk/messages/{messageId}/hiding", {
        params: { path },
        headers,
      }),
    ),
  );
  const only = useAct((on: boolean, headers) =>
    take(
      api.PUT("/api/classes/{classId}/talk/readers/{personId}", {
        params: { path: { classId, personId: m.author } },
        body: { only: on },
        headers,
      }),
    ),
  );
  return (
    <article className="talk-line" data-mine={m.mine || undefined} data-hidden={m.hidden || undefined}>
      <p>
        <strong>{m.mine ? "You" : m.name}</strong>
        {m.staff && !m.mine && <span className="soft"> teacher</span>}
        <span className="soft">
          {" "}
          {sayMoment(m.at)}
          {props.note && `, ${props.note}`}
          {m.hidden && m.hiddenBy && `, hidden by ${m.hiddenBy}${m.hiddenWhy ? `: ${m.hiddenWhy}` : ""}`}
        </span>
      </p>
      {m.text == null ? (
        <p className="soft">A teacher has hidden this message.</p>
      ) : (
        <Written text={m.text} lines />
      )}
      <div className="talk-acts">
        {props.onAnswer && !m.hidden && (
          <Button
            color="inherit"
            onClick={props.onAnswer}
            aria-label={`Answer ${m.mine ? "yourself" : m.name}`}
          >
            Answer
          </Button>
        )}
        {props.staff && !m.hidden && (
          <Button color="inherit" onClick={() => setHiding(true)} aria-label={`Hide what ${m.name} wrote`}>
            Hide…
          </Button>
        )}
        {props.staff && m.hidden && (
          <Button
            color="inherit"
            onClick={() => show.mutate()}
            aria-label={`Show again what ${m.name} wrote`}
          >
            Show again
          </Button>
        )}
        {props.staff && !m.staff && (
          <Button
            color="inherit"
            onClick={() => only.mutate(!m.readsOnly)}
            aria-label={m.readsOnly ? `Let ${m.name} write again` : `Let ${m.name} only read`}
          >
            {m.readsOnly ? "Let them write again" : "Let them only read"}
          </Button>
        )}
      </div>
      <Problem error={show.error ?? only.error} />
      {hiding && (
        <Ask
          open
          title={`Hide what ${m.name} wrote?`}
          act="Hide it"
          busy={hide.isPending}
          error={hide.error}
          onAct={() => hide.mutate()}
          onClose={() => setHiding(false)}
        >
          <Typography variant="body2">
            Students see that something was hidden, not what. It stays on record with who hid it and why, and
            can be shown again.
          </Typography>
          <TextField
            fullWidth
            autoFocus
            margin="dense"
            label="Why"
            value={why}
            onChange={(e) => setWhy(e.target.value)}
          />
        </Ask>
      )}
    </article>
  );
}
