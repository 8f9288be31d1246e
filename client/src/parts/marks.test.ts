import { describe, expect, it } from "vitest";
import { chosenOf, done, keptOf, sayMark, sayMarked, sumOf } from "./marks";

const level = (name: string, points: number) => ({ name, points, says: null });
const letters = { scale: "Letters", levels: [level("A", 4), level("B", 3)], criteria: [] };
const rim = {
  scale: null,
  levels: [],
  criteria: [
    { name: "Rim", levels: [level("wild", 0), level("fine", 0.1)] },
    { name: "Glaze", levels: [level("runs", 0), level("sits", 0.2)] },
  ],
};

describe("a mark in words", () => {
  it("is its level where it is on a scale, with the figures", () => {
    expect(sayMark(3, 4, letters)).toBe("B (3 of 4)");
    expect(sayMark(18.5, 20)).toBe("18.5 of 20");
    expect(sayMark(7, null)).toBe("7");
    expect(sayMark(2, 4, letters)).toBe("2 of 4");
    expect(sayMark(3, 4, null, "B")).toBe("B (3 of 4)");
  });
  it("is one word where work is complete or not yet", () => {
    expect(sayMark(1, 1, done)).toBe("complete");
    expect(sayMark(0, 1, done)).toBe("not yet");
  });
  it("says how an assignment is marked", () => {
    expect(sayMarked({ points: 20 })).toBe("20 points");
    expect(sayMarked({ points: null })).toBe("");
    expect(sayMarked({ points: 4, scheme: letters })).toBe("Letters");
    expect(sayMarked({ points: 0.3, scheme: rim })).toBe("0.3 points by 2 criteria");
  });
});

describe("levels of criteria", () => {
  it("are kept while some are chosen, and read as they were", () => {
    expect(chosenOf("", 2)).toEqual([null, null]);
    expect(chosenOf("1", 2)).toEqual([1, null]);
    for (const c of [
      [1, null],
      [null, 0],
      [1, 0],
    ])
      expect(chosenOf(keptOf(c), 2)).toEqual(c);
    expect(keptOf([null, null])).toBe("");
  });
  it("come to a mark once each has one, without the dust of binary figures", () => {
    expect(sumOf(rim, [1, null])).toBeNull();
    expect(sumOf(rim, [1, 1])).toBe(0.3);
    expect(sumOf(rim, [1, 7])).toBeNull();
  });
});
