import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../../api/client";

/** A student as picked. */
export interface Picked {
  id: number;
  name: string;
  /** Grade and number, so that two of one name are told apart in the list. */
  more?: string;
}

/** Students of the directory, found by the first letters of the last name. */
export function PickStudents(props: {
  label: string;
  picked: Picked[];
  onChange: (picked: Picked[]) => void;
  error?: string;
}) {
  const [typed, setTyped] = useState("");
  const found = useQuery({
    queryKey: ["directory", "students", typed],
    enabled: typed.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () => take(api.GET("/api/directory", { params: { query: { starts: typed, students: true } } })),
  });
  const options = typed.trim() === "" ? [] : (found.data ?? []);
  return (
    <Autocomplete
      multiple
      autoHighlight
      filterSelectedOptions
      options={options.map((p): Picked => ({
        id: p.id,
        name: p.sortName,
        more: [p.grade && `grade ${p.grade}`, p.studentNumber].filter(Boolean).join(", "),
      }))}
      value={props.picked}
      inputValue={typed}
      onInputChange={(_, text) => setTyped(text)}
      onChange={(_, picked) => props.onChange(picked.map(({ id, name }) => ({ id, name })))}
      filterOptions={(all) => all}
      getOptionLabel={(o) => o.name}
      getOptionKey={(o) => o.id}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      noOptionsText={
        typed.trim() === "" ? "Type the first letters of the last name." : "Nobody of that name."
      }
      renderOption={({ key, ...more }, o) => (
        <li key={key} {...more}>
          {[o.name, o.more].filter(Boolean).join(", ")}
        </li>
      )}
      renderInput={(p) => (
        <TextField
          {...p}
          label={props.label}
          error={props.error !== undefined}
          helperText={props.error ?? "Students, by the first letters of the last name."}
        />
      )}
    />
  );
}
