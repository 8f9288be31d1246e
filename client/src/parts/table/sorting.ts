import { wordsIn, type Column, type Worth } from "./columns";

/** Rows in the order of a column, or as they came. */
export interface Sorting {
  head: string;
  down: boolean;
}

/** What a click on a head does: up, down, and as it came. */
export const next = (now: Sorting | null, head: string): Sorting | null =>
  now?.head !== head ? { head, down: false } : now.down ? null : { head, down: true };

// Numbers in words by their worth, letters with and without a mark beside each other.
const order = new Intl.Collator(undefined, { numeric: true, sensitivity: "base" });

const blank = (w: Worth) => w == null || w === "" || w === "–" || w === "—";

/** The rows in the order that was asked for; equal ones as they came, and what says nothing at the end, whichever way. */
export function sorted<R>(
  rows: readonly R[],
  columns: readonly Column<R>[],
  by: Sorting | null,
): readonly R[] {
  const column = by && columns.find((c) => c.head === by.head);
  if (!by || !column) return rows;
  const worth = column.by ?? ((row: R) => wordsIn(column.cell(row, 0)));
  const way = by.down ? -1 : 1;
  return rows
    .map((row) => ({ row, worth: worth(row) }))
    .sort((a, b) => {
      if (blank(a.worth) || blank(b.worth)) return Number(blank(a.worth)) - Number(blank(b.worth));
      if (typeof a.worth === "number" && typeof b.worth === "number") return way * (a.worth - b.worth);
      return way * order.compare(String(a.worth), String(b.worth));
    })
    .map((x) => x.row);
}
