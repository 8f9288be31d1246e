import type { Schemas } from "../api/client";
import { doneScale } from "./words";

export { isDone, sayMark } from "./words";

type Scheme = Schemas["MarkScheme"] | null | undefined;

/** Work that is complete or not yet: a scale of two levels, one of which counts nothing. */
export const done: Schemas["MarkScheme"] = {
  scale: doneScale,
  levels: [
    { name: "complete", points: 1, says: null },
    { name: "not yet", points: 0, says: null },
  ],
  criteria: [],
};

/** How an assignment is marked, in a few words; empty where it has no mark. */
export function sayMarked(a: { points?: number | null; scheme?: Scheme }): string {
  if (a.scheme)
    return a.scheme.criteria.length > 0
      ? `${a.points} points by ${a.scheme.criteria.length} ${a.scheme.criteria.length === 1 ? "criterion" : "criteria"}`
      : (a.scheme.scale ?? "");
  return a.points == null ? "" : `${a.points} points`;
}

/** Levels of criteria as they are kept while they are chosen: a place each, "-" for none yet. */
export function chosenOf(kept: string, criteria: number): (number | null)[] {
  const parts = kept.split(" ");
  return Array.from({ length: criteria }, (_, n) =>
    parts[n] === undefined || parts[n] === "" || parts[n] === "-" ? null : Number(parts[n]),
  );
}

/** The same to be kept; empty for none at all. */
export const keptOf = (chosen: readonly (number | null)[]) =>
  chosen.every((c) => c === null) ? "" : chosen.map((c) => c ?? "-").join(" ");

/** What the levels come to; null while one is missing. */
export function sumOf(scheme: NonNullable<Scheme>, chosen: readonly (number | null)[]): number | null {
  let sum = 0;
  for (const [n, c] of scheme.criteria.entries()) {
    const level = chosen[n] == null ? undefined : c.levels[chosen[n]];
    if (!level) return null;
    sum += level.points;
  }
  // Points have two decimals at most.
  return Math.round(sum * 100) / 100;
}
