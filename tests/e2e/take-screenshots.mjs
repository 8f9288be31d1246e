// Takes the pictures of docs/screenshots from a demo school that is made for it. Run by `make screenshots`.
import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { chromium } from "@playwright/test";

const base = "http://127.0.0.1:5098";
const to = resolve(import.meta.dirname, "../../docs/screenshots");
const data = mkdtempSync(join(tmpdir(), "spring-loft-pictures-"));
const server = spawn(resolve(import.meta.dirname, "../../build/SpringLoft.Server"), ["--demo", "--today", "2027-06-07", "--urls", base], {
  env: { ...process.env, SPRING_LOFT_DATA: data },
  stdio: "ignore",
});
const browser = await chromium.launch({
  executablePath: ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find(existsSync),
  args: ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking"],
});

async function signedIn(userName, password, colorScheme = "light") {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: "en-GB", colorScheme, reducedMotion: "reduce" });
  const page = await context.newPage();
  await page.goto(base);
  await page.getByLabel("User name").fill(userName);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.getByRole("heading", { name: "Sign in" }).waitFor({ state: "hidden" });
  return page;
}

async function picture(page, name, path, act) {
  if (path) await page.goto(base + path);
  await page.waitForLoadState("networkidle");
  if (act) await act(page);
  await page.waitForLoadState("networkidle");
  // Buttons change their colour slowly; the picture waits for it.
  await page.waitForTimeout(400);
  await page.waitForLoadState("networkidle");
  await page.screenshot({ path: join(to, `${name}.png`) });
}

