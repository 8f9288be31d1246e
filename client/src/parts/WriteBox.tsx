import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRef } from "react";
import { Written } from "./Written";

const marks: [name: string, before: string, after: string, line: boolean][] = [
  ["Heading", "## ", "", true],
  ["Bold", "**", "**", false],
  ["Italic", "*", "*", false],
  ["List", "- ", "", true],
  ["Link", "[", "](https://)", false],
];

/** Writes formatted text: at the left as it is typed, at the right as it will read. */
export function WriteBox(props: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  error?: boolean;
  rows?: number;
}) {
  const field = useRef<HTMLTextAreaElement>(null);
  const put = (before: string, after: string, line: boolean) => {
    const box = field.current;
    if (!box) return;
    const { value } = props;
    let from = box.selectionStart;
    const to = box.selectionEnd;
    if (line) from = value.lastIndexOf("\n", from - 1) + 1;
    const chosen = value.slice(from, to);
    const written = line
      ? chosen
          .split("\n")
          .map((l) => before + l)
          .join("\n")
      : before + chosen + after;
    props.onChange(value.slice(0, from) + written + value.slice(to));
    requestAnimationFrame(() => {
      box.focus();
      const end = line ? from + written.length : from + before.length + chosen.length;
      box.setSelectionRange(end, end);
    });
  };
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 2 }}>
      <Box>
        <Box sx={{ display: "flex", gap: 0.5, mb: 1, flexWrap: "wrap" }} role="group" aria-label="Format">
          {marks.map(([name, before, after, line]) => (
            <Button
              key={name}
              color="inherit"
              sx={{ minWidth: 0, px: 1 }}
              onClick={() => put(before, after, line)}
            >
              {name}
            </Button>
          ))}
        </Box>
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
