import { describe, expect, it } from "vitest";
import { newKey, problemOf, ProblemError, take } from "./client";

const answer = (status: number, over: object) =>
  Promise.resolve({ response: new Response(null, { status }), ...over });

describe("what the server explained", () => {
  it("is thrown with its code, its words and its field", async () => {
    const error = { title: "Taken.", detail: "Choose another.", code: "name-taken", field: "name" };
    const thrown = await take(answer(409, { error })).catch((e: unknown) => e);
    expect(thrown).toBeInstanceOf(ProblemError);
    expect(thrown).toMatchObject({
      status: 409,
      code: "name-taken",
      what: "Taken.",
      mend: "Choose another.",
      field: "name",
    });
  });

  it("is said in plain words when nothing was explained", () => {
    expect(problemOf(500, "<html>")).toMatchObject({ code: "fault", status: 500 });
    expect(problemOf(500, "<html>").what).not.toContain("html");
  });

  it("is that the server can't be reached, when it can't", async () => {
    const thrown = await take(Promise.reject<never>(new TypeError("fetch failed"))).catch((e: unknown) => e);
    expect(thrown).toMatchObject({ status: 0, code: "offline" });
  });

  it("is the data otherwise", async () => {
    expect(await take(answer(200, { data: { id: 7 } }))).toEqual({ id: 7 });
  });

  it("has a key for each intention that no other has", () => {
    const keys = new Set(Array.from({ length: 1000 }, newKey));
    expect(keys.size).toBe(1000);
    expect([...keys].every((k) => /^[0-9a-f]{32}$/.test(k))).toBe(true);
  });
});
