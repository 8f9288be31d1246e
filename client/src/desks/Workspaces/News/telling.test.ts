import { expect, test } from "vitest";
import type { Schemas } from "../../../api/client";
import { newestOf, newsWords, tell } from "./telling";

const line = (l: Partial<Schemas["NewsLine"]>): Schemas["NewsLine"] => ({
  kind: "Notice",
  at: "2027-06-07T08:00:00Z",
  class: null,
  course: null,
  mark: null,
  title: "Bring an **apron**.",
  by: "Wren",
  others: 0,
  path: "/",
  run: null,
  onHold: null,
  new: true,
  ...l,
});

test("each kind says what it is about and what happened", () => {
  for (const kind of Object.keys(newsWords) as Schemas["NewsKind"][]) {
    const { about, said } = tell(
      line({ kind, run: { kind: "Closing", failed: true, classes: 3, done: 2 }, onHold: 1 }),
    );
    expect(about).not.toBe("");
    expect(said).not.toMatch(/undefined|null/);
  }
});

test("a notice is told without its marks, a run with what came of it", () => {
  expect(tell(line({})).about).toBe("Bring an apron.");
  expect(
    tell(line({ kind: "RunEnded", run: { kind: "Closing", failed: true, classes: 3, done: 2 } })),
  ).toEqual({
    about: "Closing, 3 classes",
    said: "ended, 2 done, not all",
  });
  expect(tell(line({ kind: "Hold", onHold: 1 })).said).toBe("1 change waits for a yes");
});

test("many who wrote in one place on a day are one line", () => {
  expect(tell(line({ kind: "Question", others: 10 })).said).toBe("Wren and 10 more wrote");
});

test("the newest moment, in whatever order they stand", () => {
  expect(
    newestOf([line({ at: "2027-06-01T08:00:00Z" }), line({}), line({ at: "2027-06-02T08:00:00Z" })]),
  ).toBe("2027-06-07T08:00:00Z");
  expect(newestOf([])).toBeUndefined();
});
