import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { expect, type APIRequestContext, type Page } from "@playwright/test";
import { isAccessible, signedIn } from "./people";
import { test } from "./server";

// The turn of the year, to the last click: who leads a class, many classes opened and published at once, and a package read by a stranger.
const program = join(import.meta.dirname, "../../../build/SpringLoft.Server");

type Row = { id: number; name: string; lead: string; state: string };

let wren: Page;
let oisin: Page;
let led: Row;

const json = async <T>(of: APIRequestContext, path: string) => (await (await of.get(path)).json()) as T;
const board = (of: Page, year?: number) => json<{ year: number; rows: Row[] }>(of.request, year ? `/api/board?year=${year}` : "/api/board");

test.beforeAll(async ({ browser }) => {
  wren = await signedIn(browser, "wren");
  oisin = await signedIn(browser, "oisin");
});

test.afterAll(async () => {
  await wren.context().close();
  await oisin.context().close();
});

test("a lead teacher asks a colleague, who says yes on their own day", async ({ browser }) => {
  led = (await board(wren)).rows.find((r) => r.lead.startsWith("Oisín") && r.state === "Open")!;
  await oisin.goto(`/classes/${led.id}/enroll`);
  await expect(oisin.getByText("Led by Oisín")).toBeVisible();
  await oisin.getByRole("button", { name: "Ask a colleague to lead it…" }).click();
  const asks = oisin.getByRole("dialog");
  await asks.getByLabel("By the first letters of the last name").fill("Dahlq");
  const option = oisin.getByRole("option").first();
  const colleague = ((await option.innerText()).split("\n")[0] ?? "").trim();
  await option.click();
  await expect(asks.getByRole("list", { name: "What it means" })).toContainText("stays as co-teacher");
  await isAccessible(oisin, "asking a colleague to lead");
  await asks.getByRole("button", { name: /^Ask / }).click();
  await expect(oisin.getByText("no answer yet")).toBeVisible();

  const yusuf = await signedIn(browser, "yusuf");
  expect(colleague).toMatch(/^Dahlquist/);
  await yusuf.goto("/today");
  await expect(yusuf.getByText(`asks you to lead ${led.name}.`)).toBeVisible();
  await isAccessible(yusuf, "the day of whoever is asked to lead");
  await yusuf.getByRole("button", { name: `Yes, lead ${led.name}` }).click();
  await expect(yusuf.getByRole("button", { name: `Yes, lead ${led.name}` })).toBeHidden();
  await yusuf.goto(`/classes/${led.id}/enroll`);
  await expect(yusuf.getByText("Led by Yusuf")).toBeVisible();
  await yusuf.context().close();

  // Whoever led it works in it as before, and no longer opens, closes or hands it on.
  await oisin.reload();
  await expect(oisin.getByText("Led by Yusuf")).toBeVisible();
  await expect(oisin.getByRole("button", { name: "Ask a colleague to lead it…" })).toHaveCount(0);
  expect((await oisin.request.get(`/api/classes/${led.id}/package`)).status()).toBe(403);
});

test("the coordinator says who leads it, at once", async () => {
  await wren.goto(`/classes/${led.id}/enroll`);
  await wren.getByRole("button", { name: "Say who leads it…" }).click();
  const says = wren.getByRole("dialog");
  await says.getByLabel("By the first letters of the last name").fill("Farqu");
  await wren.getByRole("option", { name: /Oisín/ }).click();
  await says.getByRole("button", { name: /^Make Oisín/ }).click();
  await expect(wren.getByText("Led by Oisín")).toBeVisible();
});

