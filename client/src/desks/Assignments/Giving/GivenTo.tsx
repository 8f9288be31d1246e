import Autocomplete from "@mui/material/Autocomplete";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { useController, type Control } from "react-hook-form";
import { api, take, type Schemas } from "../../../api/client";
import { StateMark } from "../../../parts/StateMark";
import { count } from "../../../parts/words";
import type { Typed } from "./giving";

/** Whom it is given to: everybody, or groups and students by name. */
export function GivenTo(props: {
  classId: number;
  control: Control<Typed>;
  was?: Schemas["AssignmentView"];
}) {
  const { classId, control, was } = props;
  const groups = useQuery({
    queryKey: ["groups", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/groups", { params: { path: { classId } } })),
  });
  const { field: to } = useController({ control, name: "to" });
  const { field: of } = useController({ control, name: "groups" });
  const options = useMemo(() => {
    const there = groups.data?.groups ?? [];
    // A group that was taken away stands on what it was given to until that is changed.
    const gone = groups.data ? (was?.groups ?? []).filter((g) => there.every((t) => t.id !== g.id)) : [];
    return [
      ...there.map((g) => ({ key: `g${g.id}`, id: g.id, group: true, name: `Group ${g.name}` })),
      ...gone.map((g) => ({ key: `g${g.id}`, id: g.id, group: true, name: `Group ${g.name}, taken away` })),
      ...(groups.data?.students ?? []).map((s) => ({
        key: `s${s.id}`,
        id: s.id,
        group: false,
        name: s.sortName,
      })),
    ];
  }, [groups.data, was]);
  const chosen = options.filter((o) => (o.group ? of.value : to.value).includes(o.id));
  const since = (groups.data?.students ?? []).filter(
    (s) => was?.joinedSince.includes(s.id) && !to.value.includes(s.id),
  );
  return (
    <div className="give-to">
      <Autocomplete
        multiple
        autoHighlight
        disableCloseOnSelect
        options={options}
        value={chosen}
        onChange={(_, v) => {
          // Who left is on no list, and what was given to them stays theirs.
          const left = to.value.filter((id) => !options.some((o) => !o.group && o.id === id));
          to.onChange([...left, ...v.filter((o) => !o.group).map((o) => o.id)]);
          of.onChange(v.filter((o) => o.group).map((o) => o.id));
        }}
        getOptionLabel={(o) => o.name}
        getOptionKey={(o) => o.key}
        isOptionEqualToValue={(a, b) => a.key === b.key}
        renderInput={(p) => (
          <TextField
            {...p}
            label="Given to"
            placeholder={chosen.length === 0 ? "everybody in the class" : undefined}
            helperText={
              of.value.length > 0
                ? was?.published
                  ? "To whoever was in the group when it was published, and to those named."
                  : "To whoever is in the group when it is published."
                : "Type a group or a name to give it to some only. Who joins later does not get what is given by name."
            }
            slotProps={{ ...p.slotProps, inputLabel: { ...p.slotProps?.inputLabel, shrink: true } }}
          />
        )}
      />
      {since.length > 0 && (
        <StateMark mark="attention" wrap>
          {count(since.length, "student has", "students have")} joined since it was published and not got it:{" "}
          {since.map((s) => s.sortName).join("; ")}.{" "}
          <Button onClick={() => to.onChange([...to.value, ...since.map((s) => s.id)])}>
            Give it to {since.length === 1 ? "them" : `these ${since.length}`} too
          </Button>
        </StateMark>
      )}
    </div>
  );
}
