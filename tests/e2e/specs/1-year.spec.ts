import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { isAccessible, signedIn } from "./people";
import { test } from "./server";

// One class carried through a whole school year by a teacher, a student and the coordinator.
test.describe.configure({ mode: "serial" });

const name = "Clay and Glass 9Z · period 6 · 2026–27";
const nextName = "Clay and Glass 9Z · period 6 · 2027–28";
let teacher: Page;
let student: Page;
let coordinator: Page;
let classPath: string;

const text = (s: string) => Buffer.from(s, "utf8");

/** Opens the folder with this name in the tree, unfolding what is above it. */
async function folder(page: Page, ...path: string[]) {
  for (const part of path) await page.getByRole("treeitem", { name: part }).first().click();
  await expect(page.getByRole("heading", { name: path[path.length - 1]!, level: 2 })).toBeVisible();
}

test("the coordinator sees the year board with every cell computed", async ({ browser }) => {
  coordinator = await signedIn(browser, "wren");
  await expect(coordinator.getByRole("heading", { name: "Year board, 2026–27" })).toBeVisible();
  await expect(coordinator.locator("tr[data-id]")).toHaveCount(24);
  await expect(coordinator.getByText("14 of 24")).toBeVisible();
  await isAccessible(coordinator, "the year board");
  await coordinator.getByRole("button", { name: "Blocked 6" }).click();
  await expect(coordinator.locator("tr[data-id]")).toHaveCount(6);
  await expect(coordinator).toHaveURL(/show=blocked/);
  await coordinator.reload();
  await expect(coordinator.locator("tr[data-id]")).toHaveCount(6);
});

test("a teacher makes a class: the name as it will read, a clash refused, the folders beforehand", async ({ browser }) => {
  teacher = await signedIn(browser, "oisin");
  await expect(teacher.locator("tr[data-id]")).toHaveCount(3);
  await teacher.getByRole("link", { name: "Set up", exact: true }).click();
  await teacher.getByLabel("Course").fill("Clay and Glass");
  await teacher.getByLabel("Section").fill("8A");
  await teacher.getByLabel("Period").fill("1");
  await expect(teacher.getByRole("alert")).toContainText("There is already a class");
  await expect(teacher.getByRole("button", { name: "Make the class" })).toBeDisabled();
  await isAccessible(teacher, "making a class, with a clash");
  await teacher.getByLabel("Section").fill("9Z");
  await teacher.getByLabel("Period").fill("6");
  await expect(teacher.getByText(name)).toBeVisible();
  await teacher.getByLabel("Folder plan").click();
  await teacher.getByRole("option", { name: "By unit" }).click();
  await expect(teacher.getByText("staff only").first()).toBeVisible();
  await expect(teacher.getByText("one for each student")).toBeVisible();
  await isAccessible(teacher, "making a class");
  await teacher.getByRole("button", { name: "Make the class" }).click();
  await expect(teacher.getByRole("heading", { name: "Enroll" })).toBeVisible();
  classPath = new URL(teacher.url()).pathname.replace("/enroll", "");
});

