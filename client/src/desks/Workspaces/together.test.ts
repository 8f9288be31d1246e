import { describe, expect, it } from "vitest";
import { together } from "./together";

const same = { kind: "Same" as const, was: ["a"], mine: ["a"], theirs: ["a"] };
const mine = { kind: "Mine" as const, was: ["b"], mine: ["b, mine"], theirs: ["b"] };
const theirs = { kind: "Theirs" as const, was: ["c"], mine: ["c"], theirs: ["c, theirs"] };
const both = { kind: "Conflict" as const, was: ["d"], mine: ["d, mine"], theirs: ["d, theirs"] };

describe("a page that two wrote on", () => {
  it("takes what each changed alone", () =>
    expect(together([same, mine, theirs], {})).toBe("a\nb, mine\nc, theirs"));

  it("is not whole before every place that both changed is decided", () =>
    expect(together([same, both, both], { 1: "mine" })).toBeNull());

  it("has mine, theirs, or both in their order", () => {
    expect(together([both], { 0: "mine" })).toBe("d, mine");
    expect(together([both], { 0: "theirs" })).toBe("d, theirs");
    expect(together([both], { 0: "both" })).toBe("d, mine\n\nd, theirs");
  });
});
