import { useSyncExternalStore } from "react";

/** How things stand between this screen and the server. */
interface Standing {
  /** The server does not answer. */
  away: boolean;
  /** The session ended while somebody was at work; what they have on the screen is still there. */
  ended: boolean;
  /** The second step is asked once more before an act goes on. */
  stepAgain: boolean;
  /** Recovery codes that were just made: whatever else changes, they stay on the screen until they are kept. */
  codes: readonly string[] | null;
}

let now: Standing = { away: false, ended: false, stepAgain: false, codes: null };
let waiting: (() => void)[] = [];
let waitingForStep: ((shown: boolean) => void)[] = [];
const listeners = new Set<() => void>();

function set(next: Partial<Standing>) {
  if (Object.entries(next).every(([k, v]) => now[k as keyof Standing] === v)) return;
  now = { ...now, ...next };
  for (const l of listeners) l();
}

/** Told by whatever talks to the server, and asked by the bar and the door that stand over the screen. */
export const standing = {
  /** Who is at work here; null before anybody signed in and after they signed out. Only theirs is a session that can end. */
  person: null as number | null,
  /** Somebody goes for good: what is typed is no reason to ask any more. */
  leaving: false,
  serverAnswered: () => set({ away: false }),
  serverAway: () => set({ away: true }),
  /** Waits until the session is renewed. */
  renewal: () => {
    set({ ended: true });
    return new Promise<void>((go) => waiting.push(go));
  },
  renewed: () => {
    set({ ended: false });
    const all = waiting;
    waiting = [];
    for (const go of all) go();
  },
};

/** Waits until the second step was shown once more; false if somebody would rather not. */
export function stepAgain() {
  set({ stepAgain: true });
  return new Promise<boolean>((go) => waitingForStep.push(go));
}

/** It was shown, or not: what waited goes on. */
export function steppedAgain(shown: boolean) {
  set({ stepAgain: false });
  const all = waitingForStep;
  waitingForStep = [];
  for (const go of all) go(shown);
}

/** Shows recovery codes, until nothing is passed. */
export const showCodes = (codes: readonly string[] | null) => set({ codes });

/**
 * The door, with nothing of who was here before: no screen, no answer of the server's, no draft.
 * @param next Where signing out goes on before that, at a provider.
 */
export function beginAnew(next?: string | null) {
  standing.person = null;
  standing.leaving = true;
  sessionStorage.clear();
  window.location.replace(next ?? "/");
}

/** How things stand, anew whenever they change. */
export const useStanding = () =>
  useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => now,
  );
