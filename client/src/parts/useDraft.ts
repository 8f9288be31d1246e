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
  const [kept, setKept] = useState<{ key: string; value: T | null }>({ key: "", value: null });
  if (kept.key !== key) {
    const stored = sessionStorage.getItem(key);
    setKept({ key, value: stored ? (JSON.parse(stored) as T) : null });
  }
  useEffect(() => {
    if (kept.value === null) sessionStorage.removeItem(kept.key);
    else sessionStorage.setItem(kept.key, JSON.stringify(kept.value));
  }, [kept]);
  const mine = kept.key === key ? kept.value : null;
  return {
    draft: mine ?? initial,
    change: (next) => setKept({ key, value: next }),
    changed: mine !== null && JSON.stringify(mine) !== JSON.stringify(initial),
    drop: () => setKept({ key, value: null }),
  };
}
