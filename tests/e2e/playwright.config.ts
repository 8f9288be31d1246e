import { existsSync } from "node:fs";
import { defineConfig } from "@playwright/test";

const port = 5099;
const browser = ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find(existsSync);

// One school, one browser, one test after the other: the tests tell one year.
export default defineConfig({
  testDir: "specs",
  outputDir: "results",
  workers: 1,
  fullyParallel: false,
  timeout: 120_000,
  expect: { timeout: 10_000 },
  reporter: [["list"]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    acceptDownloads: true,
    actionTimeout: 20_000,
    contextOptions: { reducedMotion: "reduce" },
    screenshot: "only-on-failure",
    launchOptions: {
      executablePath: browser,
      args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
    },
  },
  webServer: {
    command: `rm -rf results/data && ../../build/SpringLoft.Server --demo --today 2027-06-07 --urls http://127.0.0.1:${port}`,
    env: { SPRING_LOFT_DATA: "results/data" },
    url: `http://127.0.0.1:${port}/health`,
    timeout: 120_000,
    reuseExistingServer: false,
  },
});
