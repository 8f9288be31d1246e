import { describe, expect, it } from "vitest";
import type { Schemas } from "../../../api/client";
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
  groups: [{ id: 2, name: "Red" }],
  things: [
    { id: 5, kind: "File", name: "plan.pdf", size: 10, url: null, item: null },
    { id: 6, kind: "Page", name: "Glazes", size: 10, url: null, item: 40 },
  ],
} as unknown as Schemas["AssignmentView"];

describe("an assignment as it is typed", () => {
  it("is sent as it was when nothing was changed", () => {
    for (const lateDays of [null, 0, 1, 7])
      expect(bodyOf(typedOf({ ...there, lateDays }), false)).toEqual({
        title: "Pot",
        instructions: "One.",
        points: 18.5,
        scheme: null,
        dueOn: "2027-06-04",
        dueTime: "15:30:00",
        lateDays,
        folders: [3, 4],
        students: [9],
        groups: [2],
        alsoIn: [],
        things: [
          { id: 5, upload: null, item: null, name: "plan.pdf", url: null },
          { id: 6, upload: null, item: null, name: "Glazes", url: null },
        ],
        publish: false,
        publishAt: null,
      });
    expect(
      bodyOf(typedOf({ ...there, points: null, dueOn: null, dueTime: null, givenTo: [] }), true),
    ).toMatchObject({
      points: null,
      dueOn: null,
      dueTime: null,
      students: [],
      publish: true,
    });
  });

  it("has the moment at which it is published by itself, unless it is published now", () => {
    const set = typedOf({ ...there, publishAt: "2027-06-10T08:15:00" });
    expect(bodyOf(set, false).publishAt).toBe("2027-06-10T08:15:00");
    expect(bodyOf(set, true).publishAt).toBeNull();
    expect(bodyOf({ ...set, publishOn: "" }, false).publishAt).toBeNull();
  });

  it("attaches what was sent, what stands in the class and links, each as what it is", () => {
    const things = [
      { upload: 8, name: "new.pdf", kind: "File" as const, size: 3 },
      { item: 41, name: "Tides", kind: "Page" as const },
      { name: "Sea", kind: "Link" as const, url: "https://sea.example/" },
    ];
    expect(bodyOf({ ...typedOf(there), things }, false).things).toEqual([
      { id: null, upload: 8, item: null, name: "new.pdf", url: null },
      { id: null, upload: null, item: 41, name: "Tides", url: null },
      { id: null, upload: null, item: null, name: "Sea", url: "https://sea.example/" },
    ]);
  });

  it("is marked on a scale or by criteria, and what was typed of the others is no part of it", () => {
    const scale = { scale: "Letters", levels: [{ name: "A", points: 4, says: null }], criteria: [] };
    const on = typedOf({ ...there, scheme: scale });
    expect(bodyOf(on, false)).toMatchObject({ points: null, scheme: scale });
    const level = (name: string, points: string, says: string) => ({ name, points, says });
    const by = {
      ...typedOf(there),
      marked: "criteria" as const,
      criteria: [{ name: " Rim ", levels: [level("wild", "0", ""), level("fine", "2,5", " No wobble. ")] }],
    };
    expect(bodyOf(by, false)).toMatchObject({
      points: null,
      scheme: {
        scale: null,
        levels: [],
        criteria: [
          {
            name: "Rim",
            levels: [
              { name: "wild", points: 0, says: null },
              { name: "fine", points: 2.5, says: "No wobble." },
            ],
          },
        ],
      },
    });
    expect(bodyOf({ ...by, marked: "points" }, false)).toMatchObject({ points: 18.5, scheme: null });
  });

  it("is previewed while a figure is half typed", () => {
    expect(bodyOf({ ...typedOf(there), points: "1x", late: "days", lateDays: "" }, false)).toMatchObject({
      points: null,
      lateDays: null,
    });
  });
});
