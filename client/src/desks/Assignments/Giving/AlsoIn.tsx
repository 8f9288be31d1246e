import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { Controller, type Control } from "react-hook-form";
import { api, take } from "../../../api/client";
import { stateWords } from "../../../parts/words";
import type { Typed } from "./giving";

/** Other classes that get it in the same act: one's own, and the sections of one's combined rosters. */
export function AlsoIn({ classId, control }: { classId: number; control: Control<Typed> }) {
  const mine = useQuery({ queryKey: ["my-classes"], queryFn: () => take(api.GET("/api/my-classes")) });
  const combined = useQuery({ queryKey: ["combined"], queryFn: () => take(api.GET("/api/combined")) });
  const options = useMemo(() => {
    const classes = new Map<number, { id: number; name: string; state: string }>();
    for (const k of mine.data ?? [])
      if (k.id !== classId && k.state !== "Archived" && ["CoTeacher", "Lead"].includes(k.standing))
        classes.set(k.id, { id: k.id, name: k.name, state: k.state === "Open" ? "" : stateWords[k.state] });
    for (const r of combined.data ?? [])
      r.classes.forEach((id, n) => {
        if (id !== classId && !classes.has(id)) classes.set(id, { id, name: r.sections[n]!, state: "" });
      });
    return [...classes.values()];
  }, [mine.data, combined.data, classId]);
  if (options.length === 0) return null;
  return (
    <Controller
      control={control}
      name="alsoIn"
      render={({ field, fieldState }) => (
        <Autocomplete
          multiple
          autoHighlight
          disableCloseOnSelect
          options={options}
          value={options.filter((o) => field.value.includes(o.id))}
          onChange={(_, v) => field.onChange(v.map((o) => o.id))}
          getOptionLabel={(o) => o.name}
          getOptionKey={(o) => o.id}
          renderOption={(p, o) => (
            <li {...p} key={o.id}>
              {o.name}
              {o.state && `, ${o.state}`}
            </li>
          )}
          isOptionEqualToValue={(a, b) => a.id === b.id}
          renderInput={(p) => (
            <TextField
              {...p}
              inputRef={field.ref}
              label="Also in"
              placeholder={field.value.length === 0 ? "this class alone" : undefined}
              error={fieldState.invalid}
              helperText={
                fieldState.error?.message ||
                "The same in other classes, in the folder of the same name, to everybody there. Kept in step until somebody hands in."
              }
              slotProps={{ ...p.slotProps, inputLabel: { ...p.slotProps?.inputLabel, shrink: true } }}
            />
          )}
        />
      )}
    />
  );
}
