import { lazy, Suspense, useState, type ComponentType } from "react";

/* eslint-disable @typescript-eslint/no-explicit-any -- what is loaded takes what it is given */
const loads: (() => Promise<unknown>)[] = [];

type PropsOf<C> = C extends ComponentType<infer P> ? P : never;

/** Code that comes when it is wanted, or some time before. */
export function loaded<M, K extends keyof M>(load: () => Promise<M>, name: K): ComponentType<PropsOf<M[K]>> {
  loads.push(load);
  return lazy(async () => ({ default: (await load())[name] as ComponentType<any> }));
}

type Any = ComponentType<any>;

/** A dialog, a menu, or whatever opens over a screen: its code comes when it is opened. */
export function later<M, K extends keyof M>(load: () => Promise<M>, name: K): ComponentType<PropsOf<M[K]>> {
  // Once it is there it is drawn at once: no frame is empty, and no key is lost.
  let there: Any | null = null;
  const Loaded = loaded(async () => {
    const all = await load();
    there = all[name] as Any;
    return all;
  }, name) as Any;
  return function Later(props: PropsOf<M[K]>) {
    // Said once for as long as it is open: drawn in another way in between, it would lose what is typed in it.
    const [There] = useState<Any | null>(() => there);
    if (There) return <There {...(props as any)} />;
    return (
      <Suspense fallback={null}>
        <Loaded {...(props as any)} />
      </Suspense>
    );
  };
}

/** Fetches all that was not fetched yet, one after the other, once a screen stands: nobody waits for it then, nor does it fail while the server is away. */
export function fetchSoon() {
  const saving = (navigator as { connection?: { saveData?: boolean } }).connection?.saveData;
  if (saving) return;
  const soon = (go: () => void) =>
    "requestIdleCallback" in window ? window.requestIdleCallback(go) : setTimeout(go, 1000);
  const next = (i: number) => {
    const load = loads[i];
    // What does not come now comes when it is opened.
    if (load)
      soon(
        () =>
          void load().then(
            () => next(i + 1),
            () => undefined,
          ),
      );
  };
  next(0);
}
