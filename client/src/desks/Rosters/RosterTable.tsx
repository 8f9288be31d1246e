import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import type { Schemas } from "../../api/client";
import { StateMark } from "../../parts/StateMark";
import { TickTable } from "../../parts/table/TickTable";
import { sayDate } from "../../parts/words";

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
  return (
    <TickTable
      label="Roster"
      rows={rows}
      id={(r) => r.id}
      soft={(r) => r.left != null}
      ticks={
        shut
          ? undefined
          : {
              ticked,
              set: props.onTick,
              may: (r) => !r.left && r.role !== "Lead",
              label: (r) => `Tick ${r.sortName}`,
              all: "Tick everybody",
            }
      }
      columns={[
        {
          head: "Name",
          cell: (r) => (
            <>
              <strong>{r.sortName}</strong>
              {r.movedFrom && (
                <>
                  {" "}
                  <Link component="button" variant="body2" onClick={() => props.onEarlier(r)}>
                    moved from {r.movedFrom}
                  </Link>
                </>
              )}
            </>
          ),
        },
        { head: "Grade", cell: (r) => r.grade },
        { head: "Student number", cell: (r) => r.studentNumber },
        {
          head: "Role",
          cell: (r) => (
            <>
              {roles[r.role]}
              {r.posts === false && !r.left && ", views only"}
            </>
          ),
        },
        {
          head: "Own folder",
          cell: (r) =>
            r.role !== "Student" ? (
              ""
            ) : r.hasFolder ? (
              <StateMark mark="done">ready</StateMark>
            ) : (
              <StateMark mark="notYet">none</StateMark>
            ),
        },
        {
          head: "Since",
          by: (r) => r.left ?? r.joined,
          cell: (r) => (
            <>
              {r.left ? `left ${sayDate(r.left)}` : sayDate(r.joined)}
              {!r.left && came[r.by ?? "Hand"] && `, ${came[r.by ?? "Hand"]}`}
            </>
          ),
        },
        {
          head: "",
          cell: (r) =>
            !r.left &&
            !shut &&
            r.role === "Student" && (
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
            ),
          align: "right",
          look: "line",
        },
      ]}
    />
  );
}
