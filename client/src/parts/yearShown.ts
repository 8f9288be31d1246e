import { useEffect, useSyncExternalStore } from "react";

// The year of the class on the screen; none where no class is.
let shown: number | null = null;
const watching = new Set<() => void>();

function show(year: number | null) {
  if (shown === year) return;
  shown = year;
  for (const tell of watching) tell();
}

/** Says of which school year the class on the screen is. */
export function useYearOf(year: number) {
  useEffect(() => {
    show(year);
    return () => show(null);
  }, [year]);
}

/** The school year of the class on the screen; null where no class is. */
export const useYearShown = () =>
  useSyncExternalStore(
    (tell) => {
      watching.add(tell);
      return () => void watching.delete(tell);
    },
    () => shown,
  );
