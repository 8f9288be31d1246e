import { isValidElement, type ReactNode } from "react";

/** What a row is worth in a column when rows are put in order. */
export type Worth = string | number | null | undefined;

/** A column of a table, and all it can say of a row. */
export interface Column<R> {
  /** Its name; empty where something is done with the row: it is not sorted, not copied and not hidden then. */
  head: string;
  cell: (row: R, at: number) => ReactNode;
  /** What it is worth where the words that are shown do not say it: rows are put in order by it. */
  by?: (row: R) => Worth;
  /** What it says where it leaves as text, where that is not what is shown; its worth, where that is all of it: a moment, a size. */
  says?: "worth" | ((row: R) => string | number | null | undefined);
  /** No order can be asked for by it. */
  unsorted?: boolean;
  /** It says which row it is; the first column with a name, if none says so. */
  main?: boolean;
  /** A second line under its name. */
  beneath?: string;
  align?: "right" | "center";
  /** In pixels, or a part of the width. */
  width?: number | string;
  look?: Look;
  /** Over the cell, when the pointer rests on it. */
  title?: (row: R) => string | undefined;
}

/** How a cell stands: `soft` in the soft ink, `line` on one line, `any` broken anywhere, `short` cut off at its edge. */
export type Look = "soft" | "line" | "any" | "soft any" | "soft line" | "soft short";

/** The words in what is drawn, as they stand one after the other; drawings and controls that only a hand uses say nothing. */
export function wordsIn(node: ReactNode): string {
  return said(node).replace(/\s+/g, " ").trim();
}

function said(node: ReactNode): string {
  if (node == null || typeof node === "boolean") return "";
  if (typeof node === "string" || typeof node === "number" || typeof node === "bigint") return String(node);
  if (Array.isArray(node)) return (node as ReactNode[]).map(said).join("");
  if (!isValidElement<{ children?: ReactNode; "aria-hidden"?: unknown }>(node)) return "";
  if (node.props["aria-hidden"]) return "";
  const inner = said(node.props.children);
  // What stands on a line of its own is a word of its own.
  return typeof node.type === "string" && inline.has(node.type) ? inner : ` ${inner} `;
}

const inline = new Set(["a", "b", "em", "i", "s", "span", "strong"]);

/** What a column says of a row as text. */
export function textOf<R>(column: Column<R>, row: R, at: number): string {
  const { says, by } = column;
  if (says === undefined) return wordsIn(column.cell(row, at));
  return says === "worth" ? plain(by?.(row)) : String(says(row) ?? "");
}

// A moment of the contract as a spreadsheet reads it, in the time of this browser.
function plain(worth: Worth): string {
  if (worth == null) return "";
  if (typeof worth === "number" || !/^\d{4}-\d\d-\d\dT/.test(worth)) return String(worth);
  const at = new Date(worth);
  const two = (n: number) => String(n).padStart(2, "0");
  const day = `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
  return `${day} ${two(at.getHours())}:${two(at.getMinutes())}`;
}
