import { describe, expect, it } from "vitest";
import { standing } from "./standing";
import { api, isLost, newKey, problemOf, ProblemError, take } from "./client";

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

  it("is not known where the answer was lost: then the act keeps its key", () => {
    expect([0, 502, 503, 504].every(isLost)).toBe(true);
    expect([200, 401, 409, 422, 500, 507].some(isLost)).toBe(false);
  });

  it("has a key on whatever changes something, and on nothing that only reads", async () => {
    const sent: Request[] = [];
    const fetch = (request: Request) => {
      sent.push(request);
      return Promise.resolve(new Response(null, { status: 204 }));
    };
    const baseUrl = "http://127.0.0.1/";
    await api.GET("/api/me", { baseUrl, fetch });
    await api.DELETE("/api/classes/{classId}/items/{itemId}", {
      baseUrl,
      fetch,
      params: { path: { classId: 1, itemId: 2 } },
    });
    await api.POST("/api/sign-out", { baseUrl, fetch, headers: { "Idempotency-Key": "mine" } });
    expect(sent.map((r) => r.headers.get("Idempotency-Key")?.length ?? 0)).toEqual([0, 32, 4]);
  });

  it("waits where the session ended, and sends the same once more when it is renewed", async () => {
    const sent: Request[] = [];
    const fetch = (request: Request) => {
      sent.push(request);
      return Promise.resolve(
        new Response(sent.length === 1 ? '{"code":"signed-out"}' : '{"id":9}', {
          status: sent.length === 1 ? 401 : 200,
          headers: { "Content-Type": "application/json" },
        }),
      );
    };
    standing.person = 7;
    let done = false;
    const act = take(
      api.POST("/api/classes/{classId}/notices", {
        baseUrl: "http://127.0.0.1/",
        fetch,
        params: { path: { classId: 1 } },
        body: { text: "Bring an apron." },
      }),
    ).then((d) => {
      done = true;
      return d;
    });
    while (sent.length === 0) await Promise.resolve();
    await new Promise((go) => setTimeout(go));
    expect(done).toBe(false);
    standing.renewed();
    expect(await act).toEqual({ id: 9 });
    standing.person = null;
    expect(await Promise.all(sent.map((r) => r.text().catch(() => "read already")))).toContain(
      '{"text":"Bring an apron."}',
    );
    expect(new Set(sent.map((r) => r.headers.get("Idempotency-Key"))).size).toBe(1);
  });

  it("is a door that stays shut to who is not signed in", async () => {
    const fetch = () => Promise.resolve(new Response('{"code":"signed-out"}', { status: 401 }));
    const thrown = await take(api.GET("/api/me", { baseUrl: "http://127.0.0.1/", fetch })).catch(
      (e: unknown) => e,
    );
    expect(thrown).toMatchObject({ status: 401, code: "signed-out" });
  });

  it("has a key for each intention that no other has", () => {
    const keys = new Set(Array.from({ length: 1000 }, newKey));
    expect(keys.size).toBe(1000);
    expect([...keys].every((k) => /^[0-9a-f]{32}$/.test(k))).toBe(true);
  });
});
