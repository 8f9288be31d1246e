import { describe, expect, it } from "vitest";
import { levelOf, placesOf, sayDid, sayRow, squareOf, weeksOf } from "./activity";

const days = [
  { day: "2027-06-03", week: 35 },
  { day: "2027-06-04", week: 35 },
  { day: "2027-06-07", week: 36 },
];

describe("a square of the activity", () => {
  it("stands for the most that was done on its day", () => {
    expect([0, 1, 3, 4, 9, 15].map(levelOf)).toEqual([
      "nothing",
      "looked",
      "opened",
      "wrote",
      "wrote",
      "wrote",
    ]);
    expect(sayDid(15)).toBe("handed in, wrote, opened something, opened the class");
    expect(sayDid(0)).toBe("nothing");
  });

  it("stands beside the one before, and weeks stand apart", () => {
    expect(placesOf(days, 10, 4)).toEqual([0, 10, 24]);
    expect(weeksOf(days, [0, 10, 24])).toEqual([
      { week: 35, at: 0 },
      { week: 36, at: 24 },
    ]);
  });

  it("is narrow enough that a year of 200 days stands in 800 pixels", () => {
    for (const n of [5, 30, 31, 60, 120, 200]) {
      const year = Array.from({ length: n }, (_, d) => ({ day: "2027-01-01", week: Math.floor(d / 5) }));
      expect(placesOf(year, squareOf(n)).at(-1)! + squareOf(n)).toBeLessThan(800);
    }
  });

  it("is said in words for the days on which anything was done", () => {
    const row = {
      student: 1,
      sortName: "",
      did: [0, 1, 8],
      daysHere: 2,
      due: 0,
      in: 0,
      lastHere: null,
      quiet: false,
    };
    expect(sayRow(row, days)).toMatch(/Fri.*: opened the class; Mon.*: handed in/);
    expect(sayRow({ ...row, did: [0, 0, 0] }, days)).toBe("nothing in this period");
  });
});
