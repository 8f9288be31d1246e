import { useState } from "react";

/** Which columns of a table are hidden in this browser. */
export function useHidden(table: string) {
  const place = `columns of ${table}`;
  const [hidden, setHidden] = useState<ReadonlySet<string>>(() => read(place));
  return [
    hidden,
    (next: ReadonlySet<string>) => {
      setHidden(next);
      try {
        if (next.size === 0) localStorage.removeItem(place);
        else localStorage.setItem(place, JSON.stringify([...next]));
      } catch {
        // A browser that keeps nothing forgets it with the page.
      }
    },
  ] as const;
}

function read(place: string): ReadonlySet<string> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place) ?? "[]");
    return new Set(Array.isArray(kept) ? kept.filter((k): k is string => typeof k === "string") : []);
  } catch {
    return new Set();
  }
}
