import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useHead } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayDate } from "../../parts/words";
import { PasteList } from "./PasteList";
import { PersonPicker } from "./PersonPicker";
import { TakeAll } from "./TakeAll";

const keyList: [string, string][] = [
  ["letters", "find people by last name"],
  ["↑ ↓ Enter", "choose one; go on typing for the next"],
  ["Backspace", "take the last one off the list"],
  ["Ctrl Enter", "enroll the list"],
];

/** The roster desk: filled from the directory without the mouse. */
export function RosterDesk() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const roster = useQuery({
    queryKey: ["roster", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/roster", { params: { path: { classId: id } } })),
  });
  const department = head.data?.kind === "Department";
  const [roleAsked, setRole] = useState<"Student" | "CoTeacher">("Student");
  const role = department ? "CoTeacher" : roleAsked;
  const [picked, setPicked] = useState<Schemas["FoundPerson"][]>([]);
  const [asking, setAsking] = useState<"paste" | "all" | null>(null);
  const add = (people: Schemas["FoundPerson"][]) =>
    setPicked((p) => [...p, ...people.filter((x) => p.every((y) => y.id !== x.id))]);
  const [report, setReport] = useState<Schemas["EnrollReport"] | null>(null);
  const [leaving, setLeaving] = useState<Schemas["RosterRow"] | null>(null);
  useKeyList(keyList);
  const enroll = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/roster", {
          params: { path: { classId: id } },
          body: { people: picked.map((p) => p.id), role },
          headers,
        }),
      ),
    (out) => {
      setReport(out);
      setPicked([]);
    },
  );
  const remove = useAct(
    (personId: number) =>
      take(
        api.DELETE("/api/classes/{classId}/roster/{personId}", {
          params: { path: { classId: id, personId } },
        }),
      ),
    () => setLeaving(null),
  );
  const rows = roster.data ?? [];
  const students = rows.filter((r) => r.role === "Student" && !r.left);
  const shut = head.data?.state === "Archived";
  const [one, many] =
    role === "Student"
      ? ["student", "students"]
      : department
        ? ["member", "members"]
        : ["co-teacher", "co-teachers"];
  return (
    <Desk
      title="Enroll"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        <>
          <Typography variant="h2">{count(students.length, "student", "students")}</Typography>
          <Typography>
            {students.every((s) => s.hasFolder) || students.length === 0
              ? "Each student gets their own folder the moment they are enrolled, where the folder plan has one."
              : `${count(students.filter((s) => !s.hasFolder).length, "student has", "students have")} no own folder: the class's plan makes none, or it was binned.`}
          </Typography>
          {!department && (
            <Box sx={{ ml: -1.75 }}>
              <Button component={RouterLink} to={`/classes/${id}/groups`}>
                Groups
              </Button>
              <Button component={RouterLink} to={`/classes/${id}/slips`}>
                Sign-in slips
              </Button>
            </Box>
          )}
          {head.data?.state === "InPreparation" && (
            <>
              <Typography sx={{ color: "text.secondary" }}>
                Nobody is told yet: students see the class once it is open.
              </Typography>
              <Button variant="outlined" component={RouterLink} to={`/classes/${id}/set-up`}>
                Go on to set up and open
              </Button>
            </>
          )}
        </>
      }
    >
      <Problem error={head.error ?? roster.error} />
      {!shut && (
        <Box sx={{ borderBottom: 1, borderColor: "divider", pb: 2, mb: 2 }}>
          {!department && (
            <ToggleButtonGroup
              exclusive
              size="small"
              value={role}
              onChange={(_, v: typeof role | null) => {
                if (v) {
                  setRole(v);
                  setPicked([]);
                }
              }}
              aria-label="Enroll as"
              sx={{ mb: 1.5 }}
            >
              <ToggleButton value="Student">Students</ToggleButton>
              <ToggleButton value="CoTeacher">Co-teachers</ToggleButton>
            </ToggleButtonGroup>
          )}
          <PersonPicker
            key={role}
            classId={id}
            students={role === "Student"}
            picked={picked}
            onChange={setPicked}
            onDone={() => picked.length > 0 && enroll.mutate()}
          />
          <Problem error={enroll.error} />
          <Box sx={{ display: "flex", gap: 1.5, mt: 1.5, flexWrap: "wrap" }}>
            <Button
              variant="contained"
              disabled={picked.length === 0 || enroll.isPending}
              onClick={() => enroll.mutate()}
            >
              {picked.length === 0 ? `Enroll ${many}` : `Enroll ${count(picked.length, one!, many!)}`}
            </Button>
            <Button variant="outlined" onClick={() => setAsking("paste")}>
              Paste a list…
            </Button>
            {role === "Student" && (
              <Button variant="outlined" onClick={() => setAsking("all")}>
                All of a class or a grade…
              </Button>
            )}
          </Box>
          {asking === "paste" && (
            <PasteList
              classId={id}
              students={role === "Student"}
              onTake={add}
              onClose={() => setAsking(null)}
            />
          )}
          {asking === "all" && <TakeAll classId={id} onTake={add} onClose={() => setAsking(null)} />}
          {report && (
            <Box role="status" sx={{ mt: 1 }}>
              <StateMark mark="done">
                {count(report.joined, "person", "people")} enrolled,{" "}
                {count(report.folders, "folder", "folders")} unfolded.
              </StateMark>
              {report.decisions
                .filter((d) => d.why)
                .map((d) => (
                  <Typography key={d.person} variant="body2">
                    <StateMark mark="attention">{d.why}</StateMark>
                  </Typography>
                ))}
            </Box>
          )}
        </Box>
      )}
      {roster.data && students.length === 0 && !department && (
        <Empty title="Nobody is on the roster yet.">Type the first letters of a last name above.</Empty>
      )}
      {rows.length > 0 && (
        <Table aria-label="Roster" stickyHeader sx={{ "& thead th": { top: 87 } }}>
          <TableHead>
            <TableRow>
              <TableCell>Name</TableCell>
              <TableCell>Grade</TableCell>
              <TableCell>Student number</TableCell>
              <TableCell>Role</TableCell>
              <TableCell>Own folder</TableCell>
              <TableCell>Since</TableCell>
              <TableCell />
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map((r) => (
              <TableRow key={r.id} hover sx={{ color: r.left ? "text.secondary" : undefined }}>
                <TableCell>
                  <strong>{r.sortName}</strong>
                </TableCell>
                <TableCell>{r.grade}</TableCell>
                <TableCell>{r.studentNumber}</TableCell>
                <TableCell>
                  {{ Lead: "lead teacher", CoTeacher: "co-teacher", Student: "student" }[r.role]}
                </TableCell>
                <TableCell>
                  {r.role !== "Student" ? (
                    ""
                  ) : r.hasFolder ? (
                    <StateMark mark="done">ready</StateMark>
                  ) : (
                    <StateMark mark="notYet">none</StateMark>
                  )}
                </TableCell>
                <TableCell>{r.left ? `left ${sayDate(r.left)}` : sayDate(r.joined)}</TableCell>
                <TableCell align="right">
                  {!r.left && !shut && r.role !== "Lead" && (
                    <Button
                      color="inherit"
                      onClick={() => setLeaving(r)}
                      aria-label={`Take ${r.sortName} off the roster`}
                    >
                      Take off
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      <Ask
        open={leaving !== null}
        title={`Take ${leaving?.sortName} off the roster?`}
        act="Take off the roster"
        busy={remove.isPending}
        error={remove.error}
        onAct={() => leaving && remove.mutate(leaving.id)}
        onClose={() => {
          remove.reset();
          setLeaving(null);
        }}
      >
        <Typography>
          They no longer see the class, except their own returned work. Their folder and work stay here.{" "}
          {leaving &&
            leaving.held > 0 &&
            `You still hold ${count(leaving.held, "piece", "pieces")} of their work: return it first.`}
        </Typography>
      </Ask>
    </Desk>
  );
}
