import type { KeyboardEvent } from "react";
import type { Schemas } from "../../../api/client";
import { keyOf, standingOf, type Standing } from "./marking";

const says: Record<Standing, string> = {
  none: "nothing handed in",
  begun: "begun, with the student",
  waits: "waits for a mark",
  draft: "draft mark",
  back: "returned",
};

/** All pieces in a line, one tick each: tall where one waits, filled where it went back. */
export function PieceLine(props: {
  stretches: readonly Schemas["MarkingStretch"][];
  chosen: string;
  /** What a tick is of: of one student the assignments, else the students. */
  byStudent: boolean;
  onChoose: (key: string) => void;
}) {
  // Arrows go along the line; Tab goes past it.
  const onKeys = (e: KeyboardEvent<HTMLElement>) => {
    const to = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
    const all = [...e.currentTarget.querySelectorAll<HTMLButtonElement>("button")];
    const at = all.indexOf(e.target as HTMLButtonElement);
    if (!to || at < 0) return;
    e.preventDefault();
    e.stopPropagation();
    all[at + to]?.focus();
    all[at + to]?.click();
  };
  return (
    <div className="piece-line" role="toolbar" tabIndex={-1} aria-label="Pieces" onKeyDown={onKeys}>
      {props.stretches.map((s) => (
        <div
          key={s.class}
          className="piece-stretch"
          role="group"
          aria-label={s.letter ? `Section ${s.letter}, ${s.name}` : s.name}
        >
          {s.letter && <span className="piece-letter">{s.letter}</span>}
          {s.pieces.map((p) => {
            const key = keyOf(p);
            const standing = standingOf(p);
            const chosen = key === props.chosen;
            return (
              <button
                key={key}
                type="button"
                data-standing={standing}
                aria-current={chosen}
                tabIndex={chosen ? 0 : -1}
                aria-label={`${props.byStudent ? p.title : p.sortName}: ${says[standing]}${standing === "draft" ? ` ${p.score}` : standing === "back" && p.counts != null ? `, ${p.counts}` : ""}`}
                title={props.byStudent ? p.title : p.sortName}
                onClick={() => props.onChoose(key)}
              >
                {standing === "waits" ? "◐" : standing === "draft" ? "◇" : standing === "back" ? "●" : ""}
              </button>
            );
          })}
        </div>
      ))}
    </div>
  );
}
