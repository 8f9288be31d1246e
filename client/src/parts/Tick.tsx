import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";

/** A tick with its words. */
export function Tick(props: { label: string; value: boolean; onChange: (v: boolean) => void }) {
  return (
    <FormControlLabel
      control={
        <Checkbox size="small" checked={props.value} onChange={(e) => props.onChange(e.target.checked)} />
      }
      label={props.label}
    />
  );
}
