import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import type { KeyboardEvent } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { sayLate } from "../../parts/due";
import { StateMark, type Mark } from "../../parts/StateMark";

const marks: Record<Schemas["WorkState"], Mark> = {
  Working: "notYet",
  HandedIn: "underway",
  Returned: "done",
};
const says: Record<Schemas["WorkState"], string> = {
  Working: "begun, with the student",
  HandedIn: "handed in, held by the teacher",
  Returned: "returned",
};

/** Students against assignments, worked with the arrow keys. */
export function ReturnsGrid(props: {
  classId: number;
  view: Schemas["ReturnsView"];
  piece?: number;
  onPiece: (id: number) => void;
  onAssignment: (id: number) => void;
}) {
  const { view } = props;
  const onKeys = (e: KeyboardEvent<HTMLElement>) => {
    const cell = (e.target as HTMLElement).closest<HTMLElement>("td");
    const row = cell?.parentElement as HTMLTableRowElement | null;
    if (!cell || !row) return;
    const column = [...row.cells].indexOf(cell as HTMLTableCellElement);
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[e.key];
    if (!step) return;
    e.preventDefault();
    const rows = [...(row.parentElement as HTMLTableSectionElement).rows];
    let r = rows.indexOf(row) + step[0]!;
    let c = column + step[1]!;
    // Cells without work are passed over.
    while (rows[r]?.cells[c]) {
      const button = rows[r]!.cells[c]!.querySelector<HTMLElement>("button");
      if (button) return button.focus();
      r += step[0]!;
      c += step[1]!;
    }
  };
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Students against assignments">
      <Table aria-label="Work of the class">
        <TableHead>
          <TableRow>
            <TableCell>Student</TableCell>
            {view.assignments.map((a) => (
              <TableCell key={a.id} sx={{ verticalAlign: "bottom" }}>
                <Link
                  component="button"
                  onClick={() => props.onAssignment(a.id)}
                  sx={{ fontSize: "inherit", fontWeight: "inherit", textAlign: "left" }}
                >
                  {a.title}
                </Link>
                <Box sx={{ fontWeight: 400 }}>
                  {a.published
                    ? `${a.handedIn} of ${a.given} in${a.held > 0 ? `, ${a.held} held` : ""}`
                    : "draft"}
                </Box>
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody onKeyDown={onKeys}>
          {view.students.map((s) => (
            <TableRow key={s.student} hover>
              <TableCell component="th" scope="row" sx={{ whiteSpace: "nowrap", fontWeight: 600 }}>
                {s.cells.length > 0 ? (
                  <Link
                    component={RouterLink}
                    to={`/classes/${props.classId}/marking?student=${s.student}`}
                    color="inherit"
                    underline="hover"
                  >
                    {s.sortName}
                  </Link>
                ) : (
                  s.sortName
                )}
                {s.left && " (left)"}
              </TableCell>
              {view.assignments.map((a) => {
                const cell = s.cells.find((c) => c.assignment === a.id);
                if (!cell)
                  return (
                    <TableCell key={a.id} sx={{ color: "text.secondary" }}>
                      –
                    </TableCell>
                  );
                return (
                  <TableCell
                    key={a.id}
                    sx={{ bgcolor: cell.id === props.piece ? "action.selected" : undefined }}
                  >
                    <Link
                      component="button"
                      underline="hover"
                      color="inherit"
                      onClick={() => props.onPiece(cell.id)}
                      aria-label={`${s.sortName}, ${a.title}: ${says[cell.state]}${cell.lateMinutes != null ? `, ${sayLate(cell.lateMinutes)}` : ""}${cell.score != null ? `, ${cell.draft ? "draft mark " : ""}${cell.level ?? cell.score}` : ""}`}
                    >
                      <StateMark mark={marks[cell.state]} strong={cell.heldBy === "Teacher"}>
                        {cell.score != null
                          ? `${cell.level ?? cell.score}${cell.draft ? " draft" : ""}`
                          : cell.state === "HandedIn"
                            ? "to mark"
                            : cell.state === "Returned"
                              ? "back"
                              : "begun"}
                        {cell.lateMinutes != null && ", late"}
                      </StateMark>
                    </Link>
                  </TableCell>
                );
              })}
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
