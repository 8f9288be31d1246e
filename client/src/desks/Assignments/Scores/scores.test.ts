import { describe, expect, it } from "vitest";
import type { Schemas } from "../../../api/client";
import { inOrder, next, parts, sayFault, worth } from "./scores";

const row = (name: string, counts: number | null, draft: number | null = null): Schemas["ScoreTableRow"] => ({
  student: 1,
  sortName: name,
  number: null,
  section: 0,
  share: counts,
  cells: counts === null && draft === null ? [] : [{ column: 0, counts, draft, waits: false }],
});

describe("the order of a score table", () => {
  const rows = [row("a", 5), row("b", null), row("c", 9), row("d", 5), row("e", null, 7)];
  const names = (by: Parameters<typeof inOrder>[1]) => inOrder(rows, by).map((r) => r.sortName);

  it("puts the highest first, those without a mark last whichever way, and leaves equals as they stood", () => {
    expect(names({ by: 0, down: true })).toEqual(["c", "e", "a", "d", "b"]);
    expect(names({ by: 0, down: false })).toEqual(["a", "d", "e", "c", "b"]);
    expect(names({ by: "share", down: true })).toEqual(["c", "a", "d", "b", "e"]);
    expect(names({ by: "name", down: true })).toEqual(["e", "d", "c", "b", "a"]);
  });

  it("goes from the highest to the lowest and then back to names", () => {
    const once = next({ by: "name", down: false }, 3);
    expect(once).toEqual({ by: 3, down: true });
    expect(next(once, 3)).toEqual({ by: 3, down: false });
    expect(next(next(once, 3), 3)).toEqual({ by: "name", down: false });
    expect(next({ by: "name", down: false }, "name")).toEqual({ by: "name", down: true });
    expect(next({ by: "name", down: true }, "name")).toEqual({ by: "name", down: false });
  });

  it("counts a draft before the mark it takes the place of", () => expect(worth(row("x", 4, 8), 0)).toBe(8));
});

describe("the drawing of scores", () => {
  it("puts every mark in one part, full marks in the last", () => {
    expect(parts([0, 1, 9.5, 10, 10], 10)).toEqual([1, 1, 0, 0, 0, 0, 0, 0, 0, 3]);
    expect(parts([], 100)).toHaveLength(20);
    expect(parts([0.2, 0.5], 0.5)).toEqual([2]);
  });
});

it("names what stands in the file where something does not come in", () =>
  expect(sayFault({ line: 3, column: "Pot", fault: "NoNumber", value: "ill" })).toBe("“ill” is no number"));
