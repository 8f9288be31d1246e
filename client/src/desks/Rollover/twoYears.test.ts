import { describe, expect, it } from "vitest";
import { placeIn, yearOver } from "./twoYears";

const year = (label: string, from: number) => ({
  label,
  terms: [
    { first: `${from}-09-01`, last: `${from}-12-20` },
    { first: `${from + 1}-01-08`, last: `${from + 1}-06-18` },
  ],
});
const years = [year("2025–26", 2025), year("2026–27", 2026), { label: "empty", terms: [] }];

describe("dates on two years", () => {
  it("find the year that most of them lie in", () => {
    expect(yearOver(years, ["2026-09-01", "2027-06-18", "2026-06-01"])?.label).toBe("2026–27");
    expect(yearOver(years, ["2026-07-20"])).toBeUndefined();
    expect(yearOver([], ["2026-09-01"])).toBeUndefined();
  });

  it("stand by days from the first to the last, and at the end where they lie outside", () => {
    const y = years[1]!;
    expect(placeIn(y, "2026-09-01")).toBe(0);
    expect(placeIn(y, "2027-06-18")).toBe(1);
    // 290 days from 1 September 2026 to 18 June 2027; the 145th is 24 January.
    expect(placeIn(y, "2027-01-24")).toBeCloseTo(0.5, 10);
    expect(placeIn(y, "2026-08-01")).toBe(0);
    expect(placeIn(y, "2028-01-01")).toBe(1);
  });
});
