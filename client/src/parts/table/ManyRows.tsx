import TableBody from "@mui/material/TableBody";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useLayoutEffect, useRef, useState, useSyncExternalStore, type ReactNode } from "react";
import { flushSync } from "react-dom";

/** Rows of which only those near the window are drawn; on paper, and in a dialog that scrolls by itself, all. */
export function ManyRows(props: {
  rows: readonly unknown[];
  draw: (row: unknown, at: number) => ReactNode;
  before?: ReactNode;
  after?: ReactNode;
}) {
  const { rows } = props;
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState<number | "unknown" | "none">("unknown");
  const whole = usePrinting();
  useLayoutEffect(() => {
    const el = body.current;
    if (!el) return;
    setTop(el.closest("[role=dialog]") ? "none" : el.getBoundingClientRect().top + window.scrollY);
  }, [rows]);
  const margin = typeof top === "number" ? top : 0;
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => 37,
    overscan: 30,
    scrollMargin: margin,
  });
  // Rows are as high as what stands in them; each is looked at when it comes, and watched from then on.
  const measured = useRef(new WeakSet<Element>());
  useLayoutEffect(() => {
    for (const row of body.current?.querySelectorAll<HTMLElement>("tr[data-index]") ?? [])
      if (!measured.current.has(row) && row.offsetHeight > 0) {
        measured.current.add(row);
        virtual.measureElement(row);
      }
  });
  if (typeof top !== "number" || whole)
    return (
      <TableBody ref={body} role="rowgroup">
        {props.before}
        {(top === "unknown" && !whole ? rows.slice(0, 60) : rows).map(props.draw)}
        {props.after}
      </TableBody>
    );
  const items = virtual.getVirtualItems();
  const above = items[0] ? items[0].start - margin : 0;
  const below = items.length > 0 ? virtual.getTotalSize() - (items[items.length - 1]!.end - margin) : 0;
  return (
    <TableBody ref={body} role="rowgroup">
      {props.before}
      {above > 0 && <tr style={{ height: above }} aria-hidden="true" />}
      {items.map((v) => props.draw(rows[v.index], v.index))}
      {below > 0 && <tr style={{ height: below }} aria-hidden="true" />}
      {props.after}
    </TableBody>
  );
}

// Kept from the moment this file is there, so that a table which comes while the page is being printed knows too.
let announced = false;
window.addEventListener("beforeprint", () => (announced = true));
window.addEventListener("afterprint", () => (announced = false));
const paper = typeof window.matchMedia === "function" ? window.matchMedia("print") : null;
const printing = () => announced || (paper?.matches ?? false);

/** Whether the page is being put on paper: then all of it is drawn. */
function usePrinting() {
  return useSyncExternalStore((tell) => {
    const on = () => flushSync(tell);
    window.addEventListener("beforeprint", on);
    window.addEventListener("afterprint", on);
    paper?.addEventListener("change", on);
    return () => {
      window.removeEventListener("beforeprint", on);
      window.removeEventListener("afterprint", on);
      paper?.removeEventListener("change", on);
    };
  }, printing);
}
