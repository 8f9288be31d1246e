import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { Controller, type Control } from "react-hook-form";
import { api, take } from "../../../api/client";
import type { Typed } from "./giving";

/** Whom it is given to: everybody, or groups and students by name. */
export function GivenTo({ classId, control }: { classId: number; control: Control<Typed> }) {
  const groups = useQuery({
    queryKey: ["groups", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/groups", { params: { path: { classId } } })),
  });
  const options = useMemo(
    () => [
      ...(groups.data?.groups ?? []).map((g) => ({
        key: `g${g.id}`,
        name: `Group ${g.name}`,
        ids: g.members,
      })),
      ...(groups.data?.students ?? []).map((s) => ({ key: `s${s.id}`, name: s.sortName, ids: [s.id] })),
    ],
    [groups.data],
  );
  return (
    <Controller
      control={control}
      name="to"
      render={({ field }) => {
        const chosen = options.filter((o) => o.key.startsWith("s") && field.value.includes(o.ids[0]!));
        return (
          <Autocomplete
            multiple
            autoHighlight
            disableCloseOnSelect
            options={options}
            value={chosen}
            onChange={(_, v) => {
              // Who left is on no list, and what was given to them stays theirs.
              const left = field.value.filter((id) => !options.some((o) => o.key === `s${id}`));
              field.onChange([...new Set([...left, ...v.flatMap((o) => o.ids)])]);
            }}
            getOptionLabel={(o) => o.name}
            getOptionKey={(o) => o.key}
            isOptionEqualToValue={(a, b) => a.key === b.key}
            renderInput={(p) => (
              <TextField
                {...p}
                label="Given to"
                placeholder={chosen.length === 0 ? "everybody in the class" : undefined}
                helperText="Type a group or a name to give it to some only. Who joins later does not get what is given by name."
                slotProps={{ ...p.slotProps, inputLabel: { ...p.slotProps?.inputLabel, shrink: true } }}
              />
            )}
          />
        );
      }}
    />
  );
}
