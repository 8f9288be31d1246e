// @vitest-environment jsdom
import { waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import "../testing";
import { gatedHistory } from "./history";

let holds = false;
let seen: string[] = [];

function begin() {
  holds = false;
  seen = [];
  const gate = gatedHistory((from, to) => holds && from.pathname !== to.pathname && to.state !== "done");
  const end = gate.history.listen((u) => seen.push(`${u.action} ${u.location.pathname}${u.location.search}`));
  return { gate, end };
}

const at = (path: string) => waitFor(() => expect(window.location.pathname).toBe(path));
// The browser tells of its own steps later than they were asked for.
const back = (by = -1) =>
  new Promise<void>((done) => {
    window.addEventListener("popstate", () => done(), { once: true });
    window.history.go(by);
  });

describe("the gate of the history", () => {
  beforeEach(() => window.history.replaceState(null, "", "/"));

  it("lets every step pass where nothing is typed", async () => {
    const { gate, end } = begin();
    gate.history.push("/a");
    gate.history.replace("/b?x=1");
    await back();

    expect(seen).toEqual(["PUSH /a", "REPLACE /b?x=1", "POP /"]);
    end();
  });

  it("holds a link until somebody says go, and drops it when they stay", () => {
    const { gate, end } = begin();
    holds = true;

    gate.history.push("/a");
    expect([window.location.pathname, gate.waits(), seen]).toEqual(["/", true, []]);
    gate.stay();
    expect([window.location.pathname, gate.waits()]).toEqual(["/", false]);

    gate.history.push("/a");
    gate.go();
    expect([window.location.pathname, gate.waits(), seen]).toEqual(["/a", false, ["PUSH /a"]]);
    end();
  });

  it("takes the browser's Back back, tells nobody, and goes back when somebody says go", async () => {
    const { gate, end } = begin();
    gate.history.push("/a");
    gate.history.push("/b");
    holds = true;
    seen = [];

    await back(-2);
    await at("/b");
    expect([gate.waits(), seen]).toEqual([true, []]);

    gate.go();
    await at("/");
    await waitFor(() => expect(seen).toEqual(["POP /"]));
    expect(gate.waits()).toBe(false);
    end();
  });

  it("after staying, the next Back is asked about anew and the order of places is as it was", async () => {
    const { gate, end } = begin();
    gate.history.push("/a");
    gate.history.push("/b");
    holds = true;
    await back();
    await at("/b");
    gate.stay();

    holds = false;
    seen = [];
    await back();
    await at("/a");
    await back();
    await at("/");
    expect(seen).toEqual(["POP /a", "POP /"]);
    end();
  });

  it("tells watchers, and asks nothing of what is saved or stays on the screen", () => {
    const { gate, end } = begin();
    const told = vi.fn();
    const unwatch = gate.watch(told);
    holds = true;

    gate.history.push("/?tab=2");
    gate.history.push("/saved", "done");
    expect([told.mock.calls.length, seen]).toEqual([0, ["PUSH /?tab=2", "PUSH /saved"]]);
    gate.history.push("/c");
    gate.stay();
    expect(told).toHaveBeenCalledTimes(2);
    unwatch();
    end();
  });
});
