// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import "../testing";
import { useRun } from "./useRun";

/** A stream of events of which the test is the server. */
class Stream {
  static readonly CLOSED = 2;
  static all: Stream[] = [];
  onopen?: () => void;
  onmessage?: (e: { data: string }) => void;
  onerror?: () => void;
  readyState = 1;
  constructor(readonly url: string) {
    Stream.all.push(this);
  }
  close() {
    this.readyState = Stream.CLOSED;
  }
}

type View = { state: "Working" | "Done"; done: number };
let served: View;

function Page() {
  const run = useRun<View>({
    key: ["run"],
    read: () => Promise.resolve(served),
    stateOf: (v) => v.state,
    events: "/events",
  });
  return (
    <p role="status">{`${run.data?.done ?? "-"} ${run.going ? "going" : "over"} ${run.away ? "away" : "there"}`}</p>
  );
}

const said = () => screen.getByRole("status").textContent;
const last = () => Stream.all[Stream.all.length - 1]!;

describe("a run that is looked at while the server is away", () => {
  beforeEach(() => {
    Stream.all = [];
    served = { state: "Working", done: 3 };
    vi.stubGlobal("EventSource", Stream);
    render(
      <QueryClientProvider client={new QueryClient()}>
        <Page />
      </QueryClientProvider>,
    );
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("says so, keeps what it showed, and goes on with the next event", async () => {
    await waitFor(() => expect(said()).toBe("3 going there"));
    act(() => last().onerror?.());
    expect(said()).toBe("3 going away");
    act(() => last().onmessage?.({ data: JSON.stringify({ state: "Working", done: 4 }) }));
    await waitFor(() => expect(said()).toBe("4 going there"));
    expect(Stream.all).toHaveLength(1);
  });

  it("begins the stream anew where it was refused, and ends with the run", async () => {
    await waitFor(() => expect(said()).toBe("3 going there"));
    vi.useFakeTimers();
    last().close();
    act(() => last().onerror?.());
    expect(said()).toBe("3 going away");
    expect(Stream.all).toHaveLength(1);
    await act(() => vi.advanceTimersByTimeAsync(2000));
    vi.useRealTimers();
    await waitFor(() => expect(Stream.all).toHaveLength(2));
    act(() => last().onmessage?.({ data: JSON.stringify({ state: "Done", done: 9 }) }));
    await waitFor(() => expect(said()).toBe("9 over there"));
  });
});

describe("a run that is asked again and again", () => {
  it("says that the server is away, and goes on by itself", async () => {
    let gone = false;
    let done = 1;
    function Asked() {
      const run = useRun<View>({
        key: ["asked"],
        read: () =>
          gone ? Promise.reject(new TypeError("no answer")) : Promise.resolve({ state: "Working", done }),
        stateOf: (v) => v.state,
      });
      return <p role="status">{`${run.data?.done ?? "-"} ${run.away ? "away" : "there"}`}</p>;
    }
    const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    render(
      <QueryClientProvider client={queries}>
        <Asked />
      </QueryClientProvider>,
    );
    await waitFor(() => expect(said()).toBe("1 there"));
    gone = true;
    await waitFor(() => expect(said()).toBe("1 away"), { timeout: 60_000 });
    gone = false;
    done = 2;
    await waitFor(() => expect(said()).toBe("2 there"), { timeout: 60_000 });
  });
});
