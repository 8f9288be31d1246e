import type { Schemas } from "../../../api/client";

/** What the scores of are looked at together: a class, or the sections of a combined roster. */
export type Scope = { kind: "class" | "combined"; id: number };

/** Where the server has them. */
export const pathOf = ({ kind, id }: Scope) =>
  kind === "class" ? `/api/classes/${id}/scores` : `/api/combined/${id}/scores`;

/** A mark or a figure as it is read: at most two decimals, in the browser's way. */
export const figure = (n?: number | null) =>
  n == null ? "–" : n.toLocaleString(undefined, { maximumFractionDigits: 2 });

/** How rows stand: by name, by the share of full marks, or by the mark in a column. */
export interface Order {
  by: "name" | "share" | number;
  down: boolean;
}

type Row = Schemas["ScoreTableRow"];

/** What a row is worth where it is put in order by a column: the draft before the mark that counts, as it would be returned next. */
export function worth(row: Row, by: "share" | number): number | null {
  if (by === "share") return row.share ?? null;
  const cell = row.cells.find((c) => c.column === by);
  return cell?.draft ?? cell?.counts ?? null;
}

/** Rows in the order that is asked for; those without a mark come last, whichever way, and equal ones stay as they stood. */
export function inOrder(rows: readonly Row[], order: Order): Row[] {
  const { by, down } = order;
  if (by === "name") return down ? [...rows].reverse() : [...rows];
  return [...rows].sort((a, b) => {
    const [x, y] = [worth(a, by), worth(b, by)];
    if (x === null || y === null) return Number(x === null) - Number(y === null);
    return down ? y - x : x - y;
  });
}

/** The order after its column is asked for: up, down, then by name again. */
export const next = (order: Order, by: Order["by"]): Order =>
  order.by !== by
    ? { by, down: by !== "name" }
    : order.down === (by !== "name")
      ? { by, down: !order.down }
      : { by: "name", down: false };

/** How many marks lie in each part of the scale, from nothing to full marks; full marks lie in the last part. */
export function parts(scores: readonly number[], points: number, most = 20): number[] {
  const n = Math.max(1, Math.min(most, Math.round(points)));
  const high = Array.from({ length: n }, () => 0);
  for (const s of scores) high[Math.min(n - 1, Math.max(0, Math.floor((s / points) * n)))]!++;
  return high;
}

/** Why something of a file does not come in, in words. */
export function sayFault(f: Schemas["ScoreFinding"]): string {
  const value = f.value ? `“${f.value}”` : "";
  switch (f.fault) {
    case "ColumnUnknown":
      return "no assignment has that title";
    case "ColumnTwice":
      return "another column is of the same assignment";
    case "NoPoints":
      return "the assignment has no score";
    case "PointsDiffer":
      return "the assignment has other full marks than the file says";
    case "NotPublished":
      return "the assignment is a draft";
    case "NobodyNamed":
      return "the row has neither student number nor e-mail";
    case "NotOnRoster":
      return `nobody on the roster is ${value}`;
    case "OtherSection":
      return `${value || "the row"} is another class`;
    case "TwoPeople":
      return `number and e-mail are of two people (${value})`;
    case "Twice":
      return `${value} has more than one row: none of them is taken`;
    case "SeveralSections":
      return `${value} is in more than one section: a column “class” has to say which`;
    case "NotInSection":
      return `${value}, but the student's section has no such assignment`;
    case "NotGiven":
      return `${value}, but the assignment is not given to the student`;
    case "NoNumber":
      return `${value} is no number`;
    case "Decimals":
      return `${value} has more than two decimals, or a separator of thousands`;
    case "OffScale":
      return `${value} is none of the levels of its scale`;
    case "ByCriteria":
      return `${value}, but it is marked by criteria: a sum does not say which levels`;
    case "Range":
      return `${value} is below nothing or over full marks`;
  }
}
