import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { CourseMark, markNames } from "./CourseMark";

/** Chooses the mark that a course or a department wears. */
export function MarkChoice(props: {
  label?: string;
  labelledBy?: string;
  value: string;
  onChange: (mark: string) => void;
}) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={props.value}
      onChange={(_, v: string | null) => v && props.onChange(v)}
      aria-label={props.label}
      aria-labelledby={props.labelledBy}
      sx={{ flexWrap: "wrap" }}
    >
      {markNames.map((m) => (
        <ToggleButton key={m} value={m} aria-label={m}>
          <CourseMark mark={m} />
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
