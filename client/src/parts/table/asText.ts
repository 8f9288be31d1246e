import { textOf, type Column } from "./columns";

/** The fields of a table: its heads, then its rows, as they are shown. */
export function fieldsOf<R>(columns: readonly Column<R>[], rows: readonly R[]): string[][] {
  const named = columns.filter((c) => c.head !== "");
  return [named.map((c) => c.head), ...rows.map((r, at) => named.map((c) => textOf(c, r, at)))];
}

// What a spreadsheet takes for the beginning of a formula: OWASP, "CSV Injection" (from memory); as the server writes it.
const forSpreadsheets = (field: string) => (/^'*[=+\-@\t\r]/.test(field) ? `'${field}` : field);

/** As a spreadsheet takes it from the clipboard: tabs between, a line a row. */
export const asTabs = (fields: string[][]) =>
  fields.map((row) => row.map((f) => forSpreadsheets(f).replace(/\s+/g, " ")).join("\t")).join("\n");

/** As RFC 4180 writes it: commas, CRLF, quotes where they are needed. */
export const asCsv = (fields: string[][]) =>
  fields
    .map((row) => row.map((f) => quoted(forSpreadsheets(f))).join(","))
    .map((line) => `${line}\r\n`)
    .join("");

const quoted = (f: string) => (/[",\r\n]|^\s|\s$/.test(f) ? `"${f.replaceAll('"', '""')}"` : f);
