import { describe, expect, it } from "vitest";
import type { Schemas } from "../../../api/client";
import { dotsOf, goesOn, nextWaiting, standingOf, stepped } from "./marking";

const piece = (state: Schemas["WorkState"], score: number | null = null, counts: number | null = null) =>
  ({
    work: 1,
    state,
    score,
    draft: score !== null && (state !== "Returned" || score !== counts),
    counts,
  }) as Schemas["MarkingPiece"];

describe("a piece on the marking desk", () => {
  it("waits while it is held without a mark, and is a draft with one", () => {
    expect(standingOf(piece("HandedIn"))).toBe("waits");
    expect(standingOf(piece("HandedIn", 0))).toBe("draft");
    // Handed in again: the mark of before counts, and it waits all the same.
    expect(standingOf(piece("HandedIn", null, 12))).toBe("waits");
    expect(standingOf(piece("Returned", null, 12))).toBe("back");
    // Marked anew, or on paper: a draft wherever the piece is.
    expect(standingOf(piece("Returned", 14, 12))).toBe("draft");
    expect(standingOf(piece("Working", 14))).toBe("draft");
    expect(standingOf({ ...piece("Working"), work: null })).toBe("none");
    expect(standingOf(piece("Working"))).toBe("begun");
  });

  it("leads to the next that waits, round the end, and nowhere once none does", () => {
    const all = [piece("HandedIn"), piece("Returned", 3, 3), piece("HandedIn"), piece("HandedIn", 4)];
    expect(nextWaiting(all, 0)).toBe(2);
    expect(nextWaiting(all, 2)).toBe(0);
    expect(goesOn(all, 3)).toBe(0);
    expect(goesOn([piece("HandedIn")], 0)).toBe(-1);
    expect(nextWaiting([piece("Returned")], 0)).toBe(-1);
    expect(nextWaiting([], 0)).toBe(-1);
  });
});

describe("the scale", () => {
  it("goes in whole steps and not past its ends", () => {
    expect(stepped(null, 1, 20)).toBe(0);
    expect(stepped(null, -1, 20)).toBe(20);
    expect(stepped(15.5, 1, 20)).toBe(16);
    expect(stepped(15.5, -1, 20)).toBe(15);
    expect(stepped(20, 1, 20)).toBe(20);
    expect(stepped(0, -1, 20)).toBe(0);
    expect(stepped(Number.NaN, 1, 20)).toBe(0);
  });

  it("piles up marks that are alike, drafts above those that are returned", () => {
    const dots = dotsOf(
      [piece("HandedIn", 10), piece("Returned", 10, 10), piece("Returned", 20, 20), piece("HandedIn")],
      20,
    );
    expect(dots).toEqual([
      { at: 0.5, up: 0, draft: false },
      { at: 1, up: 0, draft: false },
      { at: 0.5, up: 1, draft: true },
    ]);
  });

  it("lies close where there are very many points", () => {
    const dots = dotsOf([piece("Returned", 500, 500), piece("Returned", 503, 503)], 1000);
    expect(dots.map((d) => d.up)).toEqual([0, 1]);
  });
});
