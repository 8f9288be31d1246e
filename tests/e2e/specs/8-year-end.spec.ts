import { execFileSync } from "node:child_process";
import { readFileSync, renameSync } from "node:fs";
import { join } from "node:path";
import { expect, test, type Browser, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, staffPassword } from "./people";
import { startDemo, type RunningServer } from "./server";

// The demo school from the untidy state of June to the gate and into the new year, on a server and a folder of its own.
let server: RunningServer;
let wren: Page;

test.describe.configure({ mode: "serial" });

test.beforeAll(async ({ browser }) => {
  server = await startDemo();
  wren = await person(browser, "wren", staffPassword);
});

test.afterAll(() => server.stop());

async function person(browser: Browser, user: string, password: string) {
  const page = await (await browser.newContext({ baseURL: server.url, reducedMotion: "reduce", acceptDownloads: true })).newPage();
  await page.goto("/");
  await page.getByLabel("User name").fill(user);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Sign in to Spring Loft" })).toBeHidden();
  return page;
}

const slip = (page: Page) => page.getByRole("complementary", { name: "Slip" });
const sql = (text: string) => execFileSync("sqlite3", [join(server.data, "spring-loft.db"), text], { encoding: "utf8" }).trim();

test("the closing desk says what is in the way of each class, and it is mended for many at once", async () => {
  await wren.goto("/close");
  await expect(wren.getByText(/15 pieces of work are still held, and of 12 the teacher has the only copy/)).toBeVisible();
  await isAccessible(wren, "the closing desk");
  await wren.getByRole("checkbox", { name: "Tick all classes shown" }).check();

  await slip(wren).getByRole("button", { name: "Write to their teachers…" }).click();
  await wren.getByRole("dialog").getByRole("button", { name: "Send the letters" }).click();
  await expect(slip(wren).getByText(/letters? written/)).toBeVisible();

  await slip(wren).getByRole("button", { name: "Return 15 pieces…" }).click();
  const dialog = wren.getByRole("dialog");
  await expect(dialog.getByRole("status")).toContainText("without a mark stay with the teacher");
  await dialog.getByRole("checkbox", { name: "Return work without a mark too" }).check();
  await dialog.getByRole("button", { name: "Return 15 pieces of work" }).click();
  await expect(dialog).toBeHidden();

  await expect(wren.getByRole("button", { name: "Blocked 0" })).toBeVisible();
  await expect(wren.getByText("still held")).toBeHidden();
});

test("loose things are gone through from the keyboard, and the last is undone", async () => {
  await wren.goto("/classes/19/tidy");
  await expect(slip(wren).getByRole("heading", { name: "6 things left" })).toBeVisible();
  await isAccessible(wren, "the tidy desk");

  await wren.keyboard.press("b");
  await expect(slip(wren).getByRole("heading", { name: "5 things left" })).toBeVisible();
  await wren.keyboard.press("k");
  await expect(slip(wren).getByRole("heading", { name: "4 things left" })).toBeVisible();
  await wren.keyboard.press("u");
  await expect(slip(wren).getByRole("heading", { name: "5 things left" })).toBeVisible();
  await wren.getByLabel("Folder", { exact: true }).fill("Start");
  await wren.getByRole("option", { name: "Start here" }).click();
  // More people would see it there than now: that is asked, and what is asked stands.
  await expect(wren.getByText(/^There the whole class sees it: \d+ students\. Now none does\.$/)).toBeVisible();
  await wren.getByRole("button", { name: "File it" }).click();
  await expect(wren.getByText(/would be seen by \d+ students/)).toBeVisible();
  await isAccessible(wren, "the question before filing");
  await expect(slip(wren).getByRole("heading", { name: "5 things left" })).toBeVisible();
  await wren.getByRole("heading", { name: "Tidy" }).click();
  await wren.keyboard.press("f");
  await expect(slip(wren).getByRole("heading", { name: "4 things left" })).toBeVisible();
});

