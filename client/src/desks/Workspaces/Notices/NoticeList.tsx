import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import type { Schemas } from "../../../api/client";
import { NoticeFiles } from "../../../parts/NoticeFiles";
import { plainWords } from "../../../parts/plainWords";
import { Gauge, StateMark } from "../../../parts/StateMark";
import { PlainTable } from "../../../parts/table/PlainTable";
import { sayDay, sayMoment } from "../../../parts/words";

type Line = Schemas["NoticeLine"];

/** What was told in one's classes, or will be. */
export function NoticeList(props: {
  notices: readonly Line[];
  onChange: (n: Line) => void;
  onWithdraw: (n: Line) => void;
  onReaders: (n: Line) => void;
}) {
  if (props.notices.length === 0) return null;
  return (
    <PlainTable
      label="Notices of your classes"
      heading="Told, or to be told"
      space={{ mt: 4 }}
      rows={props.notices}
      id={(n) => n.id}
      soft={(n) => n.state === "Withdrawn"}
      columns={[
        {
          head: "Notice",
          main: true,
          cell: (n) => (
            <>
              <span className="notice-words">{plainWords(n.text)}</span>
              <NoticeFiles notice={n.id} files={n.files} />
            </>
          ),
        },
        { head: "To", cell: (n) => sayTo(n) },
        {
          head: "Stands",
          by: (n) => n.postedAt ?? n.postAt,
          cell: (n) => (
            <StateMark wrap mark={n.state === "Posted" ? "done" : n.state === "Waits" ? "underway" : "none"}>
              {n.state === "Withdrawn"
                ? "withdrawn"
                : n.state === "Waits"
                  ? `waits for ${sayMoment(n.postAt!)}`
                  : `${sayMoment(n.postedAt!)}${n.changedAt ? ", changed since" : ""}`}
              {n.pinnedUntil && n.state !== "Withdrawn" && `, on top until ${sayDay(n.pinnedUntil)}`}
            </StateMark>
          ),
        },
        {
          head: "Seen",
          by: (n) => (n.for ? n.seen / n.for : 0),
          cell: (n) =>
            n.state === "Waits" ? (
              ""
            ) : n.for == null ? (
              `by ${n.seen}`
            ) : n.may ? (
              <Link component="button" className="notice-seen" onClick={() => props.onReaders(n)}>
                <Gauge done={n.seen} of={n.for} mark="done" /> {n.seen} of {n.for}
              </Link>
            ) : (
              `${n.seen} of ${n.for}`
            ),
        },
        {
          head: "",
          align: "right",
          cell: (n) =>
            n.may &&
            n.state !== "Withdrawn" && (
              <span className="notice-acts">
                <Button onClick={() => props.onChange(n)} aria-label={`Change: ${short(n)}`}>
                  Change
                </Button>
                <Button onClick={() => props.onWithdraw(n)} aria-label={`Withdraw: ${short(n)}`}>
                  Withdraw
                </Button>
              </span>
            ),
        },
      ]}
    />
  );
}

const short = (n: Line) => {
  const words = plainWords(n.text);
  return words.length > 40 ? `${words.slice(0, 40)}…` : words;
};

function sayTo(n: Line): string {
  if (n.school) return "the whole school";
  const shown = n.places.slice(0, 3).map((p) => (p.group ? `${p.name}, group ${p.group}` : p.name));
  const more = n.places.length - shown.length + n.elsewhere;
  return more > 0 ? `${shown.join("; ")} and ${more} more` : shown.join("; ");
}
