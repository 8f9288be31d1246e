import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { usePlans, useSchool } from "../api/queries";

/** Chooses a school year. */
export function YearChoice({ value, onChange }: { value?: number; onChange: (year: number) => void }) {
  const school = useSchool();
  return (
    <TextField
      select
      label="School year"
      value={value ?? ""}
      onChange={(e) => onChange(Number(e.target.value))}
    >
      {(school.data?.years ?? []).map((y) => (
        <MenuItem key={y.id} value={y.id}>
          {y.label}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Chooses a term of a year, or the whole of it. */
export function TermChoice(props: {
  year?: number;
  value: number | "";
  error?: boolean;
  onChange: (term: number | "") => void;
}) {
  const school = useSchool();
  const terms = school.data?.years.find((y) => y.id === props.year)?.terms ?? [];
  return (
    <TextField
      select
      label="Term"
      value={props.value}
      error={props.error}
      onChange={(e) => props.onChange(Number(e.target.value) || "")}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      <MenuItem value="">whole year</MenuItem>
      {terms.map((t) => (
        <MenuItem key={t.id} value={t.id}>
          {t.name}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Chooses a folder plan, or none. */
export function PlanChoice(props: {
  label?: string;
  value: number | "";
  disabled?: boolean;
  onChange: (plan: number | "") => void;
}) {
  const plans = usePlans();
  return (
    <TextField
      select
      label={props.label ?? "Folder plan"}
      value={props.value}
      disabled={props.disabled}
      onChange={(e) => props.onChange(Number(e.target.value) || "")}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      {(plans.data ?? []).map((p) => (
        <MenuItem key={p.id} value={p.id}>
          {p.name}
        </MenuItem>
      ))}
      <MenuItem value="">no plan, no folders</MenuItem>
    </TextField>
  );
}
