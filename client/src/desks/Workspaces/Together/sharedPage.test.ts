// @vitest-environment jsdom
import { readFileSync } from "node:fs";
import { rolldown } from "rolldown";
import { beforeEach, describe, expect, it, vi } from "vitest";
import * as Y from "yjs";
import { standing } from "../../../api/standing";

interface Way {
  there: boolean;
  refuses: object | null;
  sent: string[];
  /** What opening the page gives. */
  answer: object | null;
}

/** Stands for the way to the server: there or not, and what was sent. */
const way = vi.hoisted((): Way => ({ there: true, refuses: null, sent: [], answer: null }));

vi.mock("@microsoft/signalr", () => {
  class Hub {
    state = "Connected";
    on() {}
    onreconnecting() {}
    onreconnected() {}
    onclose() {}
    stop = () => Promise.resolve();
    start = () => (way.there ? Promise.resolve() : Promise.reject(new Error("away")));
    invoke(what: string, ...given: unknown[]) {
      if (what === "Open") return Promise.resolve({ answer: way.answer, refusal: null });
      if (way.refuses) return Promise.resolve({ answer: null, refusal: way.refuses });
      way.sent.push(String(given[2]));
      return Promise.resolve({ answer: true, refusal: null });
    }
  }
  class HubConnectionBuilder {
    withUrl = () => this;
    withAutomaticReconnect = () => this;
    withServerTimeout = () => this;
    withKeepAliveInterval = () => this;
    configureLogging = () => this;
    build = () => new Hub();
  }
  return { HubConnectionBuilder, HubConnectionState: { Connected: "Connected" }, LogLevel: { None: 6 } };
});

const { keptUnder, SharedPage } = await import("./sharedPage");

const base64 = (b: Uint8Array) => btoa(String.fromCharCode(...b));
const kept = () => sessionStorage.getItem(keptUnder(1, 2));

/** A page at the server with this text. */
function serverWith(text: string) {
  const doc = new Y.Doc();
  doc.getText("text").insert(0, text);
  way.answer = {
    title: "Tides",
    update: base64(Y.encodeStateAsUpdate(doc)),
    vector: base64(Y.encodeStateVector(doc)),
    mayWrite: true,
  };
  return {
    take: () =>
      way.sent.splice(0).forEach((u) =>
        Y.applyUpdate(
          doc,
          Uint8Array.from(atob(u), (c) => c.charCodeAt(0)),
        ),
      ),
    read: () => JSON.stringify(doc.getText("text")),
  };
}

beforeEach(() => {
  sessionStorage.clear();
  Object.assign(way, { there: true, refuses: null, sent: [] });
  standing.person = 7;
});

describe("a page that several write", () => {
  it("sends what is typed, and keeps it here until it is kept there", async () => {
    const server = serverWith("High.");
    const page = new SharedPage(1, 2);
    await vi.waitFor(() => expect(page.standing().joined).toBe(true));
    expect(page.words()).toBe("High.");
    page.text.insert(5, " Low.");
    expect(page.standing().kept).toBe(false);
    await vi.waitFor(() => expect(page.standing().kept).toBe(true));
    server.take();
    expect(server.read()).toBe('"High. Low."');
    expect(kept()).toBeNull();
    page.end();
  });

  it("typed while the server is away, shut and opened again, it is all there and goes", async () => {
    const server = serverWith("High.");
    const first = new SharedPage(1, 2);
    await vi.waitFor(() => expect(first.standing().joined).toBe(true));
    first.end();
    way.there = false;
    const away = new SharedPage(1, 2);
    away.text.insert(0, "Alone. ");
    away.end();
    expect(kept()).not.toBeNull();
    way.there = true;
    const back = new SharedPage(1, 2);
    expect(back.words()).toContain("Alone. ");
    await vi.waitFor(() => expect(back.standing().kept && back.standing().joined).toBe(true));
    await vi.waitFor(() => {
      server.take();
      expect(server.read()).toContain("Alone. ");
    });
    expect(server.read()).toContain("High.");
    expect(kept()).toBeNull();
    back.end();
  });

  it("refused, it says why, and what was typed stays here", async () => {
    serverWith("High.");
    const page = new SharedPage(1, 2);
    await vi.waitFor(() => expect(page.standing().joined).toBe(true));
    way.refuses = { code: "item-not-yours", what: "Not yours.", mend: "Ask." };
    page.text.insert(0, "Mine. ");
    await vi.waitFor(() => expect(page.standing().shut?.code).toBe("item-not-yours"));
    expect(page.standing()).toMatchObject({ kept: false, mayWrite: false });
    page.end();
    expect(kept()).not.toBeNull();
    // Opened again by who may only read now, it is still here and says so.
    way.answer = { ...way.answer, mayWrite: false };
    const again = new SharedPage(1, 2);
    await vi.waitFor(() => expect(again.standing().opened).toBe(true));
    expect(again.words()).toContain("Mine. ");
    expect(again.standing()).toMatchObject({ kept: false, mayWrite: false });
    again.end();
    expect(kept()).not.toBeNull();
  });

  it("is read by the server with the same Yjs: its bundle is made from the one here", async () => {
    const bundle = await rolldown({ input: "server/sharedText.js", platform: "browser", logLevel: "silent" });
    const { output } = await bundle.generate({ format: "iife", minify: true });
    expect(readFileSync("../src/SpringLoft.Formats/Together/yjs.js", "utf8")).toBe(output[0].code);
  });
});
