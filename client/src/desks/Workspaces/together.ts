import type { Schemas } from "../../api/client";

/** What is to stand where two changed the same place. */
export type Choice = "mine" | "theirs" | "both";

/** The text that comes of the stretches and what was chosen; null while something is not decided. */
export function together(
  chunks: readonly Schemas["MergeChunk"][],
  choices: Readonly<Record<number, Choice>>,
): string | null {
  const lines: string[] = [];
  for (const [i, c] of chunks.entries()) {
    if (c.kind !== "Conflict") lines.push(...(c.kind === "Theirs" ? c.theirs : c.mine));
    else {
      const choice = choices[i];
      if (!choice) return null;
      if (choice !== "theirs") lines.push(...c.mine);
      // A paragraph each: without an empty line between them they would read as one.
      if (choice === "both" && c.mine.at(-1)?.trim() && c.theirs[0]?.trim()) lines.push("");
      if (choice !== "mine") lines.push(...c.theirs);
    }
  }
  return lines.join("\n");
}