test("a visitor reads the open shelf without an account, until it is shut", async ({ browser }) => {
  await wren.goto("/classes/20/shelf");
  await wren.getByRole("button", { name: "The whole class" }).click();
  await expect(wren.getByRole("table", { name: "Things on the shelf" })).not.toContainText("Term plan");
  await isAccessible(wren, "the shelf desk");
  await wren.getByLabel("Title").fill("Clay and Glass, to read in the summer");
  // A file that names a student inside stays off; one that could not be read says so.
  const [k, s] = sql("SELECT p.family || '|' || f.id FROM member m JOIN person p ON p.id = m.person_id, folder f WHERE m.class_id = 20 AND m.role = 'Student' AND length(p.family) > 4 AND f.class_id = 20 AND f.name = 'Start here' LIMIT 1").split("|");
  for (const [name, text] of [["Thanks.html", `<p>Thanks to ${k!.slice(0, 2)}<b>${k!.slice(2)}</b></p>`], ["Kiln song.mp3", "ID3\0\0\0"]] as const)
    expect((await wren.request.post(`/api/classes/20/folders/${s}/files?name=${encodeURIComponent(name)}`, { data: Buffer.from(text), headers: { "Content-Type": "application/octet-stream", "Idempotency-Key": name } })).status()).toBe(200);
  expect((await wren.request.post(`/api/classes/20/folders/${s}/pages`, { data: { title: "How to read a cone", text: "It **bends** at its heat.", version: 0 }, headers: { "Idempotency-Key": "cone" } })).status()).toBe(200);
  await wren.reload();
  await wren.getByRole("button", { name: "The whole class" }).click();
  await wren.getByLabel("Title").fill("Clay and Glass, to read in the summer");
  const things = wren.getByRole("table", { name: "Things on the shelf" });
  await expect(things.getByRole("row").filter({ hasText: "Thanks.html" })).toContainText("stays off unless ticked");
  await expect(things.getByRole("row").filter({ hasText: "Kiln song.mp3" })).toContainText("not searched for names");
  await expect(slip(wren).getByText("not searched for names")).toBeVisible();
  const examples = wren.getByRole("table", { name: "Examples of work" });
  await wren.getByLabel("Find by assignment or student").fill(`${await examples.getByRole("row").nth(1).getByRole("cell").nth(1).innerText()}`);
  await examples.getByRole("checkbox").nth(1).check();
  await expect(things).toContainText("Example 1");
  await examples.getByRole("checkbox").nth(1).uncheck();
  await slip(wren).getByLabel("Language of its page").click();
  await wren.getByRole("option", { name: "Français" }).click();
  await slip(wren).getByRole("button", { name: "Open the shelf" }).click();
  const shelves = wren.getByRole("table", { name: "Shelves of this class" });
  const address = await shelves.getByRole("link").getAttribute("href");

  const visitor = await (await browser.newContext({ baseURL: server.url })).newPage();
  await visitor.goto(address!);
  await expect(visitor.getByRole("heading", { name: "Clay and Glass, to read in the summer" })).toBeVisible();
  await isAccessible(visitor, "the open shelf");
  await expect(visitor.locator("html")).toHaveAttribute("lang", "fr");
  await expect(visitor.getByText("Ouvert jusqu’au")).toBeVisible();
  await expect(visitor.getByText("Thanks.html")).toHaveCount(0);
  await visitor.setViewportSize({ width: 320, height: 640 });
  expect(await visitor.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  const fetched = await visitor.request.get(new URL((await visitor.getByRole("link", { name: "Glaze recipes.txt" }).getAttribute("href"))!, visitor.url()).href);
  expect(fetched.status()).toBe(200);
  expect(fetched.headers()["content-disposition"]).toContain("attachment");
  expect((await visitor.request.get("/api/my-classes")).status()).toBe(401);

  // A page of text is read there, not downloaded.
  await visitor.getByRole("link", { name: "How to read a cone" }).click();
  await expect(visitor.getByRole("heading", { level: 1, name: "How to read a cone" })).toBeVisible();
  await isAccessible(visitor, "a page on the open shelf");
  expect(await visitor.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await visitor.getByRole("link", { name: /^Retour à/ }).click();

  await wren.reload();
  await shelves.getByRole("button", { name: /visits of/ }).click();
  await expect(wren.getByRole("dialog").getByRole("table", { name: "Visits by day" }).getByRole("row")).toHaveCount(2);
  await isAccessible(wren, "visits by day");
  await wren.getByRole("dialog").getByRole("button", { name: "Done" }).click();
  await shelves.getByRole("button", { name: /^Change/ }).click();
  await wren.getByRole("dialog").getByLabel("Open until").fill("2027-08-20");
  await wren.getByRole("dialog").getByLabel("Title").fill("Clay, to read");
  await isAccessible(wren, "changing a shelf");
  await wren.getByRole("dialog").getByRole("button", { name: "Save the shelf" }).click();
  await expect(shelves.getByText("open until 20 Aug 2027")).toBeVisible();
  await visitor.goto(address!);
  await expect(visitor.getByRole("heading", { name: "Clay, to read" })).toBeVisible();
  await expect(visitor.getByText("20 août 2027")).toBeVisible();

  await shelves.getByRole("button", { name: /^Shut/ }).click();
  await expect(shelves.getByText("shut", { exact: true })).toBeVisible();
  await visitor.reload();
  await expect(visitor.getByRole("heading", { name: "This shelf is not open" })).toBeVisible();
});

test("take-homes are made for everybody; the one that fails says why and is tried again alone; a student fetches their own", async ({ browser }) => {
  // A file that only one student handed in goes missing on purpose.
  const sha = sql("SELECT f.sha256 FROM work_file f JOIN work w ON w.id = f.work_id JOIN class k ON k.id = w.class_id WHERE NOT EXISTS (SELECT 1 FROM item i WHERE i.sha256 = f.sha256) AND k.year_id = (SELECT id FROM school_year WHERE label = '2026–27') GROUP BY f.sha256 HAVING count(DISTINCT w.student_id) = 1 LIMIT 1");
  const file = join(server.data, "files", sha.slice(0, 2), sha.slice(2));
  renameSync(file, `${file}.away`);
  await wren.goto("/close/take-homes");
  await slip(wren).getByRole("button", { name: /^Make 260 take-homes/ }).click();
  await expect(slip(wren).getByText(/The last run: \d+ made, \d+ with nothing to take home, 1 failed\./)).toBeVisible();
  await expect(slip(wren).getByText("A file is missing from the file store. Bring it back from a backup, then try again.")).toBeVisible();
  await isAccessible(wren, "the desk of take-homes with one that failed");
  const made = () => sql("SELECT count(*) FROM take_home");
  const before = Number(made());
  renameSync(`${file}.away`, file);
  await slip(wren).getByRole("button", { name: "Try 1 failed one again" }).click();
  await expect(slip(wren).getByText(/The last run: \d+ made, \d+ with nothing to take home\.$/)).toBeVisible();
  await expect(slip(wren).getByRole("button", { name: /again$/ })).toHaveCount(0);
  expect(Number(made())).toBe(before + 1);
  await isAccessible(wren, "the desk of take-homes");

  const student = await person(browser, "s1001", "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "otter-on-the-slipway");
  await student.goto("/");
  const [download] = await Promise.all([student.waitForEvent("download"), student.getByRole("link", { name: "Download your take-home of 2026–27" }).click()]);
  const listed = execFileSync("unzip", ["-Z1", await download.path()], { encoding: "utf8" });
  expect(listed).toContain("index.html");
  expect(listed.split("\n").length).toBeGreaterThan(3);
  execFileSync("unzip", ["-tq", await download.path()]);
  await isAccessible(student, "a student's classes with a take-home");
});

test("a whole school is closed in one run; the class that fails is named, mended and tried again alone", async () => {
  // One file that only one class has goes missing on purpose.
  const [sha, name] = sql("SELECT i.sha256 || '|' || k.name FROM item i JOIN class k ON k.id = i.class_id WHERE k.id = 31 AND i.binned_at IS NULL AND i.sha256 IS NOT NULL AND NOT EXISTS (SELECT 1 FROM item o WHERE o.sha256 = i.sha256 AND o.class_id <> 31) AND NOT EXISTS (SELECT 1 FROM work_file f WHERE f.sha256 = i.sha256) LIMIT 1").split("|") as [string, string];
  const file = join(server.data, "files", sha.slice(0, 2), sha.slice(2));
  renameSync(file, `${file}.away`);

  await wren.goto("/close");
  await wren.getByRole("checkbox", { name: "Tick all classes shown" }).check();
  await slip(wren).getByRole("link", { name: "Plan the closing of 24…" }).click();
  await expect(wren.getByText("24 classes will be closed")).toBeVisible();
  await isAccessible(wren, "the plan of the closing run");
  await slip(wren).getByRole("checkbox", { name: "Keep a copy of each set-up" }).check();
  await slip(wren).getByRole("button", { name: "Close 24 classes" }).click();
  await expect(wren.getByRole("heading", { name: "Report of the closing run" })).toBeVisible();
  await expect(slip(wren).getByRole("heading", { name: "Ended, with failures" })).toBeVisible();

  await wren.getByRole("button", { name: "failed 1" }).click();
  const report = wren.getByRole("table", { name: "Report by class" });
  await expect(report.getByRole("row").nth(1)).toContainText(name);
  await expect(report).toContainText("missing from the file store");
  await isAccessible(wren, "the report of the closing run");
  const [csv] = await Promise.all([wren.waitForEvent("download"), slip(wren).getByRole("link", { name: "Download the report as CSV" }).click()]);
  expect(readFileSync(await csv.path(), "utf8").trim().split("\r\n")).toHaveLength(25);

  renameSync(`${file}.away`, file);
  await slip(wren).getByRole("button", { name: "Try the 1 failed class again" }).click();
  await expect(slip(wren).getByRole("heading", { name: "All verified" })).toBeVisible();
});

test("the classes that are missing are rolled over, and every difference is explained", async () => {
  await wren.goto("/roll-over");
  await wren.getByRole("checkbox", { name: "Tick all that are not made yet" }).check();
  await slip(wren).getByRole("radio", { name: "same school week and weekday" }).check();
  await expect(slip(wren).getByRole("button", { name: "Roll over 16 classes" })).toBeEnabled();
  await wren.getByRole("button", { name: /^See Boatbuilding 6B/ }).click();
  await expect(wren.getByRole("group", { name: "Folders of the new class" })).toContainText("Start here");
  await expect(wren.getByText(/school week \d+, \w+day/).first()).toBeVisible();
  await isAccessible(wren, "the roll-over desk");
  await slip(wren).getByRole("button", { name: "Roll over 16 classes" }).click();

  await expect(slip(wren).getByText("every difference is explained")).toBeVisible();
  await isAccessible(wren, "the report of the roll-over");
  await wren.getByRole("button", { name: /^Undo Boatbuilding 6B/ }).click();
  await expect(wren.getByRole("table", { name: "Report by class" }).getByText("undone")).toBeVisible();
});

test("the gate opens on nothing missing, the year begins, and the feed gets its dates", async () => {
  await wren.goto("/close/gate");
  await expect(wren.getByText("Nothing is missing of 2026–27.")).toBeVisible();
  await isAccessible(wren, "the gate");
  await slip(wren).getByRole("button", { name: "Begin 2027–28…" }).click();
  await wren.getByRole("dialog").getByRole("button", { name: "Begin 2027–28" }).click();
  await expect(slip(wren).getByRole("heading", { name: "2027–28 has begun" })).toBeVisible();
  await expect(wren.getByRole("table", { name: "What became of the grades" })).toContainText("left");
  await isAccessible(wren, "the gate when the year has begun");

  await slip(wren).getByRole("link", { name: "Set the roster feed…" }).click();
  await wren.getByRole("button", { name: "Dates and address…" }).click();
  const dialog = wren.getByRole("dialog");
  await expect(dialog.getByText("2027–28 is proposed, from its first day to its last.")).toBeVisible();
  await expect(dialog.getByLabel("First day")).toHaveValue("2027-08-23");
  await isAccessible(wren, "the form of the feed");
  await dialog.getByRole("button", { name: "Save the feed" }).click();
  await expect(dialog).toBeHidden();
  await wren.goto("/close/gate");
  await expect(wren.getByText("The roster feed brings 2027–28.")).toBeVisible();
});

test("things of the loft are used in a new class, and a class is restored", async () => {
  await wren.goto("/loft");
  await wren.getByLabel("Find in the loft, over all years").fill("glaze rec");
  await wren.getByRole("table", { name: "Found in the loft" }).getByRole("button", { name: /^Use Glaze recipes/ }).first().click();
  const dialog = wren.getByRole("dialog");
  await dialog.getByRole("checkbox", { name: /Boatbuilding 5A/ }).first().check();
  await dialog.getByRole("button", { name: /^Give/ }).click();
  await expect(dialog.getByRole("heading", { name: /given to 1 class/ })).toBeVisible();
  await dialog.getByRole("button", { name: "Done" }).click();
  await expect(dialog).toBeHidden();

  await wren.getByLabel("Find in the loft, over all years").fill("");
  await isAccessible(wren, "the loft");

  // What an archived class was set up with is taken along as a file; nothing comes into it.
  await wren.goto("/classes/20/set-up");
  await wren.getByRole("button", { name: "Set-up as a file…" }).click();
  await expect(dialog.getByText("Nothing comes into an archived class.")).toBeVisible();
  await expect(dialog.getByText("Choose a cartridge")).toHaveCount(0);
  const [cartridge] = await Promise.all([wren.waitForEvent("download"), dialog.getByRole("link", { name: "Download a cartridge" }).click()]);
  expect(execFileSync("unzip", ["-p", await cartridge.path(), "imsmanifest.xml"]).toString()).toContain("Glaze recipes");
  const [structure] = await Promise.all([wren.waitForEvent("download"), dialog.getByRole("button", { name: "Download a structure file" }).click()]);
  expect(JSON.parse(readFileSync(await structure.path(), "utf8")).folders.length).toBeGreaterThan(0);
  await isAccessible(wren, "the set-up of an archived class as a file");
  await dialog.getByRole("button", { name: "Close" }).last().click();

  await wren.goto("/loft");
  await wren.getByRole("button", { name: /^Restore Clay and Glass 8A · period 1 · 2026–27/ }).click();
  await wren.getByRole("dialog").getByRole("button", { name: "Restore the class" }).click();
  await expect(wren.getByRole("dialog")).toBeHidden();
  await wren.goto("/classes/20/set-up");
  await expect(wren.getByText("open", { exact: true }).first()).toBeVisible();

  // From inside a class: by words of what is written in it, looked at, taken.
  await wren.getByRole("link", { name: "Draw on the past…" }).click();
  await wren.getByLabel("Find by words in titles and texts").fill("boatbuild wall folder");
  await expect(wren.getByText("Still reading")).toBeHidden();
  await wren.getByRole("table", { name: "Found" }).getByRole("button", { name: /^Look at .* of Boatbuilding/ }).first().click();
  await expect(slip(wren).getByText("For the yard wall and for your own folder.")).toBeVisible();
  await isAccessible(wren, "what is drawn from the past");
  await slip(wren).getByRole("button", { name: "Take it into this class" }).click();
  await expect(slip(wren).getByText("1 thing taken")).toBeVisible();

  await wren.goto("/close/kept");
  await isAccessible(wren, "kept copies");
});

test("what was archived is deleted only by its name, and comes back from the bin", async () => {
  await wren.goto("/loft");
  const name = (await wren.getByRole("button", { name: /^Delete Boatbuilding 5A · period 1 · 2026/ }).getAttribute("aria-label"))!.replace("Delete ", "");
  await wren.getByRole("button", { name: `Delete ${name}` }).click();
  const dialog = wren.getByRole("dialog");
  await expect(dialog.getByRole("button", { name: "Put it in the bin" })).toBeDisabled();
  await dialog.getByLabel("Type the name of the class").fill(name);
  await dialog.getByRole("button", { name: "Put it in the bin" }).click();
  await expect(wren.getByRole("table", { name: "Bin of the loft" })).toContainText(name);
  await wren.getByRole("button", { name: `Bring back ${name}` }).click();
  await expect(wren.getByRole("button", { name: `Delete ${name}` })).toBeVisible();
});

test("an archive package is read back in and stands in the loft", async () => {
  await wren.goto("/loft");
  const [download] = await Promise.all([wren.waitForEvent("download"), wren.getByRole("link", { name: /^Download the package of Boatbuilding 5A · period 1 · 2026/ }).click()]);
  const path = await download.path();
  await wren.getByLabel("Choose a package…").setInputFiles({ name: "package.zip", mimeType: "application/zip", buffer: readFileSync(path) });
  const dialog = wren.getByRole("dialog");
  await dialog.getByRole("button", { name: "Check it" }).click();
  await expect(dialog.getByRole("status")).toContainText("whole: every file is as it was written");
  await dialog.getByRole("button", { name: "Take it into the loft" }).click();
  await expect(dialog.getByRole("status")).toContainText("stands in the loft");
});

test("the desks of the year's end are accessible in the dark too", async () => {
  await wren.emulateMedia({ colorScheme: "dark" });
  for (const path of ["/close", "/close/gate", "/close/take-homes", "/close/kept", "/roll-over", "/loft", "/classes/20/shelf", "/classes/20/tidy"]) {
    await wren.goto(path);
    await isAccessible(wren, `${path} in the dark`);
  }
});
