import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { StateMark, type Mark } from "../../parts/StateMark";
import { TickTable } from "../../parts/table/TickTable";
import { count } from "../../parts/words";
import { levels } from "./closingWords";

type Row = Schemas["ClosingRow"];

/** Classes against the steps of closing; each cell leads to the desk that mends it. */
export function MatrixTable(props: {
  rows: Row[];
  ticked: ReadonlySet<number>;
  onTick: (ids: ReadonlySet<number>) => void;
}) {
  return (
    <TickTable
      label="Classes against the steps of closing"
      rows={props.rows}
      id={(r) => r.id}
      ticks={{
        ticked: props.ticked,
        set: props.onTick,
        label: (r) => `Tick ${r.name}`,
        all: "Tick all classes shown",
      }}
      columns={[
        {
          head: "Class",
          width: "30%",
          by: (r) => r.name,
          cell: (r) => (
            <>
              <Link component={RouterLink} to={`/classes/${r.id}/close`} title={r.name} className="one-line">
                {r.name}
              </Link>
              <Typography variant="caption" component="div" color="textSecondary">
                {r.lead}
              </Typography>
            </>
          ),
        },
        { head: "Stands", cell: (r) => <Standing r={r} />, says: standing },
        { head: "Work", by: (r) => r.held, says: held, cell: (r) => <Held r={r} /> },
        {
          head: "Unfiled",
          says: "worth",
          by: (r) => r.unfiled,
          cell: (r) =>
            r.unfiled === 0 ? "–" : <To r={r} desk="tidy" mark="attention" text={`${r.unfiled}`} />,
        },
        {
          head: "Never sent",
          says: unsent,
          by: (r) => r.drafts + r.unsent,
          cell: (r) =>
            r.drafts + r.unsent === 0 ? "–" : <To r={r} desk="work" mark="attention" text={unsent(r)} />,
        },
        {
          head: "Invited, on hold",
          by: (r) => r.invitations + r.onHold,
          says: waiting,
          cell: (r) =>
            r.invitations + r.onHold === 0 ? (
              "–"
            ) : (
              <To
                r={r}
                desk={r.invitations > 0 ? "invitations" : "enroll"}
                mark="attention"
                text={waiting(r)}
              />
            ),
        },
        {
          head: "Seen outside",
          says: outside,
          cell: (r) => (
            <To r={r} desk="shelf" mark={outside(r) === nothing ? "none" : "done"} text={outside(r)} />
          ),
        },
        {
          head: "Next year",
          says: (r) => (r.nextYearMade ? "made" : "not yet"),
          cell: (r) => (
            <To
              r={r}
              desk="roll-over"
              mark={r.nextYearMade ? "done" : "notYet"}
              text={r.nextYearMade ? "made" : "not yet"}
            />
          ),
        },
      ]}
    />
  );
}

const closed = (r: Row) => r.state === "Archived";

const waiting = (r: Row) =>
  [r.invitations > 0 && `${r.invitations} invited`, r.onHold > 0 && `${r.onHold} on hold`]
    .filter(Boolean)
    .join(", ");

const nothing = "nothing";

/** What is read without a sign-in: the calendar until the class is closed, the shelf until its day. */
const outside = (r: Row) =>
  [!closed(r) && r.calendarOn && "calendar", r.shelfSet && "shelf"].filter(Boolean).join(", ") || nothing;

const unsent = (r: Row) =>
  [
    r.drafts > 0 && count(r.drafts, "draft", "drafts"),
    r.unsent > 0 && `${count(r.unsent, "piece", "pieces")} begun`,
  ]
    .filter(Boolean)
    .join(", ");

function To({ r, desk, mark, text }: { r: Row; desk: string; mark: Mark; text: string }) {
  return (
    <Link component={RouterLink} to={`/classes/${r.id}/${desk}`} underline="hover" color="inherit">
      {/* What is long may wrap; two words stay together. */}
      <StateMark mark={mark} wrap={text.length > 14}>
        {text}
      </StateMark>
    </Link>
  );
}

const stands = (r: Row): [Mark, string] =>
  closed(r)
    ? ["done", "in the loft"]
    : r.signedOff
      ? ["none", "signed off"]
      : r.runGoing
        ? ["underway", "closing now"]
        : r.state === "InPreparation"
          ? ["notYet", "never opened"]
          : [levels[r.level].mark, levels[r.level].word];

const standing = (r: Row) => stands(r)[1];

function Standing({ r }: { r: Row }) {
  const [mark, word] = stands(r);
  const wants = !closed(r) && !r.signedOff && r.level === "Attention";
  return (
    <>
      <StateMark mark={mark} strong={mark === "blocked"}>
        {word}
      </StateMark>
      {wants && (
        <Typography variant="caption" component="div" color="textSecondary" className="narrow">
          {r.findings
            .filter((x) => x.level === "Attention" && x.code !== "next-year")
            .map((x) => x.text)
            .join(" ")}
        </Typography>
      )}
    </>
  );
}

const work = (r: Row) =>
  r.held === 0 ? "with students" : `${r.held} held${r.draftMarks > 0 ? `, ${r.draftMarks} draft marks` : ""}`;

const copies = (r: Row) => (r.onlyCopies > 0 ? count(r.onlyCopies, "only copy", "only copies") : "");

const held = (r: Row) => [work(r), copies(r)].filter(Boolean).join(", ");

function Held({ r }: { r: Row }) {
  return (
    <>
      <To r={r} desk="work" mark={r.held === 0 ? "done" : "blocked"} text={work(r)} />
      {r.onlyCopies > 0 && (
        <Typography variant="caption" component="div" color="error">
          {copies(r)}
        </Typography>
      )}
    </>
  );
}
