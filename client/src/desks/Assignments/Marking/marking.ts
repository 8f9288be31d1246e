import type { Schemas } from "../../../api/client";

type Piece = Schemas["MarkingPiece"];

/** How a piece stands on the marking desk. */
export type Standing = "none" | "begun" | "waits" | "draft" | "back";

/** Where a piece stands: what waits is held without a mark; where there are no points, held at all. */
export function standingOf(p: Piece): Standing {
  if (p.draft) return "draft";
  if (p.state === "HandedIn") return "waits";
  if (p.state === "Returned") return "back";
  return p.work == null ? "none" : "begun";
}

/** A piece's name in the address: it stays the same whether work was begun or not. */
export const keyOf = (p: Piece) => `${p.assignment}-${p.student}`;

/** The next that waits after a place, going round once; -1 where none does. */
export function nextWaiting(all: readonly Piece[], from: number): number {
  for (let n = 1; n <= all.length; n++) {
    const at = (from + n) % all.length;
    if (standingOf(all[at]!) === "waits") return at;
  }
  return -1;
}

/** Where one goes from a piece that is done: to the next that waits, or else to the next that is held; -1 for nowhere. */
export function goesOn(all: readonly Piece[], from: number): number {
  const waiting = nextWaiting(all, from);
  return waiting === from ? -1 : waiting;
}

/** One step up or down on the scale from what is typed; from nothing, up begins at 0 and down at full marks. */
export function stepped(typed: number | null, by: 1 | -1, points: number): number {
  if (typed === null || Number.isNaN(typed)) return by > 0 ? 0 : points;
  const whole = by > 0 ? Math.floor(typed) + 1 : Math.ceil(typed) - 1;
  return Math.min(points, Math.max(0, whole));
}

/** A dot of the drawing: a mark of somebody else, where it lies and how high it is piled. */
export interface Dot {
  at: number;
  up: number;
  draft: boolean;
}

/** The marks of the others as dots on a scale, those that lie together piled up; at most `places` of them side by side. */
export function dotsOf(others: readonly Piece[], points: number, places = 40): Dot[] {
  const width = points / Math.max(1, Math.min(points, places));
  const high = new Map<number, number>();
  return others
    .flatMap((p) => {
      const mark = p.draft ? p.score : p.counts;
      return mark == null ? [] : [{ mark: Number(mark), draft: p.draft }];
    })
    .sort((a, b) => Number(a.draft) - Number(b.draft) || a.mark - b.mark)
    .map(({ mark, draft }) => {
      const place = Math.round(mark / width);
      const up = high.get(place) ?? 0;
      high.set(place, up + 1);
      return { at: (place * width) / points, up, draft };
    });
}
