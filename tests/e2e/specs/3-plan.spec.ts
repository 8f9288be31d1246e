import { expect, type Page } from "@playwright/test";
import { isAccessible, signedIn } from "./people";
import { test } from "./server";

// A coordinator lays out a year: the calendar, the names, a plan of their own put to every class, bent by a teacher, put again.
test.describe.configure({ mode: "serial" });

let page: Page;
const lineNames = () => page.locator("tr[data-row] input[data-name]").evaluateAll((all) => all.map((i) => (i as HTMLInputElement).value));

test("a calendar file is read, what it does is shown, and nothing is saved before that", async ({ browser }) => {
  page = await signedIn(browser, "wren");
  await page.goto("/plan/years?year=3");
  await expect(page.getByRole("heading", { name: "School year 2027–28" })).toBeVisible();
  const file = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\nBEGIN:VEVENT\r\nUID:1@x\r\nDTSTAMP:20270101T000000Z\r\nDTSTART;VALUE=DATE:20271108\r\nDTEND;VALUE=DATE:20271113\r\nSUMMARY:Ferry week\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:2@x\r\nDTSTAMP:20270101T000000Z\r\nDTSTART:20271109T090000Z\r\nSUMMARY:Staff meeting\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
  await page.locator("input[type=file]").setInputFiles({ name: "x.ics", mimeType: "text/calendar", buffer: Buffer.from(file) });
  const offer = page.getByRole("dialog");
  await expect(offer).toContainText("Ferry week");
  await expect(offer).toContainText("“Staff meeting” has a time of day");
  await isAccessible(page, "the offer of a calendar file");
  await offer.getByRole("button", { name: "Take 1 entry into the calendar" }).click();
  await expect(page.getByRole("table", { name: "Weeks that change" })).toContainText("no school");
  await expect(page.getByText("Not saved yet.")).toBeVisible();
  await page.reload();
  await expect(page.getByText("Not saved yet.")).toBeVisible();
  await isAccessible(page, "a calendar with a change");
  await page.getByRole("button", { name: "Save the calendar" }).click();
  await expect(page.getByText("Not saved yet.")).toBeHidden();
  await expect(page.getByLabel("First day of Ferry week")).toHaveValue("2027-11-08");
});

test("terms that overlap are refused by name before they are saved", async () => {
  await page.getByLabel("Last day of Autumn", { exact: true }).fill("2028-01-20");
  await expect(page.getByRole("alert").first()).toContainText("overlap");
  await expect(page.getByRole("button", { name: "Save the calendar" })).toBeDisabled();
  await page.getByRole("button", { name: "Drop my changes" }).click();
});

test("a pattern of names shows every class as it will be called, and counts clashes", async () => {
  await page.goto("/plan/names");
  await page.getByRole("textbox", { name: "Pattern" }).fill("{course} · {year}");
  await expect(page.getByText(/\d+ would clash/)).toBeVisible();
  await page.getByRole("textbox", { name: "Pattern" }).fill("{course} {section} · {year}");
  await expect(page.getByRole("table", { name: "Names as they will be" }).getByText("Signals 8A · 2026–27", { exact: true })).toBeVisible();
  await isAccessible(page, "the names desk");
  await page.getByRole("textbox", { name: "Pattern" }).fill("{course} {grade}");
  await expect(page.getByRole("alert")).toContainText("“grade” that is not known here");
});