test("many classes are opened in one act, each with its check, and their drafts published by school week", async () => {
  test.slow();
  const years = await json<{ id: number; year: { label: string } }[]>(wren.request, "/api/years");
  const next = years.find((y) => JSON.stringify(y).includes("2027–28"))!;
  await wren.goto("/roll-over");
  await wren.getByRole("checkbox", { name: "Tick all that are not made yet" }).check();
  await wren.getByRole("radio", { name: "same school week and weekday" }).check();
  await wren.getByRole("button", { name: /^Roll over \d+ classes$/ }).click();
  await expect(wren.getByText("every difference is explained")).toBeVisible();

  const made = (await board(wren, next.id)).rows.filter((r) => r.state === "InPreparation");
  expect(made.length).toBeGreaterThan(15);
  // Two have students; the others have nobody yet, and want a look.
  const students = (await json<{ id: number; role: string; left: string | null }[]>(wren.request, `/api/classes/${led.id}/roster`)).filter((r) => r.role === "Student" && !r.left).map((r) => r.id);
  for (const [n, k] of made.slice(0, 2).entries())
    await wren.request.post(`/api/classes/${k.id}/roster`, { data: { people: students.slice(n * 5, n * 5 + 5), role: "Student", includeOpen: false }, headers: { "Idempotency-Key": `turning-${k.id}` } });

  await wren.goto(`/?year=${next.id}`);
  await wren.getByRole("checkbox", { name: /^Tick all/ }).first().check();
  await wren.getByRole("button", { name: `Open ${made.length} classes…` }).click();
  const opens = wren.getByRole("dialog");
  await expect(opens.getByRole("table", { name: "Classes to open" }).getByRole("row")).toHaveCount(made.length + 1);
  await expect(opens.getByText("nobody on the roster").first()).toBeVisible();
  await isAccessible(wren, "opening many classes");
  await opens.getByRole("checkbox", { name: "Tick all classes" }).check();
  await opens.getByRole("button", { name: `Open ${made.length} classes` }).click();
  await expect(wren.getByRole("dialog").getByRole("heading", { name: `${made.length} classes are open` })).toBeVisible();
  await wren.getByRole("dialog").getByRole("button", { name: "Done" }).click();
  expect((await board(wren, next.id)).rows.filter((r) => r.state === "Open").length).toBeGreaterThanOrEqual(made.length);

  await wren.getByRole("button", { name: "Publish drafts…" }).click();
  const drafts = wren.getByRole("dialog");
  const weeks = drafts.getByRole("group", { name: "School weeks" }).getByRole("button");
  await expect(weeks.first()).toBeVisible();
  await isAccessible(wren, "publishing by school week");
  for (const week of (await weeks.all()).slice(0, 3)) await week.click();
  await drafts.getByRole("button", { name: /^Publish \d+ assignments? by week$/ }).click();
  await expect(wren.getByRole("dialog").getByRole("status")).toContainText("when the school week begins");
  await wren.getByRole("dialog").getByRole("button", { name: "Done" }).click();
});

test("a package is read by a stranger with a browser and nothing else", async ({ browser }) => {
  const loft = await json<{ label: string; classes: { id: number; name: string; package: string | null }[] }[]>(wren.request, "/api/loft");
  const k = loft.flatMap((y) => y.classes).find((c) => c.package)!;
  const folder = mkdtempSync(join(tmpdir(), "spring-loft-package-"));
  const zip = join(folder, "package.zip");
  const [download] = await Promise.all([
    wren.waitForEvent("download"),
    (async () => {
      await wren.goto("/loft");
      await wren.getByRole("link", { name: `Download the package of ${k.name}` }).click();
    })(),
  ]);
  await download.saveAs(zip);
  execFileSync("unzip", ["-q", zip, "-d", folder]);
  const top = join(folder, readdirSync(folder).find((n) => n !== "package.zip")!);

  const stranger = await (await browser.newContext({ offline: true, javaScriptEnabled: true })).newPage();
  const asked: string[] = [];
  stranger.on("request", (r) => asked.push(r.url()));
  await stranger.goto(pathToFileURL(join(top, "index.html")).href);
  await expect(stranger.getByRole("heading", { level: 1, name: k.name })).toBeVisible();
  for (const part of ["Folders", "Assignments and work", "Roster", "How to check this package"]) await expect(stranger.getByRole("heading", { level: 2, name: part })).toBeVisible();
  expect(asked.filter((u) => !u.startsWith("file:"))).toEqual([]);
  const led = await stranger.evaluate(() => [...document.querySelectorAll("a")].map((a) => a.getAttribute("href")!).filter((h) => h.startsWith("data/")));
  expect(led.length).toBeGreaterThan(5);
  for (const href of led) expect(existsSync(join(top, decodeURIComponent(href))), href).toBe(true);
  await isAccessible(stranger, "the page of a package");
  await stranger.setViewportSize({ width: 320, height: 640 });
  expect(await stranger.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)).toBeLessThanOrEqual(0);
  await stranger.context().close();

  // And by the program itself, on a machine without a school.
  const said = execFileSync(program, ["verify", zip], { encoding: "utf8" });
  expect(said).toContain("all whole");
});

test("the loft says when a package was last read, reads it again, and shows the school's key", async () => {
  await wren.goto("/loft");
  const again = wren.getByRole("button", { name: /^Read the package of / }).first();
  await again.click();
  await expect(again).toHaveText("Read again");
  await expect(wren.getByRole("table", { name: "The school’s keys" })).toContainText("signs now");
  await isAccessible(wren, "the loft with its keys");
});
