import { describe, expect, it } from "vitest";
import type { Schemas } from "../../../api/client";
import { inThreads } from "./talking";

const m = (id: number, answers: number | null = null) => ({ id, answers }) as Schemas["TalkMessage"];
const shape = (messages: Schemas["TalkMessage"][]) =>
  inThreads(messages).map((t) => [t.message.id, t.answers.map((a) => a.id), t.answersEarlier]);

describe("messages in threads", () => {
  it("stand in their order, answers under what they answer", () => {
    expect(shape([m(1), m(2), m(3, 1), m(4), m(5, 2), m(6, 1)])).toEqual([
      [1, [3, 6], false],
      [2, [5], false],
      [4, [], false],
    ]);
  });
  it("keep an answer to an answer in the same thread", () => {
    expect(shape([m(1), m(2, 1), m(3, 2)])).toEqual([[1, [2, 3], false]]);
  });
  it("show an answer to one that is not among them by itself", () => {
    expect(shape([m(7, 1), m(8, 7)])).toEqual([[7, [8], true]]);
  });
  it("lose and double nothing", () => {
    const all = Array.from({ length: 200 }, (_, n) =>
      m(n + 1, n % 3 === 0 ? null : Math.max(1, n - (n % 7))),
    );
    const ids = inThreads(all).flatMap((t) => [t.message.id, ...t.answers.map((a) => a.id)]);
    expect([...ids].sort((a, b) => a - b)).toEqual(all.map((x) => x.id));
  });
});
