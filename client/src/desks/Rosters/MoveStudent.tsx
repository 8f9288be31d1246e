import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { PickOne } from "../../parts/PickOne";

/** A student to another set of the course: what goes along, what stays where it is held, said before it is done. */
export function MoveStudent(props: {
  classId: number;
  student: Schemas["RosterRow"];
  onDone: (done: Schemas["MoveView"]) => void;
  onClose: () => void;
}) {
  const { classId, student } = props;
  const [to, setTo] = useState<number | "">("");
  const [includeOpen, setIncludeOpen] = useState(false);
  const path = { params: { path: { classId, personId: student.id } } };
  const sets = useQuery({
    queryKey: ["sets", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/roster/sets", { params: { path: { classId } } })),
  });
  const body = { to: Number(to), includeOpen };
  const said = useQuery({
    queryKey: ["move", classId, student.id, body],
    enabled: to !== "",
    retry: false,
    gcTime: 0,
    queryFn: () => take(api.POST("/api/classes/{classId}/roster/{personId}/move-preview", { ...path, body })),
  });
  const move = useAct(
    (_: void, headers) =>
      take(api.POST("/api/classes/{classId}/roster/{personId}/move", { ...path, body, headers })),
    props.onDone,
  );
  const m = to === "" ? undefined : said.data;
  return (
    <Ask
      open
      wide
      title={`Move ${student.sortName} to another set`}
      act={m ? `Move to ${m.to}` : "Move"}
      disabled={!m}
      busy={move.isPending}
      error={move.error ?? said.error ?? sets.error}
      onAct={() => move.mutate()}
      onClose={props.onClose}
    >
      {sets.data?.length === 0 ? (
        <Typography>
          There is no other class of this course of which you are staff. The coordinator can move students
          between any two.
        </Typography>
      ) : (
        <PickOne
          fullWidth
          label="To"
          options={(sets.data ?? []).map((s) => ({
            id: s.id,
            name: `${s.name}, ${count(s.students, "student", "students")}`,
          }))}
          value={to === "" ? null : to}
          onChange={(s) => setTo(s ?? "")}
        />
      )}
      {m && (
        <Box role="status" aria-label="What the move does" sx={{ mt: 1.5 }}>
          <Typography>
            <StateMark mark={m.carried.some((x) => x.to == null) ? "attention" : "done"}>
              {m.carried.length === 0
                ? "Nothing stands in their own folders here."
                : `${count(m.carried.length, "thing goes", "things go")} along into their own folders there.`}
            </StateMark>
          </Typography>
          <Box component="ul" sx={{ listStyle: "none", m: 0, pl: 2.25, maxHeight: 180, overflowY: "auto" }}>
            {m.carried.map((x, i) => (
              <li key={i}>
                <strong>{x.name}</strong>{" "}
                {x.to == null
                  ? `stays in ${x.from}: there is no own folder over there`
                  : x.to === x.from
                    ? `into ${x.to}`
                    : `from ${x.from} into ${x.to}`}
              </li>
            ))}
          </Box>
          {m.unfinished > 0 && (
            <Typography>
              {count(m.unfinished, "file", "files")} of work not handed in{" "}
              {m.unfinished === 1 ? "goes" : "go"} along too.
            </Typography>
          )}
          {m.held > 0 && (
            <Typography>
              <StateMark mark="attention">
                {count(m.held, "piece", "pieces")} of work held by the teacher
              </StateMark>{" "}
              {m.held === 1 ? "stays" : "stay"} here until returned; then both the student and the new teacher
              have {m.held === 1 ? "it" : "them"}.
            </Typography>
          )}
          {m.returned > 0 && (
            <Typography>
              {count(m.returned, "returned piece", "returned pieces")}: the student goes on seeing{" "}
              {m.returned === 1 ? "it" : "them"}, and both teachers can read{" "}
              {m.returned === 1 ? "it" : "them"}.
            </Typography>
          )}
          {m.groups.length > 0 && <Typography>They leave the groups {m.groups.join(", ")}.</Typography>}
          {m.viewsOnly && <Typography>They view only there, as they do here.</Typography>}
          {m.openThere > 0 && (
            <FormControlLabel
              control={<Checkbox checked={includeOpen} onChange={(e) => setIncludeOpen(e.target.checked)} />}
              label={`Include what is already open there: ${count(m.openThere, "assignment", "assignments")}`}
            />
          )}
        </Box>
      )}
    </Ask>
  );
}
