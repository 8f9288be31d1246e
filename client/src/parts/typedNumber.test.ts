import { describe, expect, it } from "vitest";
import { typedNumber } from "./typedNumber";

describe("a number that was typed", () => {
  it("is read with a comma or a point", () =>
    expect(["20", " 17.5 ", "17,5", "-1", ".5"].map(typedNumber)).toEqual([20, 17.5, 17.5, -1, 0.5]));

  it("is none where nothing is typed", () => expect(["", "   "].map(typedNumber)).toEqual([null, null]));

  it("is never taken for nothing where it is no number", () =>
    expect(["abc", "20 points", "1e9", "0x10", "1.2.3", "-"].every((t) => Number.isNaN(typedNumber(t)))).toBe(
      true,
    ));
});
