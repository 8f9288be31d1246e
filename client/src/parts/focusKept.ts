const focusable =
  "a[href], button:not([disabled]), input:not([disabled]), select:not([disabled]), textarea:not([disabled]), [tabindex]";

const among = (place: Element) =>
  [...place.querySelectorAll<HTMLElement>(focusable)].filter(
    (e) => !e.closest("[inert], [aria-hidden=true]"),
  );

/**
 * Keeps the focus on the page. What had it is gone: it goes to what stands in its place now, so that a list is worked on row by
 * row. What had it was shut while something runs: it has it again when it is open.
 * @returns Ends it.
 */
export function keepFocus(root: HTMLElement): () => void {
  let last: HTMLElement | null = null;
  // Where it stood: each place around it, from the nearest, and the how many-th it was there.
  let stood: { place: Element; at: number }[] = [];
  let shut = false;
  const came = (e: Event) => {
    if (!(e.target instanceof HTMLElement) || !root.contains(e.target)) return;
    last = e.target;
    shut = false;
    stood = [];
    for (let place = last.parentElement; place && root.contains(place); place = place.parentElement)
      if (place.matches("tr, li, tbody, ul, ol, [role=group], [role=tree], main"))
        stood.push({ place, at: among(place).indexOf(last) });
  };
  // Who clicks beside everything wants nothing to have it.
  const clicked = (e: Event) => {
    if (!(e.target as Element).closest(focusable)) last = null;
  };
  const watch = new MutationObserver(() => {
    if (!last) return;
    // A browser takes the focus from what is shut only when it draws next.
    if (last.matches(":disabled")) shut = true;
    if (document.activeElement !== document.body) return;
    if (last.isConnected) {
      if (shut && !last.matches(":disabled")) last.focus({ preventScroll: true });
      return;
    }
    for (const { place, at } of stood) {
      if (!place.isConnected) continue;
      // Of a whole desk it is not the how many-th that is meant, but where one begins.
      const heading = place.matches("main") ? place.querySelector<HTMLElement>("h1[tabindex]") : null;
      if (heading) return heading.focus({ preventScroll: true });
      const now = among(place);
      const next = now[Math.min(at, now.length - 1)];
      if (!next) continue;
      next.focus({ preventScroll: true });
      return;
    }
  });
  document.addEventListener("focusin", came);
  document.addEventListener("pointerdown", clicked);
  watch.observe(root, { childList: true, subtree: true, attributes: true, attributeFilter: ["disabled"] });
  return () => {
    watch.disconnect();
    document.removeEventListener("focusin", came);
    document.removeEventListener("pointerdown", clicked);
  };
}
