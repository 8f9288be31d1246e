import { describe, expect, it } from "vitest";
import { indent, insertAfter, move, newLine, outdent, remove, type Line } from "./outline";

const lines = (text: string): Line[] =>
  text.split(" ").map((w) => ({ ...newLine(w.match(/^\.*/)![0].length), namePattern: w.replace(/\./g, "") }));
const said = (l: Line[]) => l.map((x) => ".".repeat(x.depth) + x.namePattern).join(" ");

describe("an outline", () => {
  it("indents a line with all that stands inside, and never deeper than the line above allows", () => {
    expect(said(indent(lines("a b .c d"), 1))).toBe("a .b ..c d");
    expect(said(indent(lines("a .b"), 1))).toBe("a .b");
    expect(said(indent(lines("a"), 0))).toBe("a");
  });

  it("outdents with all that stands inside", () => {
    expect(said(outdent(lines("a .b ..c .d"), 1))).toBe("a b .c .d");
    expect(said(outdent(lines("a"), 0))).toBe("a");
  });

  it("moves past the neighbour of its level, each with all that stands inside", () => {
    expect(said(move(lines("a .x b .y c"), 0, true)[0])).toBe("b .y a .x c");
    expect(said(move(lines("a .x b .y c"), 2, false)[0])).toBe("b .y a .x c");
    expect(move(lines("a .x b .y c"), 0, true)[1]).toBe(2);
    expect(said(move(lines("a .x b"), 1, true)[0])).toBe("a .x b");
  });

  it("takes a line out with all that stands inside", () => {
    expect(said(remove(lines("a .b ..c d"), 0))).toBe("d");
  });

  it("puts lines in after a line and all that stands inside it", () => {
    expect(said(insertAfter(lines("a .b c"), 0, lines("x .y")))).toBe("a .b x .y c");
    expect(said(insertAfter(lines("a .b c"), 1, lines("x .y")))).toBe("a .b .x ..y c");
    expect(said(insertAfter([], -1, lines("x")))).toBe("x");
  });
});
