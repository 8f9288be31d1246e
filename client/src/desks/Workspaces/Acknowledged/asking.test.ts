import { expect, test } from "vitest";
import { asksOf, asksTyped, sayLeft, sayUnreached } from "./asking";

test("what is outstanding is said by whom", () => {
  expect(sayLeft({ students: 20, ownLeft: 1, homeLeft: 5 })).toBe("1 student, 5 homes");
  expect(sayLeft({ students: 20, ownLeft: 0, homeLeft: 1 })).toBe("1 home");
  expect(sayLeft({ students: 20, ownLeft: 0, homeLeft: 0 })).toBe("all have");
  expect(sayLeft({ students: 0, ownLeft: 0, homeLeft: 0 })).toBe("nobody is asked");
});

test("why nobody finds it yet", () => {
  expect(sayUnreached({ reached: true, kind: "Page" })).toBe("");
  expect(sayUnreached({ reached: false, kind: "Page" })).toContain("class is open");
  expect(sayUnreached({ reached: false, kind: null })).toContain("posted");
});

test("what is typed goes out and comes back the same", () => {
  for (const asks of [null, { of: "Both", until: "2027-06-11" }, { of: "Home", until: null }] as const)
    expect(asksOf(asksTyped(asks))).toEqual(asks);
  expect(asksOf({ asks: "", until: "2027-06-11" })).toBeNull();
});
