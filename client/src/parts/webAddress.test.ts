import { expect, test } from "vitest";
import { webAddress } from "./webAddress";

test.each([
  "https://tides.example/table",
  "HTTP://tides.example",
  "mailto:wren@skerrypoint.invalid",
  "/classes/20",
  "#knots",
])("%s is followed", (address) => {
  expect(webAddress(address)).toBe(address);
});

// Browsers read a backslash as a stroke (WHATWG URL Standard, "special" schemes), and skip blanks and line breaks before a scheme.
test.each([
  "//elsewhere.example",
  "/\\elsewhere.example",
  "\\\\elsewhere.example",
  "javascript:alert(1)",
  " JavaScript:alert(1)",
  "java\nscript:alert(1)",
  "data:text/html,x",
  "vbscript:x",
  "file:///etc/passwd",
  "",
])("%j leads nowhere", (address) => {
  expect(webAddress(address)).toBe("");
});
