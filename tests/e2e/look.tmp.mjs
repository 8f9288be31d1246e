import { existsSync } from "node:fs";
import { chromium } from "@playwright/test";
export const base = "http://127.0.0.1:5080";
export const browser = await chromium.launch({ executablePath: ["/usr/bin/chromium"].find(existsSync), args: ["--no-sandbox", "--disable-gpu", "--no-first-run"] });
export async function signedIn(userName, password, colorScheme = "light") {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: "en-GB", colorScheme, reducedMotion: "reduce" });
  const page = await context.newPage();
  await page.goto(base);
  await page.getByLabel("User name").fill(userName);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.getByRole("heading", { name: "Sign in" }).waitFor({ state: "hidden" });
  return page;
}
export async function shot(page, name) { await page.waitForLoadState("networkidle"); await page.waitForTimeout(500); await page.screenshot({ path: `/tmp/p-${name}.png` }); }
