import Link from "@mui/material/Link";
import type { Schemas } from "../../api/client";
import { Empty } from "../../parts/Desk";
import { sayMark } from "../../parts/marks";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { sayMoment } from "../../parts/words";

/** What came back of one's work in a class: the mark, and what the teacher wrote, the newest first. */
export function CameBack(props: {
  assignments: readonly Schemas["AssignmentView"][];
  onFolder: (folder: number) => void;
}) {
  const back = props.assignments
    .flatMap((a) => (a.own?.returnedAt ? [{ ...a, own: a.own, at: a.own.returnedAt }] : []))
    .sort((a, b) => b.at.localeCompare(a.at));
  if (back.length === 0)
    return <Empty title="Nothing came back yet.">What your teacher returns stands here with its mark.</Empty>;
  return (
    <PlainTable
      label="What came back"
      rows={back}
      id={(a) => a.id}
      columns={[
        {
          head: "Assignment",
          main: true,
          cell: (a) => (
            <Link
              component="button"
              className="alone"
              onClick={() => a.folders[0] !== undefined && props.onFolder(a.folders[0])}
            >
              {a.title}
            </Link>
          ),
        },
        {
          head: "Mark",
          by: (a) => a.own.score,
          cell: (a) => (
            <StateMark mark="done">
              {a.own.score == null ? "no mark" : sayMark(a.own.score, a.points, a.scheme)}
            </StateMark>
          ),
        },
        {
          head: "What was said",
          cell: (a) => a.own.comments.map((c) => <p key={c.at + c.text}>{`${c.text} (${c.author})`}</p>),
        },
        {
          head: "Returned",
          by: (a) => a.at,
          says: "worth",
          cell: (a) => (
            <>
              {sayMoment(a.at)}
              {a.own.state === "HandedIn" && ", handed in again since"}
              {a.own.lateMinutes != null && ", was late"}
            </>
          ),
        },
      ]}
    />
  );
}
