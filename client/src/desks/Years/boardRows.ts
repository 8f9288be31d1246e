import type { Schemas } from "../../api/client";
import type { Mark } from "../../parts/StateMark";

export type Row = Schemas["BoardRow"];

/** The columns of the board that stand for seasons. */
export type Season = keyof Schemas["BoardCells"];

/** Which rows are shown. */
export type Filter = "all" | "blocked" | "attention" | "ready";

/** What rows are gathered under. */
export type Grouping = "lead" | "department" | "course" | "none";

/** What the rows are ordered by: their names, or how much they want somebody in a season. */
export type Sorting = "name" | Season;

/** A heading or a row, in the order in which they stand. */
export type Line = { kind: "heading"; text: string; classes: number } | { kind: "row"; row: Row };

/** The shape that a cell's state is told by. */
export const markOf = (s: Schemas["CellState"]): Mark =>
  (
    ({
      None: "none",
      NotYet: "notYet",
      Underway: "underway",
      Done: "done",
      Attention: "attention",
      Blocked: "blocked",
    }) as const
  )[s];

const wanted: Record<Filter, (r: Row) => boolean> = {
  all: () => true,
  blocked: (r) => r.state === "Open" && r.level === "Blocks",
  attention: (r) => r.state === "Open" && r.level === "Attention",
  ready: (r) => r.state === "Open" && r.level === "Ready",
};

const key: Record<Exclude<Grouping, "none">, (r: Row) => string> = {
  lead: (r) => r.lead,
  department: (r) => r.department ?? "No department",
  course: (r) => r.course,
};

/** Does this class want somebody in that season? Done and not-yet-begun do not. */
export const wants = (r: Row, season: Season) => {
  const state = r.cells[season].state;
  return (
    state === "Attention" ||
    state === "Blocked" ||
    ((season === "nextYear" || season === "roster") && state === "NotYet")
  );
};

const gravity: Record<Schemas["CellState"], number> = {
  Blocked: 0,
  Attention: 1,
  Underway: 2,
  NotYet: 3,
  Done: 4,
  None: 5,
};

/** What is wanted of the board. */
export interface Wanted {
  filter: Filter;
  grouping: Grouping;
  sorting: Sorting;
  season?: Season;
  onlyWanting: boolean;
}

/** Filters, sorts and groups the rows into lines. Within a season's order, the gravest stand first and names decide between equals. */
export function linesOf(rows: Row[], { filter, grouping, sorting, season, onlyWanting }: Wanted): Line[] {
  const shown = rows.filter(wanted[filter]).filter((r) => !season || !onlyWanting || wants(r, season));
  if (sorting !== "name")
    shown.sort((a, b) => gravity[a.cells[sorting].state] - gravity[b.cells[sorting].state]);
  if (grouping === "none") return shown.map((row) => ({ kind: "row", row }));
  const groups = new Map<string, Row[]>();
  for (const row of shown) {
    const at = key[grouping](row);
    const group = groups.get(at);
    if (group) group.push(row);
    else groups.set(at, [row]);
  }
  return [...groups]
    .sort(([a], [b]) => a.localeCompare(b))
    .flatMap(([text, list]) => [
      { kind: "heading" as const, text, classes: list.length },
      ...list.map((row) => ({ kind: "row" as const, row })),
    ]);
}
