// Measures; see first-screen.sh. Uses the build, and Chromium through the Playwright of the browser tests.
import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

const { chromium } = createRequire(resolve(import.meta.dirname, "../tests/e2e/package.json"))("@playwright/test");
const data = mkdtempSync(join(tmpdir(), "spring-loft-bench-"));
const said = (child, mark) => new Promise((go) => child.stdout.on("data", (b) => { const m = mark.exec(b.toString()); if (m) go(m[1]); }));
const server = spawn(resolve(import.meta.dirname, "../build/SpringLoft.Server"), ["--demo", "--today", "2027-06-07", "--urls", "http://127.0.0.1:0"], { env: { ...process.env, SPRING_LOFT_DATA: data } });
const url = (await said(server, /answers on (\S+)/)).replace(/\/$/, "");
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"] });

async function measure(base, path, prepare, slow) {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  await prepare?.(context);
  const page = await context.newPage();
  await page.addInitScript(() => { window.requestIdleCallback = () => 0; });
  const wire = await context.newCDPSession(page);
  await wire.send("Network.enable");
  if (slow) {
    await wire.send("Network.emulateNetworkConditions", { offline: false, latency: 2000, downloadThroughput: 50_000, uploadThroughput: 50_000 });
    await wire.send("Emulation.setCPUThrottlingRate", { rate: 4 });
  }
  const names = new Map();
  let script = 0, files = 0;
  wire.on("Network.responseReceived", (e) => names.set(e.requestId, e.response.url));
  wire.on("Network.loadingFinished", (e) => { if (/\.js$/.test(names.get(e.requestId) ?? "")) { script += e.encodedDataLength; files++; } });
  const began = Date.now();
  await page.goto(base + path, { waitUntil: "commit", timeout: 120_000 });
  await page.getByRole("heading", { level: 1 }).waitFor({ timeout: 120_000 });
  const took = (Date.now() - began) / 1000;
  await context.close();
  return { script, files, took };
}

const signIn = (userName, password, own) => async (context) => {
  await context.request.post(`${url}/api/sign-in`, { data: { userName, password } });
  if (own) await context.request.post(`${url}/api/me/password`, { data: { oldPassword: password, newPassword: own } });
};
const who = { student: signIn("s1001", "tide-pool-lantern", "blue-otter-walks-9"), coordinator: signIn("wren", "harbour-kiln-seven") };
const again = { student: signIn("s1001", "blue-otter-walks-9"), coordinator: who.coordinator };
for (const name of ["student", "coordinator"]) {
  const fast = await measure(url, "/", who[name], false);
  const slow = await measure(url, "/", again[name], true);
  const bare = mkdtempSync(join(tmpdir(), "spring-loft-bare-"));
  // Letters at random: of the bytes none is saved by packing.
  writeFileSync(join(bare, "all.js"), `/*${randomBytes(fast.script).toString("latin1").replace(/[^ -)+-.0-~]/g, "x").slice(0, fast.script - 60)}*/document.body.append(Object.assign(document.createElement("h1"), { textContent: "x" }))`);
  writeFileSync(join(bare, "index.html"), '<!doctype html><meta charset="latin1"><body><script src="all.js"></script>');
  const python = spawn("python3", ["-u", "-m", "http.server", "0", "--bind", "127.0.0.1", "--directory", bare]);
  const there = (await said(python, /(http:\/\/\S+?)\/\)/)) ?? "";
  const stock = await measure(there, "/", undefined, true);
  python.kill();
  rmSync(bare, { recursive: true });
  console.log(`${name}: ${Math.round(fast.script / 1000)} kB of script in ${fast.files} files; heading after ${slow.took.toFixed(1)} s on the slow line; the same bytes in one file from http.server ${stock.took.toFixed(1)} s; ratio ${(slow.took / stock.took).toFixed(2)}`);
}
await browser.close();
server.kill();
rmSync(data, { recursive: true, force: true });
