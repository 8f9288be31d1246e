// @vitest-environment jsdom
import { expect, test } from "vitest";
import { noteWords } from "../Workspaces/openingWords";
import { weeksOf } from "./PublishByWeek";

test("school weeks stand in order and what is due in none comes last", () => {
  expect(weeksOf([{ week: 12 }, { week: null }, { week: 3 }, { week: 12 }])).toEqual([3, 12, null]);
  expect(weeksOf([])).toEqual([]);
});

test("what is said of a class before it is opened names how many", () => {
  const check = { students: 20, noSignIn: 20, blindSpots: 1, also: ["a", "b"] } as never;
  expect(noteWords("NoSignIn", check)).toBe("20 of 20 have no way to sign in yet");
  expect(noteWords("BlindSpots", check)).toBe("1 blind spot");
  expect(noteWords("AlsoElsewhere", check)).toBe("2 students are in another class of the course too");
});
