import { describe, expect, it } from "vitest";
import { count, dayOf, sayBytes } from "./words";

describe("words", () => {
  it("gives a number its noun", () => {
    expect(count(1, "class", "classes")).toBe("1 class");
    expect(count(0, "class", "classes")).toBe("0 classes");
    expect(count(2, "class", "classes")).toBe("2 classes");
  });

  it("says sizes as people do", () => {
    expect(sayBytes(0)).toBe("0 bytes");
    expect(sayBytes(999)).toBe("999 bytes");
    expect(sayBytes(1000)).toBe("1.0 kB");
    expect(sayBytes(12_345)).toBe("12 kB");
    expect(sayBytes(2_147_483_648)).toBe("2.1 GB");
  });

  it("takes a calendar day as that day in any time zone", () => {
    const d = dayOf("2027-06-07");
    expect([d.getFullYear(), d.getMonth(), d.getDate(), d.getHours()]).toEqual([2027, 5, 7, 0]);
  });
});
