import { describe, expect, it } from "vitest";
import { blank, bodyOf, namedIn } from "./noticing";

describe("a notice as it is typed", () => {
  it("goes out at once where no day is set, and at seven where a day is and no time", () => {
    expect(bodyOf({ ...blank, text: "x", classes: [3] }).postAt).toBeNull();
    expect(bodyOf({ ...blank, postOn: "2027-06-08", postAt: "" }).postAt).toBe("2027-06-08T07:00:00");
    expect(bodyOf({ ...blank, postOn: "2027-06-08", postAt: "16:30" }).postAt).toBe("2027-06-08T16:30:00");
  });

  it("is for a group only in one class, and for the school in none", () => {
    expect(bodyOf({ ...blank, classes: [3], group: "9" }).group).toBe(9);
    expect(bodyOf({ ...blank, classes: [3, 4], group: "9" }).group).toBeNull();
    expect(bodyOf({ ...blank, classes: [3], group: "9", school: true })).toMatchObject({
      classes: [],
      group: null,
      school: true,
    });
  });

  it("names the files that it keeps and those that were sent, in their order", () =>
    expect(
      bodyOf({
        ...blank,
        files: [
          { id: 4, name: "plan.pdf", size: 3 },
          { upload: 9, name: "map.pdf", size: 3 },
        ],
      }).files,
    ).toEqual([
      { id: 4, upload: null },
      { id: null, upload: 9 },
    ]));

  it("begins with the classes that an address names, each once, and no others", () =>
    expect(namedIn("4,3,4,x,99,", [{ id: 3 }, { id: 4 }])).toEqual([4, 3]));
});
