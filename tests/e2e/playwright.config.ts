import { existsSync, readdirSync } from "node:fs";
import { resolve } from "node:path";
import { defineConfig } from "@playwright/test";

const browser = ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find(existsSync);
// Nothing goes by the clock: these only end what would never end by itself, on a machine that is ten times slower.
const patience = Number(process.env.PATIENCE ?? 120_000);

// A file tells one story on one school of its own, so each is a project: a worker is never shared between two. Two at a time.
export default defineConfig({
  testDir: "specs",
  outputDir: "results/tests",
  globalSetup: "./global-setup.ts",
  projects: readdirSync(resolve(import.meta.dirname, "specs"))
    .filter((f) => f.endsWith(".spec.ts"))
    .map((f) => ({ name: f.replace(".spec.ts", ""), testMatch: f })),
  workers: 2,
  fullyParallel: false,
  retries: 1,
  timeout: 15 * patience,
  expect: { timeout: patience },
  reporter: [["list"]],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    acceptDownloads: true,
    actionTimeout: patience,
    contextOptions: { reducedMotion: "reduce" },
    screenshot: "only-on-failure",
    launchOptions: {
      executablePath: browser,
      args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
    },
  },
});
