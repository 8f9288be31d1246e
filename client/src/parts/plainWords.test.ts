import { expect, it } from "vitest";
import { plainWords } from "./plainWords";

it.each([
  ["The kiln is **full**.\n\n- glaze at home\n- ask", "The kiln is full. glaze at home ask"],
  ["# Open day\nFrom *ten*, see [the list](https://x.invalid/a).", "Open day From ten, see the list."],
  ["2 * 3 * 4 and file_name_here stay", "2 * 3 * 4 and file_name_here stay"],
  ["1. first\n2. second `code`", "first second code"],
  ["", ""],
])("says in one line what is written: %j", (text, words) => expect(plainWords(text)).toBe(words));
