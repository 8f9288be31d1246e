import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useHead } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { EnrollReport } from "../../parts/EnrollReport";
import { useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { useTyped } from "../../parts/typed";
import { EarlierWork } from "./EarlierWork";
import { LeadPart } from "./LeadPart";
import { MoveStudent } from "./MoveStudent";
import { PasteList } from "./PasteList";
import { PersonPicker } from "./PersonPicker";
import { RosterTable } from "./RosterTable";
import { TakeAll } from "./TakeAll";
import { TakeOutside } from "./TakeOutside";
import { TakeOff } from "./TakeOff";
import { ViewOnly } from "./ViewOnly";

const keyList: [string, string][] = [
  ["letters", "find people by last name"],
  ["↑ ↓ Enter", "choose one; go on typing for the next"],
  ["Backspace", "in an empty row: take the last one off the list"],
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
  useTyped(picked.length > 0);
  const [asking, setAsking] = useState<"paste" | "all" | "off" | "outside" | "posting" | null>(null);
  const add = (people: Schemas["FoundPerson"][]) =>
    setPicked((p) => [...p, ...people.filter((x) => p.every((y) => y.id !== x.id))]);
  const [report, setReport] = useState<Schemas["EnrollReport"] | null>(null);
  const [includeOpen, setIncludeOpen] = useState(false);
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [moving, setMoving] = useState<Schemas["RosterRow"] | null>(null);
  const [moved, setMoved] = useState<Schemas["MoveView"]>();
  const [earlier, setEarlier] = useState<Schemas["RosterRow"] | null>(null);
  useKeyList(keyList);
  const enroll = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/roster", {
          params: { path: { classId: id } },
          body: { people: picked.map((p) => p.id), role, includeOpen },
          headers,
        }),
      ),
    (out) => {
      setReport(out);
      setPicked([]);
    },
  );
  const openToo = useAct((personId: number, headers) =>
    take(
      api.PUT("/api/classes/{classId}/roster/{personId}/open-assignments", {
        params: { path: { classId: id, personId } },
        body: { include: true },
        headers,
      }),
    ),
  );
  const rows = roster.data ?? [];
  const students = rows.filter((r) => r.role === "Student" && !r.left);
  const tickedStudents = students.filter((s) => ticked.has(s.id));
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
              <Button component={RouterLink} to={`/classes/${id}/join-code`}>
                Join code
              </Button>
              <Button component={RouterLink} to={`/classes/${id}/invitations`}>
                Invitations
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
          {role === "Student" && head.data?.state === "Open" && (
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked={includeOpen}
                  onChange={(e) => setIncludeOpen(e.target.checked)}
                />
              }
              label="Include what is already open: assignments that were set before they came"
            />
          )}
          <Box sx={{ display: "flex", gap: 1.5, mt: 1.5, flexWrap: "wrap" }}>
            <Button
              variant="contained"
              disabled={picked.length === 0 || enroll.isPending}
              onClick={() => enroll.mutate()}
            >
              {picked.length === 0 ? `Enroll ${many}` : `Enroll ${count(picked.length, one, many)}`}
            </Button>
            <Button variant="outlined" onClick={() => setAsking("paste")}>
              Paste a list…
            </Button>
            {role === "Student" && (
              <Button variant="outlined" onClick={() => setAsking("all")}>
                All of a class or a grade…
              </Button>
            )}
            <Button variant="outlined" onClick={() => setAsking("outside")}>
              From another program…
            </Button>
          </Box>
          {asking === "outside" && (
            <TakeOutside
              classId={id}
              students={role === "Student"}
              onTake={add}
              onClose={() => setAsking(null)}
            />
          )}
          {asking === "paste" && (
            <PasteList
              classId={id}
              students={role === "Student"}
              onTake={add}
              onClose={() => setAsking(null)}
            />
          )}
          {asking === "all" && <TakeAll classId={id} onTake={add} onClose={() => setAsking(null)} />}
          {report && <EnrollReport report={report} />}
        </Box>
      )}
      {roster.data && students.length === 0 && !department && (
        <Empty title="Nobody is on the roster yet.">Type the first letters of a last name above.</Empty>
      )}
      {rows.length > 0 && (
        <>
          <LeadPart classId={id} shut={shut} />
          {!shut && (
            <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", minHeight: 34 }}>
              <Button variant="outlined" disabled={ticked.size === 0} onClick={() => setAsking("off")}>
                Take {ticked.size === 0 ? "" : `${count(ticked.size, "person", "people")} `}off the roster…
              </Button>
              {!department && (
                <Button
                  variant="outlined"
                  disabled={tickedStudents.length === 0}
                  onClick={() => setAsking("posting")}
                >
                  View only or post…
                </Button>
              )}
              <Button component="a" href={`/api/classes/${id}/roster/table`} download color="inherit">
                Roster as a table
              </Button>
              {moved && (
                <Box role="status">
                  <StateMark mark="done">
                    {moved.student} moved to {moved.to}, {count(moved.carried.length, "thing", "things")}{" "}
                    carried along.
                  </StateMark>
                </Box>
              )}
            </Box>
          )}
          <RosterTable
            rows={rows}
            shut={shut}
            ticked={ticked}
            onTick={setTicked}
            onMove={setMoving}
            onEarlier={setEarlier}
            onOpenToo={(r) => openToo.mutate(r.id)}
          />
        </>
      )}
      <Problem error={openToo.error} />
      {asking === "posting" && (
        <ViewOnly
          classId={id}
          students={tickedStudents}
          onDone={() => {
            setTicked(new Set());
            setAsking(null);
          }}
          onClose={() => setAsking(null)}
        />
      )}
      {asking === "off" && (
        <TakeOff
          classId={id}
          people={[...ticked]}
          onDone={() => {
            setTicked(new Set());
            setAsking(null);
          }}
          onClose={() => setAsking(null)}
        />
      )}
      {moving && (
        <MoveStudent
          classId={id}
          student={moving}
          onDone={(done) => {
            setMoved(done);
            setMoving(null);
          }}
          onClose={() => setMoving(null)}
        />
      )}
      {earlier && <EarlierWork classId={id} student={earlier} onClose={() => setEarlier(null)} />}
    </Desk>
  );
}
