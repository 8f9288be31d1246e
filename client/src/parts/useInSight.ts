import { useEffect, useRef } from "react";

/** On a small screen, where what is chosen stands below the list it is chosen in, it is brought into sight. */
export function useInSight<E extends HTMLElement>(chosen: unknown) {
  const place = useRef<E>(null);
  const before = useRef(chosen);
  useEffect(() => {
    const first = before.current === undefined;
    const same = before.current === chosen;
    before.current = chosen;
    if (first || same || chosen === undefined) return;
    if (window.matchMedia("(max-width: 56.2rem)").matches)
      place.current?.scrollIntoView?.({ block: "start" });
  }, [chosen]);
  return place;
}
