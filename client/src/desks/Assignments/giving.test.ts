import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { bodyOf, typedOf } from "./giving";

const there = {
  title: "Pot",
  instructions: "One.",
  points: 18.5,
  dueOn: "2027-06-04",
  dueTime: "15:30:00",
  lateDays: 7,
  folders: [3, 4],
  givenTo: [9],
} as unknown as Schemas["AssignmentView"];

describe("an assignment as it is typed", () => {
  it("is sent as it was when nothing was changed", () => {
    for (const lateDays of [null, 0, 1, 7])
      expect(bodyOf(typedOf({ ...there, lateDays }), false)).toEqual({
        title: "Pot",
        instructions: "One.",
        points: 18.5,
        dueOn: "2027-06-04",
        dueTime: "15:30:00",
        lateDays,
        folders: [3, 4],
        students: [9],
        alsoIn: [],
        publish: false,
        publishAt: null,
      });
    expect(
      bodyOf(typedOf({ ...there, points: null, dueOn: null, dueTime: null, givenTo: [] }), true),
    ).toMatchObject({
      points: null,
      dueOn: null,
      dueTime: null,
      students: null,
      publish: true,
    });
  });

  it("has the moment at which it is published by itself, unless it is published now", () => {
    const set = typedOf({ ...there, publishAt: "2027-06-10T08:15:00" });
    expect(bodyOf(set, false).publishAt).toBe("2027-06-10T08:15:00");
    expect(bodyOf(set, true).publishAt).toBeNull();
    expect(bodyOf({ ...set, publishOn: "" }, false).publishAt).toBeNull();
  });

  it("is previewed while a figure is half typed", () => {
    expect(bodyOf({ ...typedOf(there), points: "1x", late: "days", lateDays: "" }, false)).toMatchObject({
      points: null,
      lateDays: null,
    });
  });
});
