import type { Schemas } from "../../../api/client";
import { sayDay } from "../../../parts/words";

/** How a day of somebody stands: by the most that they did on it. */
export type Level = "nothing" | "looked" | "opened" | "wrote";

// Bits of what was done: opened the class, opened a thing, wrote, handed in.
const thing = 2;
const wroteOrHandedIn = 4 | 8;

/** The most that was done. */
export const levelOf = (did: number): Level =>
  did === 0 ? "nothing" : did & wroteOrHandedIn ? "wrote" : did & thing ? "opened" : "looked";

/** What was done, in words. */
export function sayDid(did: number): string {
  if (did === 0) return "nothing";
  return (
    [
      [8, "handed in"],
      [4, "wrote"],
      [2, "opened something"],
      [1, "opened the class"],
    ] as const
  )
    .filter(([bit]) => did & bit)
    .map(([, words]) => words)
    .join(", ");
}

/** How wide a day is drawn, so that a whole year stands in the width of the screen. */
export const squareOf = (days: number) => (days <= 30 ? 13 : days <= 60 ? 8 : days <= 120 ? 4.5 : 2.6);

/** Where each day's square stands, in pixels from the left: weeks stand apart. */
export function placesOf(
  days: readonly Schemas["ActivityDay"][],
  square: number,
  gap = square / 2,
): number[] {
  let x = 0;
  return days.map((d, n) => {
    if (n > 0) x += square + (days[n - 1]!.week !== d.week ? gap : 0);
    return x;
  });
}

/** The school weeks of a period with the place where each begins. */
export const weeksOf = (days: readonly Schemas["ActivityDay"][], places: readonly number[]) =>
  days.flatMap((d, n) => (n === 0 || days[n - 1]!.week !== d.week ? [{ week: d.week, at: places[n]! }] : []));

/** The whole row in words: what was done on each day on which anything was. */
export function sayRow(row: Schemas["ActivityRow"], days: readonly Schemas["ActivityDay"][]): string {
  const said = days.flatMap((d, n) => (row.did[n] ? [`${sayDay(d.day)}: ${sayDid(row.did[n])}`] : []));
  return said.length === 0 ? "nothing in this period" : said.join("; ");
}
