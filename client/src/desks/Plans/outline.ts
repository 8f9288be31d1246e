import type { Schemas } from "../../api/client";

/** A line of an outline as it is written. */
export type Line = Schemas["OutlineLine"];

/** A new line, as the one beside it stands. */
export const newLine = (depth: number): Line => ({
  key: null,
  depth,
  namePattern: "",
  stands: "Once",
  rule: depth === 0 ? "ClassViews" : "AsAbove",
  entries: [],
});

/** Where the lines that stand inside line `at` end, exclusive. */
export function endOf(lines: Line[], at: number): number {
  let end = at + 1;
  while (end < lines.length && lines[end]!.depth > lines[at]!.depth) end += 1;
  return end;
}

const shift = (lines: Line[], from: number, to: number, by: number) =>
  lines.map((l, i) => (i >= from && i < to ? { ...l, depth: l.depth + by } : l));

/** One step deeper, with all that stands inside; only below a line that it can stand in. */
export function indent(lines: Line[], at: number): Line[] {
  if (at === 0 || lines[at]!.depth > lines[at - 1]!.depth) return lines;
  return shift(lines, at, endOf(lines, at), 1);
}

/** One step out, with all that stands inside; what came after it at its level stands inside it then. */
export function outdent(lines: Line[], at: number): Line[] {
  if (lines[at]!.depth === 0) return lines;
  return shift(lines, at, endOf(lines, at), -1);
}

/** Changes places with the neighbour of the same level, each with all that stands inside. Gives the lines and the new place. */
export function move(lines: Line[], at: number, down: boolean): [Line[], number] {
  const end = endOf(lines, at);
  if (down) {
    if (end >= lines.length || lines[end]!.depth !== lines[at]!.depth) return [lines, at];
    const next = endOf(lines, end);
    return [
      [...lines.slice(0, at), ...lines.slice(end, next), ...lines.slice(at, end), ...lines.slice(next)],
      at + next - end,
    ];
  }
  let before = at - 1;
  while (before >= 0 && lines[before]!.depth > lines[at]!.depth) before -= 1;
  if (before < 0 || lines[before]!.depth !== lines[at]!.depth) return [lines, at];
  return [
    [...lines.slice(0, before), ...lines.slice(at, end), ...lines.slice(before, at), ...lines.slice(end)],
    before,
  ];
}

/** Takes a line out with all that stands inside. */
export const remove = (lines: Line[], at: number): Line[] => [
  ...lines.slice(0, at),
  ...lines.slice(endOf(lines, at)),
];

/** Puts lines in after line `at` and what stands inside it, at its level. */
export function insertAfter(lines: Line[], at: number, added: Line[]): Line[] {
  const end = at < 0 ? 0 : endOf(lines, at);
  const depth = at < 0 ? 0 : lines[at]!.depth;
  return [
    ...lines.slice(0, end),
    ...added.map((l) => ({ ...l, depth: l.depth + depth })),
    ...lines.slice(end),
  ];
}