test("enrolls from the keyboard: first letters, Enter, the next, Ctrl Enter; then a co-teacher", async () => {
  const picker = teacher.getByLabel("Students, by the first letters of the last name");
  await expect(picker).toBeFocused();
  // s1001 is the student whose sign-in the demo prints.
  await teacher.keyboard.type("1001");
  await expect(teacher.getByRole("option").first()).toContainText("1001");
  await teacher.keyboard.press("Enter");
  for (const letters of ["halv", "hal", "wój"]) {
    await teacher.keyboard.type(letters);
    const options = teacher.getByRole("option");
    if (letters === "halv") {
      await expect(teacher.getByText("Nobody of that name is in the directory.")).toBeVisible();
      await teacher.keyboard.press("Backspace");
      await teacher.keyboard.press("Backspace");
      await teacher.keyboard.press("Backspace");
      await teacher.keyboard.press("Backspace");
      continue;
    }
    await expect(options.first()).toBeVisible();
    await teacher.keyboard.press("Enter");
  }
  const sheet = teacher.getByRole("list", { name: "To be enrolled" });
  await expect(sheet.getByRole("listitem")).toHaveCount(3);
  // Backspace in an empty row takes the last one off; what was typed is not lost by it.
  await teacher.keyboard.press("Backspace");
  await expect(sheet.getByRole("listitem")).toHaveCount(2);
  await teacher.keyboard.type("wój");
  await expect(teacher.getByRole("option").first()).toBeVisible();
  await teacher.keyboard.press("Enter");
  await expect(sheet.getByRole("listitem")).toHaveCount(3);
  await isAccessible(teacher, "the roster desk with a list in hand");
  await teacher.keyboard.press("Control+Enter");
  await expect(teacher.getByText("3 people enrolled")).toBeVisible();
  await expect(teacher.getByRole("status")).toContainText("9 folders unfolded");
  await teacher.getByRole("button", { name: "Co-teachers" }).click();
  await teacher.getByLabel("Staff, by the first letters of the last name").click();
  await teacher.keyboard.type("winter");
  await expect(teacher.getByRole("option").first()).toContainText("Winterbourne");
  await teacher.keyboard.press("Enter");
  await teacher.keyboard.press("Control+Enter");
  await expect(teacher.getByRole("row", { name: /Winterbourne, Léa.*co-teacher/ })).toBeVisible();
  await isAccessible(teacher, "the roster desk");
});

test("drops files into a folder, several at once, and adds a link", async () => {
  await teacher.goto(`${classPath}/set-up`);
  await folder(teacher, "Start here");
  await teacher.locator('input[aria-label="Add files…"]').setInputFiles([
    { name: "Welcome.txt", mimeType: "text/plain", buffer: text("Welcome to the pottery.") },
    { name: "Kiln: rules?.txt", mimeType: "text/plain", buffer: text("Hot.") },
    { name: "nothing.txt", mimeType: "text/plain", buffer: text("") },
  ]);
  await expect(teacher.getByText("2 files added")).toBeVisible();
  await expect(teacher.getByText("has 0 bytes")).toBeVisible();
  await expect(teacher.getByText("kept as “Kiln- rules-.txt”")).toBeVisible();
  await isAccessible(teacher, "the set-up desk after an upload");
  // Dropped, as a person drops them from their own computer.
  const dropped = await teacher.evaluateHandle(() => {
    const data = new DataTransfer();
    for (const [name, text] of [["Syllabus.txt", "Eight pots."], ["Sites.txt", "Three sites."]] as const) data.items.add(new File([text], name));
    return data;
  });
  await teacher.getByRole("table", { name: "In Start here" }).dispatchEvent("drop", { dataTransfer: dropped });
  await expect(teacher.getByRole("link", { name: "Syllabus.txt" })).toBeVisible();
  await expect(teacher.getByRole("link", { name: "Sites.txt" })).toBeVisible();
  await teacher.getByRole("button", { name: "Add a link…" }).click();
  await teacher.getByLabel("Title that makes sense to students").fill("Glaze charts");
  await teacher.getByLabel("Address").fill("glaze charts");
  await teacher.getByRole("button", { name: "Add the link" }).click();
  await expect(teacher.getByRole("alert")).toContainText("The address is not one of the web");
  await teacher.getByLabel("Address").fill("https://glaze.skerrypoint.invalid/charts");
  await teacher.getByRole("button", { name: "Add the link" }).click();
  await expect(teacher.getByRole("link", { name: "Glaze charts" })).toBeVisible();
});

test("sets an assignment that is filed in two folders", async () => {
  await teacher.getByRole("navigation", { name: "Seasons" }).getByRole("link", { name: "Work" }).click();
  await isAccessible(teacher, "the returns desk without an assignment");
  await teacher.getByRole("button", { name: "Make an assignment…" }).click();
  await teacher.getByLabel("Title").fill("Pinch pot");
  await teacher.getByLabel("Instructions").fill("One pot, one page.");
  await teacher.getByLabel("Filed in").click();
  await teacher.keyboard.type("start");
  await teacher.keyboard.press("Enter");
  await teacher.keyboard.press("Control+A");
  await teacher.keyboard.type("02 mat");
  await teacher.keyboard.press("Enter");
  await teacher.keyboard.press("Escape");
  await isAccessible(teacher, "making an assignment");
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher.getByRole("columnheader", { name: /Pinch pot/ })).toContainText("0 of 3 in");
});

