import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRef } from "react";
import { FormatBar } from "./FormatBar";
import { Written } from "./Written";

/** Writes formatted text: at the left as it is typed, at the right as it will read. */
export function WriteBox(props: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  error?: boolean;
  rows?: number;
}) {
  const field = useRef<HTMLTextAreaElement>(null);
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 2 }}>
      <Box>
        <FormatBar field={field} value={props.value} onChange={props.onChange} />
        <TextField
          fullWidth
          multiline
          minRows={props.rows ?? 10}
          maxRows={20}
          label={props.label}
          value={props.value}
          error={props.error}
          inputRef={field}
          onChange={(e) => props.onChange(e.target.value)}
        />
      </Box>
      <Box sx={{ minWidth: 0, borderLeft: { sm: 1 }, borderColor: { sm: "divider" }, pl: { sm: 2 } }}>
        <Typography variant="caption" component="p" sx={{ color: "text.secondary", height: 42 }}>
          It will read
        </Typography>
        {props.value.trim() === "" ? (
          <Typography sx={{ color: "text.secondary" }}>Nothing is written yet.</Typography>
        ) : (
          <Written text={props.value} />
        )}
      </Box>
    </Box>
  );
}
