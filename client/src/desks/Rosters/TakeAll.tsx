import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useBoard } from "../../api/queries";
import { Ask } from "../../parts/Ask";
import { count } from "../../parts/words";
import { PickOne } from "../../parts/PickOne";

type Found = Schemas["FoundPerson"];

/** All students of another class, or of a grade, onto the list at once. */
export function TakeAll(props: { classId: number; onTake: (people: Found[]) => void; onClose: () => void }) {
  const { classId } = props;
  const board = useBoard();
  const [from, setFrom] = useState<"class" | "grade">("class");
  const [other, setOther] = useState<number | "">("");
  const [group, setGroup] = useState<number | "">("");
  const [grade, setGrade] = useState("");
  const groups = useQuery({
    queryKey: ["groups", other],
    enabled: other !== "",
    queryFn: () =>
      take(api.GET("/api/classes/{classId}/groups", { params: { path: { classId: Number(other) } } })),
  });
  const ready = from === "class" ? other !== "" : grade.trim() !== "";
  const body = {
    class: from === "class" && other !== "" ? other : null,
    group: from === "class" && group !== "" ? group : null,
    grade: from === "grade" ? grade : null,
  };
  const all = useQuery({
    queryKey: ["all-of", classId, body],
    enabled: ready,
    retry: false,
    queryFn: () =>
      take(api.POST("/api/classes/{classId}/roster/all-of", { params: { path: { classId } }, body })),
  });
  const found = ready ? (all.data ?? []) : [];
  const coming = found.filter((p) => p.inThisClass == null);
  return (
    <Ask
      open
      title="All of a class or a grade"
      act={`Put ${count(coming.length, "student", "students")} on the list`}
      disabled={coming.length === 0}
      error={all.error}
      onAct={() => {
        props.onTake(coming);
        props.onClose();
      }}
      onClose={props.onClose}
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 2, pt: 1 }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={from}
          onChange={(_, v: typeof from | null) => v && setFrom(v)}
          aria-label="All of"
        >
          <ToggleButton value="class">a class</ToggleButton>
          <ToggleButton value="grade">a grade</ToggleButton>
        </ToggleButtonGroup>
        {from === "class" ? (
          <>
            <PickOne
              label="Class"
              options={(board.data?.rows ?? []).filter((r) => r.id !== classId)}
              value={other === "" ? null : other}
              onChange={(k) => {
                setOther(k ?? "");
                setGroup("");
              }}
            />
            {(groups.data?.groups.length ?? 0) > 0 && (
              <TextField
                select
                label="Group"
                value={group}
                onChange={(e) => setGroup(Number(e.target.value) || "")}
                slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
              >
                <MenuItem value="">the whole class</MenuItem>
                {groups.data!.groups.map((g) => (
                  <MenuItem key={g.id} value={g.id}>
                    {g.name}
                  </MenuItem>
                ))}
              </TextField>
            )}
          </>
        ) : (
          <TextField label="Grade" value={grade} onChange={(e) => setGrade(e.target.value)} />
        )}
        {ready && all.data && (
          <Typography role="status">
            {count(found.length, "student", "students")}
            {found.length > coming.length && `, ${found.length - coming.length} on this roster already`}.
          </Typography>
        )}
      </Box>
    </Ask>
  );
}
