import { defineConfig } from "rolldown";

// One file without any way out: no timers, no network, no modules. The server gives it numbers that nobody can foresee.
export default defineConfig({
  input: "server/sharedText.js",
  platform: "browser",
  output: { file: "../src/SpringLoft.Formats/Together/yjs.js", format: "iife", minify: true },
});
