import { useEffect, useState } from "react";
import { standing } from "../api/standing";

/**
 * What is being written and not yet saved; it outlives a reload of the page. The key says what it is a draft of, with
 * its version, so that a draft of something that has changed since is not taken up.
 */
export function useDraft<T>(
  of: string,
  initial: T,
): { draft: T; change: (next: T) => void; changed: boolean; drop: () => void } {
  // What one person wrote is not for the next at the same screen.
  const key = `${standing.person}/${of}`;
  const [kept, setKept] = useState(() => ({ key, value: read<T>(key) }));
  if (kept.key !== key) setKept({ key, value: read<T>(key) });
  useEffect(() => {
    if (kept.value === null) sessionStorage.removeItem(kept.key);
    else sessionStorage.setItem(kept.key, JSON.stringify(kept.value));
  }, [kept]);
  const mine = kept.key === key ? kept.value : null;
  return {
    draft: mine ?? initial,
    change: (next) => setKept({ key, value: next }),
    changed: mine !== null && JSON.stringify(mine) !== JSON.stringify(initial),
    drop: () => {
      // At once: who saves is often led elsewhere before anything is drawn again.
      sessionStorage.removeItem(key);
      setKept({ key, value: null });
    },
  };
}

/** Is something kept that was begun and not saved? */
export const isKept = (of: string) => sessionStorage.getItem(`${standing.person}/${of}`) !== null;

function read<T>(key: string): T | null {
  const stored = sessionStorage.getItem(key);
  return stored ? (JSON.parse(stored) as T) : null;
}