test("before it is opened no student sees the class; the first password is changed first", async ({ browser }) => {
  student = await signedIn(browser, "s1001", "tide-pool-lantern");
  await expect(student.getByRole("heading", { name: /^Welcome/ })).toBeVisible();
  await isAccessible(student, "the first password");
  await student.getByLabel("Password from your slip").fill("tide-pool-lantern");
  await student.getByLabel("New password", { exact: true }).fill("short");
  await student.getByLabel("New password again").fill("short");
  await student.getByRole("button", { name: "Set new password" }).click();
  await expect(student.getByRole("alert")).toContainText("Use 8 or more");
  await student.getByLabel("New password", { exact: true }).fill("blue-otter-walks");
  await student.getByLabel("New password again").fill("blue-otter-walks");
  await student.getByRole("button", { name: "Set new password" }).click();
  await expect(student.getByRole("heading", { level: 1, name: /Mon|Tue|Wed|Thu|Fri|Sat|Sun/ })).toBeVisible();
  await expect(student.getByRole("link", { name })).toHaveCount(0);
  await isAccessible(student, "my classes");
});

test("opens the class, announced as the step it is", async () => {
  await teacher.goto(`${classPath}/set-up`);
  await teacher.getByRole("button", { name: "Open the class…" }).click();
  await expect(teacher.getByRole("dialog")).toContainText("Is this period 6? 3 students");
  await isAccessible(teacher, "the step of opening");
  await teacher.getByRole("dialog").getByRole("button", { name: "Open the class" }).click();
  await expect(teacher.getByText("3 students see this class.")).toBeVisible();
});

test("the student sees what the rules allow and no other, adds a file, and hands in", async () => {
  await student.reload();
  await student.getByRole("link", { name }).click();
  for (const seen of ["Start here", "Units", "Shared table", "Own folders"]) await expect(student.getByRole("treeitem", { name: seen })).toBeVisible();
  await expect(student.getByRole("treeitem", { name: "Staff room" })).toHaveCount(0);
  await folder(student, "Own folders");
  // Of the three own folders only the student's own.
  await expect(student.getByRole("treeitem", { level: 2 })).toHaveCount(1);
  await isAccessible(student, "a class as its student sees it");
  await folder(student, "Start here");
  await expect(student.getByRole("button", { name: "Add files…" })).toHaveCount(0);
  await folder(student, "Shared table");
  await student.locator("input[type=file]").setInputFiles([{ name: "my idea.txt", mimeType: "text/plain", buffer: text("An idea.") }]);
  await expect(student.getByRole("link", { name: "my idea.txt" })).toBeVisible();

  await folder(student, "Units", "02 Materials");
  await expect(student.getByRole("region", { name: "Pinch pot" })).toBeVisible();
  await folder(student, "Start here");
  const piece = student.getByRole("region", { name: "Pinch pot" });
  await expect(piece.getByRole("button", { name: "Hand in" })).toBeDisabled();
  await piece.locator("input[type=file]").setInputFiles([{ name: "pot.txt", mimeType: "text/plain", buffer: text("A pot.") }]);
  await piece.getByRole("button", { name: "Hand in" }).click();
  await expect(piece.getByText("handed in: your teacher holds it")).toBeVisible();
  await expect(piece.getByRole("button", { name: "Take out pot.txt" })).toHaveCount(0);
  await isAccessible(student, "an assignment handed in");
});