test("a plan is begun from a list and written with the keyboard alone", async () => {
  await page.goto("/plan");
  await page.getByRole("button", { name: "Begin another plan…" }).click();
  await page.getByLabel("Name of the plan").last().fill("Week and day");
  await page.getByLabel("One folder a line").fill("Week\n  Day\nPapers");
  await isAccessible(page, "beginning a plan");
  await page.getByRole("button", { name: "Begin the plan" }).click();
  await expect(page.getByText("Used by 0 classes")).toBeVisible();

  // From here on no mouse: the first line, its name, how often it stands.
  await page.locator("tr[data-row]").first().focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+A");
  await page.keyboard.type("Week {week}");
  await page.keyboard.press("Escape");
  await page.keyboard.press("r");
  await page.keyboard.type("each school week");
  await page.locator("tr[data-row]").nth(1).focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+A");
  await page.keyboard.type("{date} {weekday}");
  await page.keyboard.press("Escape");
  await page.keyboard.press("r");
  await page.keyboard.type("each school day");
  await page.locator("tr[data-row]").nth(2).focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Staff room");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Notes");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Alt+ArrowLeft");
  await page.keyboard.press("Alt+ArrowRight");
  await page.locator("tr[data-row]").nth(3).focus();
  await page.keyboard.press("Alt+ArrowUp");
  expect(await lineNames()).toEqual(["Week {week}", "{date} {weekday}", "Staff room", "Notes", "Papers"]);
  await page.keyboard.press("w");
  await page.keyboard.type("staff only");
  await expect(page.getByText("school weeks", { exact: true })).toBeVisible();
  await expect(page.getByText("Week 01")).toBeVisible();
  await isAccessible(page, "the plan desk while a plan is written");
  await page.getByRole("button", { name: "Save as version 2" }).press("Enter");
  await expect(page.getByText("Folder plan, version 2.")).toBeVisible();
});

test("the plan is put to all 24 classes: the list of changes first, then the run, then the report", async () => {
  await page.getByRole("link", { name: "Put version 2 to classes…" }).click();
  await page.getByLabel("Tick all classes").check();
  await expect(page.getByText(/folders to add/)).toBeVisible();
  await isAccessible(page, "the list of changes by class");
  const put = page.getByRole("button", { name: /^Put it to \d+ classes$/ });
  await expect(put).toBeEnabled();
  await put.click();
  await expect(page.getByRole("heading", { name: /^Done/ })).toBeVisible();
  await expect(page.getByRole("table", { name: "Report by class" }).getByRole("row")).not.toHaveCount(1);
  await isAccessible(page, "the report of a plan run");
});

test("a teacher bends one class; the changed plan put again keeps that and lists it", async ({ browser }) => {
  const teacher = await signedIn(browser, "cait");
  await teacher.locator("tr[data-id]").first().getByRole("link").first().click();
  await teacher.getByRole("treeitem", { name: "Papers" }).first().click();
  await expect(teacher.getByRole("heading", { name: "Papers", level: 2 })).toBeVisible();
  await teacher.getByRole("button", { name: "Change…" }).click();
  await teacher.getByLabel("Name", { exact: true }).fill("Song sheets");
  await isAccessible(teacher, "changing a folder");
  await teacher.getByRole("button", { name: "Change it" }).click();
  await expect(teacher.getByText("changed since its plan made it")).toBeVisible();

  await page.goto("/plan");
  await page.getByRole("combobox", { name: "Folder plan" }).click();
  await page.getByRole("option", { name: "Week and day" }).click();
  await expect(page.getByText("Folder plan, version 2.")).toBeVisible();
  await page.locator("tr[data-row]").last().focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Control+A");
  await page.keyboard.type("Hand-outs");
  await page.getByRole("button", { name: "Save as version 3" }).click();
  await page.getByRole("link", { name: "Put version 3 to classes…" }).click();
  await page.getByLabel("Tick all classes").check();
  await page.getByRole("button", { name: /^Put it to \d+ classes$/ }).click();
  await expect(page.getByRole("heading", { name: /^Done/ })).toBeVisible();
  await expect(page.getByRole("table", { name: "Report by class" })).toContainText("the teacher calls it so; the plan would call it “Hand-outs”");
  await teacher.reload();
  await expect(teacher.getByRole("treeitem", { name: "Song sheets" })).toBeVisible();
  await teacher.context().close();
});

test("what was put is taken back for one class", async () => {
  const row = page.getByRole("table", { name: "Report by class" }).getByRole("row").filter({ hasText: "Take back" }).first();
  await row.getByRole("button", { name: /^Take back/ }).click();
  await expect(page.getByText("taken back").first()).toBeVisible();
});

