import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import type { ReactNode } from "react";

/** The line above a list: which of its rows are shown, and to the right what else narrows it. */
export function ListBar<T extends string>(props: {
  label: string;
  show: T;
  /** Each kind of rows with its word and how many there are. */
  kinds: readonly (readonly [T, string, number])[];
  onShow: (show: T) => void;
  /** Stands right after the kinds. */
  beside?: ReactNode;
  children?: ReactNode;
}) {
  return (
    <Box
      sx={{
        display: "flex",
        gap: 1.5,
        alignItems: "center",
        flexWrap: "wrap",
        mb: 0.5,
        "@media print": { display: "none" },
      }}
    >
      <ToggleButtonGroup
        exclusive
        size="small"
        value={props.show}
        onChange={(_, v: T | null) => v && props.onShow(v)}
        aria-label={props.label}
      >
        {props.kinds.map(([v, word, n]) => (
          <ToggleButton key={v} value={v}>
            {word} {n}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {props.beside}
      <Box sx={{ flex: 1 }} />
      {props.children}
    </Box>
  );
}

/** Narrows a list by what is typed. */
export function FindInList(props: { label: string; value: string; onChange: (value: string) => void }) {
  return (
    <TextField
      variant="standard"
      label={props.label}
      value={props.value}
      onChange={(e) => props.onChange(e.target.value)}
      sx={{ width: 210 }}
    />
  );
}

/** Narrows or orders a list by one of several values. */
export function ChooseInList(props: {
  label: string;
  value: string;
  choices: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
  /** The word for no narrowing; without it one of the choices stands. */
  all?: string;
  minWidth?: number;
}) {
  return (
    <TextField
      select
      variant="standard"
      label={props.label}
      value={props.choices.some(([v]) => v === props.value) ? props.value : ""}
      onChange={(e) => props.onChange(e.target.value)}
      sx={{ minWidth: props.minWidth ?? 110 }}
      slotProps={
        props.all === undefined ? undefined : { select: { displayEmpty: true }, inputLabel: { shrink: true } }
      }
    >
      {props.all !== undefined && <MenuItem value="">{props.all}</MenuItem>}
      {props.choices.map(([v, word]) => (
        <MenuItem key={v} value={v}>
          {word}
        </MenuItem>
      ))}
    </TextField>
  );
}
