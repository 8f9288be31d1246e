import { describe, expect, it } from "vitest";
import { sayDue, sayLate } from "./due";

describe("when work is due", () => {
  it("is said with its time, if it has one", () => {
    expect(sayDue({ dueOn: null, dueTime: null })).toBe("");
    expect(sayDue({ dueOn: "2027-06-04" })).toMatch(/^due .*4/);
    expect(sayDue({ dueOn: "2027-06-04", dueTime: "15:30:00" })).toMatch(/, by (15:30|03:30)/);
  });

  it("is said by how much it was missed, never as nothing", () => {
    expect(sayLate(0)).toBe("1 minute late");
    expect(sayLate(59)).toBe("59 minutes late");
    expect(sayLate(60)).toBe("1 hour late");
    expect(sayLate(47 * 60 + 59)).toBe("47 hours late");
    expect(sayLate(48 * 60)).toBe("2 days late");
  });
});
