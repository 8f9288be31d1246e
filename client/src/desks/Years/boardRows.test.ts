import { describe, expect, it } from "vitest";
import { linesOf, wants, type Row } from "./boardRows";

const cell = (state: Row["cells"]["close"]["state"]) => ({ state, text: "", done: null, of: null });
const row = (id: number, lead: string, level: Row["level"], over: Partial<Row["cells"]> = {}): Row => ({
  id,
  name: `Class ${id}`,
  course: "Signals",
  mark: "flag",
  section: null,
  period: null,
  department: null,
  lead,
  state: "Open",
  level,
  cells: {
    folders: cell("Done"),
    roster: cell("Done"),
    open: cell("Done"),
    work: cell("Done"),
    close: cell("Done"),
    nextYear: cell("NotYet"),
    ...over,
  },
  students: 1,
  held: 0,
  heldMarked: 0,
  unfiled: 0,
  blindSpots: 0,
});

const plain = { sorting: "name", onlyWanting: false } as const;

describe("lines of the year board", () => {
  const rows = [
    row(1, "Zed", "Ready"),
    row(2, "Abe", "Blocks", { close: cell("Blocked") }),
    row(3, "Zed", "Attention"),
  ];

  it("gathers rows under headings in the order of the alphabet, with their count", () => {
    const lines = linesOf(rows, { ...plain, filter: "all", grouping: "lead" });
    expect(lines.map((l) => (l.kind === "heading" ? `${l.text} ${l.classes}` : l.row.id))).toEqual([
      "Abe 1",
      2,
      "Zed 2",
      1,
      3,
    ]);
  });

  it("shows only what the filter asks for", () => {
    expect(linesOf(rows, { ...plain, filter: "blocked", grouping: "none" }).length).toBe(1);
  });

  it("takes a class that is archived for neither ready nor blocked", () => {
    expect(
      linesOf([{ ...rows[0]!, state: "Archived" }], { ...plain, filter: "ready", grouping: "none" }),
    ).toEqual([]);
  });

  it("shows in a season what wants somebody there", () => {
    expect(
      linesOf(rows, { ...plain, filter: "all", grouping: "none", season: "close", onlyWanting: true }).length,
    ).toBe(1);
    expect(
      linesOf(rows, { ...plain, filter: "all", grouping: "none", season: "close", onlyWanting: false })
        .length,
    ).toBe(3);
  });

  it("counts next year's class as wanting while it is not made", () => {
    expect(wants(rows[0]!, "nextYear")).toBe(true);
    expect(wants(rows[0]!, "work")).toBe(false);
  });

  it("puts what is blocked in a season first when sorted by it, and names decide between equals", () => {
    const lines = linesOf(rows, { ...plain, filter: "all", grouping: "none", sorting: "close" });
    expect(lines.map((l) => l.kind === "row" && l.row.id)).toEqual([2, 1, 3]);
  });
});