test("the teacher sees who has handed in, downloads, marks, comments and returns one", async () => {
  await teacher.goto(`${classPath}/work`);
  await expect(teacher.getByRole("columnheader", { name: /Pinch pot/ })).toContainText("1 of 3 in, 1 held");
  await teacher.getByRole("button", { name: /Pinch pot: handed in, held by the teacher/ }).click();
  const slip = teacher.getByRole("complementary", { name: "Slip" });
  const [download] = await Promise.all([teacher.waitForEvent("download"), slip.getByRole("link", { name: "pot.txt" }).click()]);
  expect(readFileSync(await download.path(), "utf8")).toBe("A pot.");
  await slip.getByLabel("Mark, of 20").fill("25");
  await slip.getByRole("button", { name: "Keep as draft" }).click();
  await expect(slip.getByRole("alert")).toContainText("not between 0 and 20");
  await slip.getByLabel("Mark, of 20").fill("17");
  await slip.getByRole("button", { name: "Keep as draft" }).click();
  await slip.getByLabel("For this student alone").fill("A good rim.");
  await slip.getByRole("button", { name: "Comment" }).click();
  await expect(slip.getByText("A good rim.")).toBeVisible();
  await isAccessible(teacher, "a piece of work in hand");

  // A draft mark is not a returned mark.
  await student.reload();
  await expect(student.getByText("A good rim.")).toHaveCount(0);
  await expect(student.getByText("17 of 20")).toHaveCount(0);
  await slip.getByRole("button", { name: "Return with 17 of 20" }).click();
  await expect(slip.getByText("Mark: 17 of 20")).toBeVisible();
  await student.reload();
  await expect(student.getByText("returned, 17 of 20")).toBeVisible();
  await expect(student.getByText("A good rim.")).toBeVisible();
});

test("two windows of one teacher: what was changed meanwhile is told, not overwritten", async ({ browser }) => {
  // The student hands in again, so that there is something to mark.
  const piece = student.getByRole("region", { name: "Pinch pot" });
  await piece.getByRole("button", { name: "Work on it again" }).click();
  await piece.getByRole("button", { name: "Hand in again" }).click();
  await expect(piece.getByText("handed in: your teacher holds it")).toBeVisible();
  const other = await signedIn(browser, "oisin");
  for (const page of [teacher, other]) {
    await page.goto(`${classPath}/work`);
    await page.getByRole("button", { name: /Pinch pot: handed in, held by the teacher/ }).click();
    await page.getByLabel("Mark, of 20").fill(page === teacher ? "18" : "12");
  }
  await teacher.getByRole("button", { name: "Keep as draft" }).click();
  await expect(teacher.getByRole("button", { name: "Return with 18 of 20" })).toBeEnabled();
  await other.getByRole("button", { name: "Keep as draft" }).click();
  await expect(other.getByRole("alert").filter({ hasText: "Somebody else changed this work" })).toBeVisible();
  await other.context().close();
});

test("work that is not returned blocks closing; return all mends it", async () => {
  await teacher.goto(`${classPath}/close`);
  await expect(teacher.getByRole("row", { name: /^blocked/ }).filter({ hasText: "marked but not returned" })).toBeVisible();
  await expect(teacher.getByRole("button", { name: "Close this class…" })).toBeDisabled();
  await isAccessible(teacher, "the closing desk, blocked");
  await teacher.getByRole("link", { name: "Return it" }).click();
  await teacher.getByRole("button", { name: "Return what is held…" }).click();
  await expect(teacher.getByRole("dialog")).toContainText("1 piece to 1 student; 1 draft mark becomes returned");
  await isAccessible(teacher, "returning all");
  await teacher.getByRole("button", { name: "Return 1 piece of work" }).click();
  await expect(teacher.getByText("Nothing is held")).toBeVisible();
});

test("closes the class: a run with steps, and the class then stands in the loft", async () => {
  await teacher.goto(`${classPath}/close`);
  await isAccessible(teacher, "the closing desk, ready");
  await teacher.getByRole("button", { name: "Close this class…" }).click();
  await isAccessible(teacher, "the step of closing");
  await teacher.getByRole("button", { name: "Close the class" }).click();
  await expect(teacher.getByRole("heading", { name: "Closed and verified" })).toBeVisible();
  await expect(teacher.getByText(/files read back, all as in the class/)).toBeVisible();
  await isAccessible(teacher, "a closed class");
  await teacher.getByRole("link", { name: "Go to the loft" }).click();
  await expect(teacher.getByRole("table", { name: "School year 2026–27" }).getByRole("row", { name })).toBeVisible();
  await isAccessible(teacher, "the loft");
  const [download] = await Promise.all([teacher.waitForEvent("download"), teacher.getByRole("link", { name: `Download the package of ${name}` }).click()]);
  expect(download.suggestedFilename()).toBe(`${name}.zip`);
});