try {
  for (let i = 0; i < 200; i++) {
    if (await fetch(`${base}/health`).then((r) => r.ok, () => false)) break;
    await new Promise((done) => setTimeout(done, 200));
  }
  const wren = await signedIn("wren", "harbour-kiln-seven");
  const classOf = async (name) => wren.locator("tr[data-id]", { hasText: name }).first().getAttribute("data-id");
  const [boat, clay, garden, tides] = [await classOf("Boatbuilding 6B"), await classOf("Clay and Glass 9B"), await classOf("Market Garden 7C"), await classOf("Tides and Weather 5A")];
  await picture(wren, "year-board", null, async (p) => {
    await p.getByLabel("Tick Market Garden 6B").check();
    await p.getByLabel("Tick Tides and Weather 7C").check();
    await p.getByLabel("Tick Clay and Glass 9B").check();
  });
  await picture(wren, "plan-desk", `/plan?plan=3&class=${boat}`);
  await picture(wren, "set-up-desk", `/classes/${boat}/set-up`, (p) => p.getByRole("treeitem", { name: "Units" }).click());
  await picture(wren, "roster-desk", `/classes/${boat}/enroll`, async (p) => {
    await p.getByLabel("Students, by the first letters").pressSequentially("hal", { delay: 60 });
    await p.getByRole("option").first().waitFor();
  });
  await picture(wren, "returns-desk", `/classes/${clay}/work`, (p) => p.getByRole("button", { name: /held by the teacher/ }).first().click());
  const { assignments } = await (await wren.request.get(`${base}/api/classes/${clay}/returns`)).json();
  await picture(wren, "marking-desk", `/classes/${clay}/marking?assignment=${assignments.find((a) => a.title === "Show piece").id}`, async (p) => {
    await p.getByLabel("Mark, of 20").fill("16");
    await p.getByLabel(/alone$/).fill("A dry foot at last, and you measured it. Next time the tile first, as you say.");
    await p.getByLabel("Mark, of 20").focus();
  });
  await picture(wren, "give-assignment", `/classes/${tides}/work/new`, async (p) => {
    await p.getByLabel("Title").fill("Barometer log 6");
    await p.getByLabel("Instructions").fill("## What to bring\n\n- three readings, with the hour\n- **one** drawing of the sky\n\nSay what you expect for Friday, and why.");
    await p.getByLabel("Due", { exact: true }).fill("2027-06-10");
    await p.getByLabel(/^By/).fill("15:30");
    await p.getByLabel("Filed in (one folder or several)").click();
    await p.getByRole("option", { name: "Start here" }).click();
    await p.keyboard.press("Escape");
    await p.getByText("Due in school week 36.").waitFor();
  });
  await picture(wren, "scores", `/classes/${tides}/scores`, (p) => p.getByRole("grid", { name: "Scores" }).waitFor());
  await picture(wren, "activity", `/classes/${tides}/activity`, (p) => p.getByRole("table", { name: "Activity of students" }).waitFor());
  await picture(wren, "notices", "/work/notices", async (p) => {
    await p.getByRole("textbox", { name: "Notice" }).fill("The kiln is **full**. Bring nothing more before Monday.");
    const pick = p.getByRole("combobox", { name: "Classes" });
    for (const name of ["Clay and Glass 8A", "Clay and Glass 9B"]) {
      await pick.fill(name);
      await p.getByRole("option").first().click();
    }
    await p.keyboard.press("Escape");
    await p.getByText(/students find it$/).waitFor();
  });
  await picture(wren, "closing-desk", "/close", async (p) => {
    await p.getByRole("checkbox", { name: /^Tick Boatbuilding/ }).nth(1).check();
    await p.getByRole("checkbox", { name: /^Tick Clay/ }).nth(2).check();
  });
  await picture(wren, "loft", "/loft");
  await picture(wren, "roll-over-desk", "/roll-over", async (p) => {
    await p.getByRole("checkbox", { name: /^Roll over Boatbuilding 6B/ }).check();
    await p.getByRole("radio", { name: "same school week and weekday" }).check();
    await p.getByRole("button", { name: /^See Boatbuilding 6B/ }).click();
    await p.getByRole("group", { name: "Folders of the new class" }).waitFor();
  });
  await picture(wren, "families", "/enroll/families");
  // Last: what it holds would show on the boards.
  await picture(wren, "delivery", "/enroll/deliveries", async (p) => {
    await p.getByRole("button", { name: "Run it now" }).click();
    await p.getByRole("heading", { name: /^On hold: / }).waitFor({ timeout: 30_000 });
  });
  await picture(wren, "closing-run", `/close/plan?classes=17,${boat},19,20,${clay},22`, async (p) => {
    await p.getByRole("button", { name: /^Close \d+ classes$/ }).click();
    await p.getByRole("heading", { name: "Report of the closing run" }).waitFor({ timeout: 60_000 });
  });
  const student = await signedIn("s1001", "tide-pool-lantern");
  await student.getByLabel("Password from your slip").fill("tide-pool-lantern");
  await student.getByLabel("New password", { exact: true }).fill("blue-otter-walks");
  await student.getByLabel("New password again").fill("blue-otter-walks");
  await student.getByRole("button", { name: "Set new password" }).click();
  await student.getByRole("heading", { name: "Monday 7 June" }).waitFor();
  await student.setViewportSize({ width: 390, height: 844 });
  await picture(student, "today-phone", "/");
  await student.setViewportSize({ width: 1280, height: 800 });
  await student.getByRole("link", { name: /Tides and Weather/ }).first().click();
  await picture(student, "student-class", null, async (p) => {
    const id = new URL(p.url()).pathname.split("/")[2];
    const { folders } = await (await p.request.get(`${base}/api/classes/${id}/workspace`)).json();
    await p.goto(`${base}/classes/${id}?folder=${folders.find((f) => f.talks).id}`);
    await p.getByRole("region", { name: "Talk" }).waitFor();
  });
  // A page that two have open, in the dark.
  const dark = await signedIn("wren", "harbour-kiln-seven", "dark");
  const id = new URL(student.url()).pathname.split("/")[2];
  const made = async (path, data) => (await (await dark.request.post(`${base}/api/classes/${id}${path}`, { data, headers: { "Idempotency-Key": path } })).json()).id;
  const folder = await made("/folders", { name: "Logbook", parent: null, rule: "ClassEdits", place: 0, version: 0 });
  await made(`/folders/${folder}/pages`, { title: "What the tide left", text: "## Monday\n\nHigh at nine, **low at three**. Found:\n\n- two floats\n- a boot, *left*\n- rope, some four metres\n\n## Tuesday\n\nFog until ten. We heard the bell.\n", version: 0 });
  const open = async (p, path) => {
    await p.goto(`${base}/classes/${id}${path}?folder=${folder}`);
    await p.getByText("What the tide left").first().click();
    await p.getByText("Everything is kept.").waitFor();
  };
  await open(student, "");
  await picture(dark, "together-dark", null, async (p) => {
    await open(p, "/set-up");
    await p.getByRole("button", { name: "Write with the others" }).click();
    await p.getByText(/^Here too: /).waitFor();
  });
} finally {
  await browser.close();
  server.kill();
  await new Promise((done) => server.on("exit", done));
  rmSync(data, { recursive: true });
}
