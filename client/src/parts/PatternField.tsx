import Box from "@mui/material/Box";
import Chip from "@mui/material/Chip";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRef } from "react";
import { Pattern } from "./Pattern";

/** Writes a pattern: its placeholders are put in where the writing mark stands, and it is shown as chips beside. */
export function PatternField(props: {
  value: string;
  placeholders: string[];
  error: boolean;
  onChange: (pattern: string) => void;
}) {
  const field = useRef<HTMLInputElement>(null);
  const insert = (name: string) => {
    const at = field.current?.selectionStart ?? props.value.length;
    props.onChange(`${props.value.slice(0, at)}{${name}}${props.value.slice(at)}`);
    field.current?.focus();
  };
  return (
    <>
      <TextField
        fullWidth
        label="Pattern"
        value={props.value}
        inputRef={field}
        error={props.error}
        onChange={(e) => props.onChange(e.target.value)}
      />
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", my: 1, flexWrap: "wrap" }}>
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          Put in
        </Typography>
        {props.placeholders.map((p) => (
          <Chip
            key={p}
            size="small"
            label={p}
            onClick={() => insert(p)}
            variant="outlined"
            color="success"
            sx={{ borderRadius: 0.5 }}
          />
        ))}
        <Box sx={{ flex: 1 }} />
        <Pattern text={props.value} />
      </Box>
    </>
  );
}
