import Autocomplete, { createFilterOptions } from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";

/** Something that can be picked: a class, a folder, a person. */
export interface Pickable {
  id: number;
  name: string;
}

/** What stands for nothing. */
const nothing = -1;

const filter = createFilterOptions<Pickable>({ ignoreAccents: true, stringify: (o) => o.name });

/** One of many, found by typing any part of its name, or taken from the list. */
export function PickOne(props: {
  label: string;
  options: readonly Pickable[];
  /** Null for none. */
  value: number | null;
  onChange: (id: number | null) => void;
  /** The word for none, which can then be picked too. */
  none?: string;
  error?: boolean;
  helperText?: ReactNode;
  disabled?: boolean;
  autoFocus?: boolean;
  fullWidth?: boolean;
  variant?: "standard" | "outlined";
  /** In pixels. */
  minWidth?: number;
}) {
  const options =
    props.none === undefined ? props.options : [{ id: nothing, name: props.none }, ...props.options];
  const id = props.value ?? (props.none === undefined ? null : nothing);
  return (
    <Autocomplete
      autoHighlight
      selectOnFocus
      handleHomeEndKeys
      disableClearable={id !== null}
      disabled={props.disabled}
      fullWidth={props.fullWidth}
      options={options}
      // A value that is not among them is none of them.
      value={options.find((o) => o.id === id) ?? null}
      onChange={(_, o) => props.onChange(o === null || o.id === nothing ? null : o.id)}
      filterOptions={filter}
      getOptionLabel={(o) => o.name}
      getOptionKey={(o) => o.id}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      openText="Show the list"
      closeText="Shut the list"
      noOptionsText="Nothing has that in its name."
      sx={{ minWidth: props.minWidth }}
      renderInput={(p) => (
        <TextField
          {...p}
          autoFocus={props.autoFocus}
          label={props.label}
          variant={props.variant}
          error={props.error}
          helperText={props.helperText}
        />
      )}
    />
  );
}
