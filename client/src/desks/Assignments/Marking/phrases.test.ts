import { expect, test } from "vitest";
import { withPhrase } from "./phrases";

test("a phrase goes to the end, with the name of whom it is for", () => {
  expect(withPhrase("", "Well seen, {name}.", "Umi")).toBe("Well seen, Umi.");
  expect(withPhrase("Fine. ", "Look again.", "Umi")).toBe("Fine. Look again.");
  expect(withPhrase("Fine.\n", "Look again.", "Umi")).toBe("Fine.\nLook again.");
  // What looks like a pattern for replacing is nothing but text.
  expect(withPhrase("", "{name} and {name}", "$&")).toBe("$& and $&");
});
