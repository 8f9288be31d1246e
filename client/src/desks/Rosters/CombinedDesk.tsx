import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Desk } from "../../parts/Desk";
import { EnrollPlaces } from "../../parts/EnrollPlaces";
import { Problem } from "../../parts/Problem";
import { sectionEdge, SectionMark } from "../../parts/sections";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { useGoOn } from "../../parts/typed";
import { Tick } from "../../parts/Tick";
import { CombineForm } from "./CombinedList";

type View = Schemas["CombinedView"];

/** Several classes as one list: roster, returns and a list to print. */
export function CombinedDesk({ me }: { me: Schemas["Me"] }) {
  const id = Number(useParams().id);
  const seen = useQuery({
    queryKey: ["combined", id],
    queryFn: () => take(api.GET("/api/combined/{combinedId}", { params: { path: { combinedId: id } } })),
  });
  const [address, setAddress] = useSearchParams();
  const tab = address.get("show") ?? "roster";
  const [changing, setChanging] = useState(false);
  const v = seen.data;
  return (
    <Desk
      title={v?.name ?? "Combined roster"}
      wide
      slip={v && <Slip v={v} onChange={() => setChanging(true)} />}
    >
      <EnrollPlaces me={me} />
      <Problem error={seen.error} />
      <ToggleButtonGroup
        exclusive
        size="small"
        value={tab}
        onChange={(_, x: string | null) => x && setAddress({ show: x })}
        aria-label="Show"
        sx={{ mb: 1, displayPrint: "none" }}
      >
        <ToggleButton value="roster">Roster</ToggleButton>
        <ToggleButton value="returns">Returns</ToggleButton>
      </ToggleButtonGroup>
      {v && (tab === "returns" ? <ReturnsTable v={v} /> : <RosterList v={v} />)}
      {changing && v && <CombineForm view={v} onClose={() => setChanging(false)} />}
    </Desk>
  );
}

function Slip({ v, onChange }: { v: View; onChange: () => void }) {
  const [returning, setReturning] = useState(false);
  const [removing, setRemoving] = useState(false);
  const go = useGoOn();
  const path = { params: { path: { combinedId: v.id } } };
  const remove = useAct(
    (_: void, headers) => take(api.DELETE("/api/combined/{combinedId}", { ...path, headers })),
    () => go("/enroll/combined"),
  );
  const held = v.sections.reduce((n, s) => n + s.held, 0);
  return (
    <>
      <Typography variant="h2">
        {count(v.students.length, "student", "students")} in {v.sections.length} sections
      </Typography>
      {v.sections.map((s) => (
        <Box key={s.class} sx={{ display: "flex", gap: 1, alignItems: "flex-start" }}>
          <SectionMark letter={s.letter} colour={s.colour} />
          <Box sx={{ minWidth: 0 }}>
            <Link component={RouterLink} to={`/classes/${s.class}/enroll`} color="text.primary">
              {s.name}
            </Link>
            <Typography variant="body2" sx={{ color: "text.secondary" }}>
              {count(s.students, "student", "students")}
              {s.held > 0 && `, ${s.held} held`}
            </Typography>
          </Box>
        </Box>
      ))}
      <Button variant="contained" disabled={held === 0} onClick={() => setReturning(true)}>
        {held === 0 ? "Nothing is held" : `Return ${count(held, "piece", "pieces")} of work…`}
      </Button>
      <Button variant="outlined" onClick={() => window.print()}>
        Print the list
      </Button>
      <Button color="inherit" onClick={onChange}>
        Change sections…
      </Button>
      <Button color="inherit" onClick={() => setRemoving(true)}>
        Take it away…
      </Button>
      {returning && <ReturnAll v={v} onClose={() => setReturning(false)} />}
      <Ask
        open={removing}
        title={`Take “${v.name}” away?`}
        act="Take it away"
        busy={remove.isPending}
        error={remove.error}
        onAct={() => remove.mutate()}
        onClose={() => setRemoving(false)}
      >
        <Typography>Its classes, students and work stay as they are; only the list goes.</Typography>
      </Ask>
    </>
  );
}

