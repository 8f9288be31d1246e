import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TableCell from "@mui/material/TableCell";
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
import { PlainTable } from "../../parts/table/PlainTable";

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
      <Button
        variant="outlined"
        component={RouterLink}
        to={`/classes/${v.sections[0]?.class}/work/new?also=${v.sections
          .slice(1)
          .map((s) => s.class)
          .join(",")}`}
      >
        Give an assignment to all…
      </Button>
      <Button
        variant="outlined"
        component={RouterLink}
        to={`/work/notices?classes=${v.sections.map((s) => s.class).join(",")}`}
      >
        Tell all sections…
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
    <PlainTable
      label="Combined roster"
      rows={v.students}
      id={(s) => `${s.section}-${s.id}`}
      rowLook={(s, before) =>
        sectionEdge(v.sections[s.section]!.colour, before !== undefined && before.section !== s.section)
      }
      columns={[
        { head: "No.", align: "right", cell: (_, i) => i + 1 },
        {
          head: "Section",
          by: (s) => v.sections[s.section]!.letter,
          says: "worth",
          cell: (s) => <SectionMark {...v.sections[s.section]!} />,
        },
        { head: "Name", main: true, cell: (s) => <strong>{s.sortName}</strong> },
        { head: "Grade", cell: (s) => s.grade },
        { head: "Student number", cell: (s) => s.studentNumber },
        {
          head: "Own folder",
          cell: (s) => (
            <StateMark mark={s.hasFolder ? "done" : "notYet"}>{s.hasFolder ? "ready" : "none"}</StateMark>
          ),
        },
      ]}
    />
  );
}

const numberWords = {
  Mean: "mean of all sections",
  Median: "median",
  Deviation: "standard deviation",
  Count: "marked",
} as const;

type Cell = Schemas["CombinedCell"];

const pieceWords = (cell?: Cell): string =>
  cell === undefined
    ? ""
    : cell.draft && cell.heldBy === "Student"
      ? `${cell.level ?? cell.score} draft`
      : cell.state === "Working"
        ? "begun"
        : cell.heldBy === "Teacher"
          ? `held${cell.score != null ? `, ${cell.level ?? cell.score}` : ""}`
          : String(cell.level ?? cell.score ?? "back");

function Piece({ cell }: { cell?: Cell }) {
  const mark = cell?.draft
    ? "attention"
    : !cell || cell.state === "Working"
      ? "none"
      : cell.heldBy === "Teacher"
        ? "attention"
        : "done";
  return <StateMark mark={mark}>{pieceWords(cell)}</StateMark>;
}

const round = (n?: number | null) => (n == null ? "–" : n.toFixed(2));

/** What waits in all sections together, each to be marked in one sitting. */
function ToMark({ v }: { v: View }) {
  const waiting = v.assignments.filter((a) => a.held > 0);
  return (
    <Typography variant="body2">
      <Link component={RouterLink} to={`/enroll/combined/${v.id}/scores`}>
        Scores of all sections
      </Link>
      {waiting.length > 0 && ". To mark over all sections: "}
      {waiting.map((a, n) => (
        <span key={a.title}>
          {n > 0 && ", "}
          <Link
            component={RouterLink}
            to={`/enroll/combined/${v.id}/marking?title=${encodeURIComponent(a.title)}`}
          >
            {a.title}
          </Link>{" "}
          ({a.held} held)
        </span>
      ))}
    </Typography>
  );
}

function ReturnsTable({ v }: { v: View }) {
  if (v.assignments.length === 0)
    return <Typography>None of the sections has a published assignment.</Typography>;
  return (
    <Box sx={{ overflowX: "auto" }}>
      <ToMark v={v} />
      <PlainTable
        label="Returns of all sections"
        rows={v.students}
        id={(s) => `${s.section}-${s.id}`}
        rowLook={(s, before) =>
          sectionEdge(v.sections[s.section]!.colour, before !== undefined && before.section !== s.section)
        }
        columns={[
          {
            head: "Section",
            by: (s) => v.sections[s.section]!.letter,
            says: "worth",
            cell: (s) => <SectionMark {...v.sections[s.section]!} />,
          },
          { head: "Name", main: true, cell: (s) => <strong>{s.sortName}</strong> },
          ...v.assignments.map((a, n) => ({
            head: a.title,
            beneath: `${a.in} of ${v.sections.length} sections${a.differ ? ", out of different points" : ""}`,
            width: 110,
            cell: (s: View["students"][number]) => <Piece cell={s.cells.find((c) => c.column === n)} />,
            says: (s: View["students"][number]) => pieceWords(s.cells.find((c) => c.column === n)),
            by: (s: View["students"][number]) => {
              const cell = s.cells.find((c) => c.column === n);
              return cell?.score ?? pieceWords(cell);
            },
          })),
        ]}
        after={(["Mean", "Median", "Deviation", "Count"] as const).map((k) => (
          <TableRow key={k} role="row">
            <TableCell role="cell" />
            <TableCell role="rowheader" component="th" scope="row" className="soft">
              {numberWords[k]}
            </TableCell>
            {v.assignments.map((a) => (
              <TableCell key={a.title} role="cell" className="figure" data-head={a.title}>
                {k === "Count"
                  ? a.numbers.count
                  : round(
                      k === "Mean" ? a.numbers.mean : k === "Median" ? a.numbers.median : a.numbers.deviation,
                    )}
              </TableCell>
            ))}
          </TableRow>
        ))}
      />
    </Box>
  );
}