test("archived it is read-only for all, the student takes their work home, and it can be restored", async () => {
  await teacher.goto(`${classPath}/set-up`);
  await expect(teacher.getByRole("button", { name: "Add files…" })).toHaveCount(0);
  await student.goto("/");
  const [download] = await Promise.all([
    student.waitForEvent("download"),
    student.getByRole("listitem").filter({ hasText: name }).getByRole("link", { name: "Download your work" }).click(),
  ]);
  expect(readFileSync(await download.path()).includes(text("A pot."))).toBe(true);
  await student.getByRole("link", { name }).click();
  await expect(student.getByText("archived: you may look")).toBeVisible();
  await expect(student.getByRole("button", { name: /Hand in/ })).toHaveCount(0);
  await isAccessible(student, "an archived class");

  await coordinator.goto("/loft");
  await coordinator.getByRole("button", { name: `Restore ${name}` }).click();
  await isAccessible(coordinator, "restoring");
  await coordinator.getByRole("button", { name: "Restore the class" }).click();
  await expect(coordinator.getByRole("dialog")).toBeHidden();
  await expect(coordinator.getByRole("button", { name: `Restore ${name}` })).toHaveCount(0);
  await coordinator.goto(`${classPath}/close`);
  await coordinator.getByRole("button", { name: "Close this class…" }).click();
  await coordinator.getByRole("button", { name: "Close the class" }).click();
  await expect(coordinator.getByRole("heading", { name: "Closed and verified" })).toBeVisible();
});

test("rolls the class over: says what comes along and what stays, and makes next year's", async () => {
  await teacher.goto(`${classPath}/roll-over`);
  await expect(teacher.getByRole("row", { name: /Assignments/ })).toContainText("1");
  await expect(teacher.getByRole("row", { name: /^Students/ })).toContainText("3");
  await expect(teacher.getByText(nextName)).toBeVisible();
  await isAccessible(teacher, "the roll-over desk");
  await teacher.getByRole("button", { name: "Make next year’s class" }).click();
  await expect(teacher.getByText(nextName)).toBeVisible();
  await expect(teacher.getByText("Nobody is on the roster.")).toBeVisible();
  await folder(teacher, "Start here");
  await expect(teacher.getByRole("link", { name: "Welcome.txt" })).toBeVisible();
  await expect(teacher.getByRole("link", { name: "Glaze charts" })).toBeVisible();
  await expect(teacher.getByRole("row", { name: /Pinch pot/ })).toContainText("draft");
  await expect(teacher.getByRole("row", { name: /Pinch pot/ })).toContainText("no date");
  await expect(teacher.getByText("None yet.")).toBeVisible();
  await isAccessible(teacher, "next year's class in preparation");
});

test("the audit trail tells the coordinator who did what", async () => {
  await coordinator.goto("/audit");
  await expect(coordinator.getByRole("row", { name: /rolled over/ }).first()).toContainText("Oisín Farquhar");
  await expect(coordinator.getByRole("row", { name: /restored class/ }).first()).toContainText("Wren");
  await isAccessible(coordinator, "the audit trail");
});

test("the demo's date is moved from the screen, and the year line moves with it", async () => {
  await coordinator.getByRole("button", { name: /^Wren/ }).click();
  await coordinator.getByRole("menuitem", { name: "Move the demo's date…" }).click();
  await coordinator.getByRole("dialog").getByLabel("Today is").fill("2026-09-14");
  await coordinator.getByRole("button", { name: "Move the date" }).click();
  await expect(coordinator.getByText("Mon 14 September")).toBeVisible();
});
