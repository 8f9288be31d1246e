import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { Schemas } from "../../../api/client";

/** Which language the page of a shelf is in, around the things that stand on it. */
export function LanguagePart(props: {
  languages: Schemas["ShelfLanguage"][];
  value: string;
  set: (code: string) => void;
}) {
  return (
    <TextField
      select
      fullWidth
      className="shelf-part"
      label="Language of its page"
      value={props.languages.length === 0 ? "" : props.value}
      onChange={(e) => props.set(e.target.value)}
    >
      {props.languages.map((l) => (
        <MenuItem key={l.code} value={l.code}>
          {l.name}
        </MenuItem>
      ))}
    </TextField>
  );
}
