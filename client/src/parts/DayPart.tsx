import type { ReactNode } from "react";
import "./day.css";

/** One heading of a day and its list: each line says what, of which class, and by when. */
export function DayPart({ name, figure, children }: { name: string; figure: number; children: ReactNode }) {
  return (
    <section className="day-part" aria-label={name}>
      <h2>
        {name} <span>{figure}</span>
      </h2>
      <ul>{children}</ul>
    </section>
  );
}
