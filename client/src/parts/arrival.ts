import { useEffect, useRef } from "react";
import { NavigationType, useLocation, useNavigationType } from "react-router";

// The place in which one is: a desk that is drawn anew there is no arrival.
let here = window.location.pathname;

const field = "input, textarea, select, [contenteditable], [role=dialog] *";

/** Who comes to another desk stands at its heading, at the top of the page, unless a field there waits for words. */
export function useArrival<E extends HTMLElement>() {
  const heading = useRef<E>(null);
  const { pathname } = useLocation();
  const way = useNavigationType();
  useEffect(() => {
    if (here === pathname) return;
    here = pathname;
    // Back goes to where one was, which the browser knows.
    if (way !== NavigationType.Pop) window.scrollTo(0, 0);
    if (document.activeElement?.matches(field)) return;
    (heading.current ?? document.getElementById("desk"))?.focus({ preventScroll: true });
  }, [pathname, way]);
  return heading;
}
