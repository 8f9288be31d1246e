import TextField from "@mui/material/TextField";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { LanguagePart } from "./LanguagePart";
import "./shelf.css";

/** Changes what the page of a shelf says, its language and until when it opens; one whose day is over opens again by that. */
export function ShelfChange(props: {
  classId: number;
  shelf: Schemas["ShelfView"];
  languages: Schemas["ShelfLanguage"][];
  suggested: string;
  onClose: () => void;
}) {
  const { classId, shelf } = props;
  const [title, setTitle] = useState(shelf.title);
  const [text, setText] = useState(shelf.text);
  const [until, setUntil] = useState<string>(shelf.open ? shelf.until : props.suggested);
  const [language, setLanguage] = useState(shelf.language);
  const act = useAct(
    (_: void, headers) =>
      take(
        api.PUT("/api/classes/{classId}/shelves/{shelfId}", {
          params: { path: { classId, shelfId: shelf.id } },
          body: { title, text, until, language },
          headers,
        }),
      ),
    props.onClose,
  );
  const wrong = (field: string) => act.error?.field === field;
  return (
    <Ask
      open
      title={shelf.open ? `Change ${shelf.title}` : `Open ${shelf.title} again`}
      act={shelf.open ? "Save the shelf" : "Open it again"}
      disabled={title.trim() === "" || until === ""}
      busy={act.isPending}
      error={act.error}
      onAct={() => act.mutate()}
      onClose={props.onClose}
    >
      <TextField
        className="shelf-part"
        label="Title"
        value={title}
        onChange={(e) => setTitle(e.target.value)}
        error={wrong("title")}
        fullWidth
      />
      <TextField
        className="shelf-part"
        label="Text on the cover page"
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={wrong("text")}
        multiline
        minRows={2}
        fullWidth
      />
      <TextField
        className="shelf-part"
        label="Open until"
        type="date"
        value={until}
        onChange={(e) => setUntil(e.target.value)}
        error={wrong("until")}
        slotProps={{ inputLabel: { shrink: true } }}
        helperText="Its address stays the same. The things on it stay as they were when it was opened first."
        fullWidth
      />
      <LanguagePart languages={props.languages} value={language} set={setLanguage} />
    </Ask>
  );
}