function ReturnAll({ v, onClose }: { v: View; onClose: () => void }) {
  const [unmarkedToo, setUnmarkedToo] = useState(false);
  const [comment, setComment] = useState("");
  const path = { params: { path: { combinedId: v.id } } };
  const said = useQuery({
    queryKey: ["combined-return", v.id, unmarkedToo],
    queryFn: () =>
      take(
        api.GET("/api/combined/{combinedId}/return", {
          params: { ...path.params, query: { unmarkedToo } },
        }),
      ),
  });
  const act = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/combined/{combinedId}/return", { ...path, body: { unmarkedToo, comment }, headers }),
      ),
    onClose,
  );
  const p = said.data;
  return (
    <Ask
      open
      title={`Return the work of ${v.sections.length} sections`}
      act={p ? `Return ${count(p.pieces, "piece", "pieces")} of work` : "Return"}
      disabled={!p || p.pieces === 0}
      busy={act.isPending}
      error={said.error ?? act.error}
      onAct={() => act.mutate()}
      onClose={onClose}
    >
      {p && (
        <Typography role="status">
          {count(p.pieces, "piece", "pieces")} to {count(p.students, "student", "students")};{" "}
          {count(p.draftMarks, "draft mark becomes", "draft marks become")} returned.
          {p.unmarked > 0 && ` ${p.unmarked} without a mark${unmarkedToo ? " too" : " stay held"}.`}
        </Typography>
      )}
      <Tick label="Return work without a mark too" value={unmarkedToo} onChange={setUnmarkedToo} />
      <TextField
        fullWidth
        label="A private comment to each, if you like"
        value={comment}
        onChange={(e) => setComment(e.target.value)}
        sx={{ mt: 1 }}
      />
    </Ask>
  );
}

function RosterList({ v }: { v: View }) {
  return (
    <Table aria-label="Combined roster">
      <TableHead>
        <TableRow>
          <TableCell align="right">No.</TableCell>
          <TableCell>Section</TableCell>
          <TableCell>Name</TableCell>
          <TableCell>Grade</TableCell>
          <TableCell>Student number</TableCell>
          <TableCell>Own folder</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {v.students.map((s, i) => {
          const section = v.sections[s.section]!;
          return (
            <TableRow
              key={`${s.section}-${s.id}`}
              hover
              sx={sectionEdge(section.colour, i > 0 && v.students[i - 1]!.section !== s.section)}
            >
              <TableCell align="right">{i + 1}</TableCell>
              <TableCell>
                <SectionMark letter={section.letter} colour={section.colour} />
              </TableCell>
              <TableCell>
                <strong>{s.sortName}</strong>
              </TableCell>
              <TableCell>{s.grade}</TableCell>
              <TableCell>{s.studentNumber}</TableCell>
              <TableCell>
                <StateMark mark={s.hasFolder ? "done" : "notYet"}>{s.hasFolder ? "ready" : "none"}</StateMark>
              </TableCell>
            </TableRow>
          );
        })}
      </TableBody>
    </Table>
  );
}

const round = (n?: number | null) => (n == null ? "–" : n.toFixed(2));

function ReturnsTable({ v }: { v: View }) {
  if (v.assignments.length === 0)
    return <Typography>None of the sections has a published assignment.</Typography>;
  return (
    <Box sx={{ overflowX: "auto" }}>
      <Table aria-label="Returns of all sections">
        <TableHead>
          <TableRow>
            <TableCell>Section</TableCell>
            <TableCell>Name</TableCell>
            {v.assignments.map((a) => (
              <TableCell key={a.title} sx={{ minWidth: 110 }}>
                {a.title}
                <Typography variant="caption" component="div">
                  {a.in} of {v.sections.length} sections
                </Typography>
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {v.students.map((s, i) => {
            const section = v.sections[s.section]!;
            return (
              <TableRow
                key={`${s.section}-${s.id}`}
                hover
                sx={sectionEdge(section.colour, i > 0 && v.students[i - 1]!.section !== s.section)}
              >
                <TableCell>
                  <SectionMark letter={section.letter} colour={section.colour} />
                </TableCell>
                <TableCell>
                  <strong>{s.sortName}</strong>
                </TableCell>
                {v.assignments.map((a, n) => {
                  const cell = s.cells.find((c) => c.column === n);
                  return (
                    <TableCell key={a.title}>
                      {!cell || cell.state === "Working" ? (
                        <StateMark mark="none">{cell ? "begun" : ""}</StateMark>
                      ) : cell.heldBy === "Teacher" ? (
                        <StateMark mark="attention">held{cell.score != null && `, ${cell.score}`}</StateMark>
                      ) : (
                        <StateMark mark="done">{cell.score ?? "back"}</StateMark>
                      )}
                    </TableCell>
                  );
                })}
              </TableRow>
            );
          })}
          {(["Mean", "Median", "Deviation", "Count"] as const).map((k) => (
            <TableRow key={k}>
              <TableCell />
              <TableCell sx={{ color: "text.secondary" }}>
                {
                  {
                    Mean: "mean of all sections",
                    Median: "median",
                    Deviation: "standard deviation",
                    Count: "marked",
                  }[k]
                }
              </TableCell>
              {v.assignments.map((a) => (
                <TableCell key={a.title} className="figure">
                  {k === "Count"
                    ? a.numbers.count
                    : round(
                        k === "Mean"
                          ? a.numbers.mean
                          : k === "Median"
                            ? a.numbers.median
                            : a.numbers.deviation,
                      )}
                </TableCell>
              ))}
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
