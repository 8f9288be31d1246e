import { parsePath, UNSAFE_createBrowserHistory as createBrowserHistory } from "react-router";

type Inner = ReturnType<typeof createBrowserHistory>;
type To = Parameters<Inner["push"]>[0];

/** Where somebody is about to go. */
export interface Destination {
  pathname: string;
  state: unknown;
}

/** The browser's history with a gate: a step that `asks` waits until it is let go or dropped. */
export function gatedHistory(asks: (from: Destination, to: Destination) => boolean) {
  const inner = createBrowserHistory({ v5Compat: true });
  let here: Destination = inner.location;
  let waiting: (() => void) | null = null;
  // The browser has taken a step of its own: it is taken back, and nobody is told of either.
  let turning = false;
  let letGo = false;
  const watching = new Set<() => void>();
  const wait = (step: (() => void) | null) => {
    waiting = step;
    for (const tell of watching) tell();
  };
  const place = (to: To) => (typeof to === "string" ? parsePath(to) : to).pathname ?? here.pathname;
  const step = (to: To, state: unknown, go: () => void) => {
    if (asks(here, { pathname: place(to), state })) wait(go);
    else go();
  };
  const history: Inner = {
    ...inner,
    get action() {
      return inner.action;
    },
    get location() {
      return inner.location;
    },
    push: (to, state) => step(to, state, () => inner.push(to, state)),
    replace: (to, state) => step(to, state, () => inner.replace(to, state)),
    listen: (tell) =>
      inner.listen((u) => {
        if (turning) {
          turning = false;
          return;
        }
        const by = u.delta;
        // Back or Forward: the address has changed already.
        if (u.action === ("POP" as typeof u.action) && by && !letGo && asks(here, u.location)) {
          turning = true;
          inner.go(-by);
          wait(() => {
            letGo = true;
            inner.go(by);
          });
          return;
        }
        letGo = false;
        here = u.location;
        tell(u);
      }),
  };
  return {
    history,
    watch: (tell: () => void) => {
      watching.add(tell);
      return () => void watching.delete(tell);
    },
    waits: () => waiting !== null,
    /** Takes the step that waits. */
    go: () => {
      const step = waiting;
      wait(null);
      step?.();
    },
    /** Drops it. */
    stay: () => wait(null),
  };
}
