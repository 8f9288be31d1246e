import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import type { Schemas } from "../../api/client";
import { StateMark } from "../../parts/StateMark";
import { sayDate } from "../../parts/words";
import { TickAll, TickRow, useTicks } from "../../parts/ticks";

type Row = Schemas["RosterRow"];

const roles: Record<Row["role"], string> = {
  Lead: "lead teacher",
  CoTeacher: "co-teacher",
  Student: "student",
};

const came: Record<Schemas["EnrolledBy"], string> = {
  Hand: "",
  Feed: "by the school’s records",
  Code: "by join code",
  Invitation: "by invitation",
};

/** Who is on the roster, and who was; ticked to act on several. */
export function RosterTable(props: {
  rows: Row[];
  shut: boolean;
  ticked: ReadonlySet<number>;
  onTick: (ids: ReadonlySet<number>) => void;
  onMove: (row: Row) => void;
  onEarlier: (row: Row) => void;
  onOpenToo: (row: Row) => void;
}) {
  const { rows, ticked, shut } = props;
  const may = rows.filter((r) => !r.left && r.role !== "Lead");
  const ticks = useTicks(
    may.map((r) => r.id),
    ticked,
    props.onTick,
  );
  return (
    <Table aria-label="Roster" stickyHeader>
      <TableHead>
        <TableRow>
          {!shut && (
            <TableCell padding="checkbox">
              <TickAll ticks={ticks} label="Tick everybody" />
            </TableCell>
          )}
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
            {!shut && (
              <TableCell padding="checkbox">
                {!r.left && r.role !== "Lead" && (
                  <TickRow ticks={ticks} of={r.id} label={`Tick ${r.sortName}`} />
                )}
              </TableCell>
            )}
            <TableCell>
              <strong>{r.sortName}</strong>
              {r.movedFrom && (
                <>
                  {" "}
                  <Link component="button" variant="body2" onClick={() => props.onEarlier(r)}>
                    moved from {r.movedFrom}
                  </Link>
                </>
              )}
            </TableCell>
            <TableCell>{r.grade}</TableCell>
            <TableCell>{r.studentNumber}</TableCell>
            <TableCell>
              {roles[r.role]}
              {r.posts === false && !r.left && ", views only"}
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
            <TableCell>
              {r.left ? `left ${sayDate(r.left)}` : sayDate(r.joined)}
              {!r.left && came[r.by ?? "Hand"] && `, ${came[r.by ?? "Hand"]}`}
            </TableCell>
            <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
              {!r.left && !shut && r.role === "Student" && (
                <>
                  {r.fromThenOn && (
                    <Button
                      color="inherit"
                      onClick={() => props.onOpenToo(r)}
                      aria-label={`Give ${r.sortName} what was open before`}
                    >
                      Give earlier assignments too
                    </Button>
                  )}
                  <Button
                    color="inherit"
                    onClick={() => props.onMove(r)}
                    aria-label={`Move ${r.sortName} to another set`}
                  >
                    Move…
                  </Button>
                </>
              )}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