test("a blind spot is found and mended in one click, and see as shows what a student sees", async ({ browser }) => {
  const teacher = await signedIn(browser, "ylva");
  await teacher.locator("tr[data-id]").nth(1).getByRole("link").first().click();
  await expect(teacher.getByText("no blind spots")).toBeVisible();
  // The folder that the first assignment stands in becomes staff only.
  const start = teacher.getByRole("treeitem", { name: "Staff room" });
  await start.click();
  await expect(teacher.getByRole("heading", { name: "Staff room", level: 2 })).toBeVisible();
  await teacher.getByRole("button", { name: "Make a folder in it…" }).click();
  await teacher.getByLabel("Name", { exact: true }).fill("For everybody");
  await teacher.getByLabel("Who may do what").click();
  await teacher.getByRole("option", { name: "class views" }).click();
  await teacher.getByRole("button", { name: "Make the folder" }).click();
  const spots = teacher.getByRole("region", { name: "Blind spots" });
  await expect(spots).toContainText("stands inside “Staff room”, which is shut to students");
  await isAccessible(teacher, "a class with a blind spot");
  await spots.getByRole("button", { name: "Make it as the folder above" }).click();
  await expect(teacher.getByText("no blind spots")).toBeVisible();

  await teacher.getByRole("button", { name: "Who sees it?" }).click();
  await expect(teacher.getByRole("dialog")).toContainText("“Staff room” is staff only");
  await isAccessible(teacher, "who sees a folder");
  await teacher.getByRole("button", { name: "Done" }).click();
  await teacher.getByRole("link", { name: "See as a student…" }).click();
  await expect(teacher.getByRole("heading", { name: "Seen as any student" })).toBeVisible();
  await expect(teacher.getByRole("treeitem", { name: "Staff room" })).toHaveCount(0);
  await isAccessible(teacher, "see as any student");
  await teacher.getByRole("combobox", { name: "See as" }).click();
  await teacher.getByRole("option").nth(1).click();
  await teacher.getByRole("treeitem", { name: "Own folders" }).click();
  await expect(teacher.getByRole("treeitem", { level: 2 })).toHaveCount(1);
  await expect(teacher.getByRole("button", { name: "Add files…" })).toHaveCount(0);
});

test("a folder tree of 200 files is taken in whole and keeps its shape", async ({ browser }) => {
  const { mkdtempSync, mkdirSync, writeFileSync } = await import("node:fs");
  const { join } = await import("node:path");
  const { tmpdir } = await import("node:os");
  const top = join(mkdtempSync(join(tmpdir(), "spring-loft-tree-")), "Term papers");
  for (let week = 1; week <= 10; week++) {
    const folder = join(top, `Week ${String(week).padStart(2, "0")}`, "Sheets");
    mkdirSync(folder, { recursive: true });
    for (let n = 1; n <= 20; n++) writeFileSync(join(folder, `sheet ${n}.txt`), `week ${week}, sheet ${n}`);
  }
  const teacher = await signedIn(browser, "tomasz");
  await teacher.locator("tr[data-id]").first().getByRole("link").first().click();
  await teacher.getByLabel("Add a folder with all that is in it").setInputFiles(top);
  // The top folder, ten weeks, and one folder in each.
  await expect(teacher.getByText("21 folders made.")).toBeVisible();
  await expect(teacher.getByText("200 files added")).toBeVisible();
  await isAccessible(teacher, "a folder tree taken in");
  await teacher.getByRole("treeitem", { name: "Start here" }).click();
  await teacher.getByRole("treeitem", { name: "Term papers" }).click();
  await teacher.getByRole("treeitem", { name: "Week 07", exact: true }).click();
  await teacher.getByRole("treeitem", { name: "Sheets" }).click();
  await expect(teacher.getByRole("table", { name: "In Sheets" }).getByRole("rowheader")).toHaveCount(20);
});
