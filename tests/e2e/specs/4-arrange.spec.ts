import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, type Page } from "@playwright/test";
import { isAccessible, quiet, signedIn } from "./people";
import { test } from "./server";

// What stands in a workspace besides plain folders: groups, pages, zips, the same things for many classes, a department's bank.
test.describe.configure({ mode: "serial" });

let teacher: Page;
let classId: string;

const folder = (name: string) => teacher.getByRole("treeitem", { name }).first();

async function openFolder(name: string) {
  await folder(name).click();
  await expect(teacher.getByRole("heading", { name, level: 2 })).toBeVisible();
}

test("many classes are made from a pasted table, and a row that can't be is told before", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.goto("/set-up/many");
  const paste = (text: string) =>
    page.getByLabel("Course of row 1", { exact: true }).evaluate((field, t) => {
      const data = new DataTransfer();
      data.setData("text", t);
      field.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
    }, text);
  await paste("Course\tSection\tPeriod\tRoom\tLead teacher\nLantern Making\t6A\t2\tKiln room\tNobody Known\nLantern Making\t6B\t4\tKiln room\toisin");
  await expect(page.getByText("The directory has no teacher “Nobody Known”.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Make 2 classes" })).toBeDisabled();
  await isAccessible(page, "a table of classes with an error");
  await page.getByLabel("Lead teacher of row 1").fill("ngozi");
  await expect(page.getByText(/^led by Oisín/)).toBeVisible();
  await page.getByRole("button", { name: "Make 2 classes" }).click();
  await expect(page.getByText("2 classes made, in preparation")).toBeVisible();
  // Which arrangement: in the shared one no student sees another section's folders.
  await page.getByLabel("Folder plan, where a row names none").click();
  await page.getByRole("option", { name: "Weeks, own folders and groups" }).click();
  await page.getByRole("button", { name: "one shared workspace" }).click();
  await expect(page.getByText("No student sees another section's folders.")).toBeVisible();
  await isAccessible(page, "the arrangements");
});

test("a group gets its folder, and only its members open it", async ({ browser }) => {
  teacher = await signedIn(browser, "cait");
  const first = teacher.locator("tr[data-id]").first();
  classId = (await first.getAttribute("data-id"))!;
  await teacher.goto(`/classes/${classId}/groups`);
  await expect(teacher.getByText("No group yet.")).toBeVisible();
  await isAccessible(teacher, "groups, none yet");
  await teacher.getByLabel("Name of a new group").fill("Drummers");
  await teacher.getByRole("button", { name: "Make the group" }).click();
  const boxes = teacher.getByRole("table", { name: "Students and groups" }).getByRole("checkbox");
  await boxes.first().focus();
  await teacher.keyboard.press("Space");
  await expect(boxes.first()).toBeChecked();
  await teacher.keyboard.press("ArrowDown");
  await expect(boxes.nth(1)).toBeFocused();
  await isAccessible(teacher, "groups");

  await teacher.getByRole("link", { name: "Back to set up" }).click();
  await teacher.getByRole("button", { name: "Make a folder…" }).click();
  await teacher.getByLabel("Name", { exact: true }).fill("Drummers");
  await teacher.getByLabel("Who may do what").click();
  await teacher.getByRole("option", { name: "one per group" }).click();
  await teacher.getByLabel("bin what others put in").uncheck();
  await isAccessible(teacher, "a group's folder");
  await teacher.getByRole("button", { name: "Make the folder" }).click();
  await openFolder("Drummers");
  await expect(teacher.getByText("one per group, Drummers and staff")).toBeVisible();

  await teacher.goto(`/classes/${classId}/see-as`);
  await expect(teacher.getByRole("treeitem", { name: "Start here" })).toBeVisible();
  await expect(teacher.getByRole("treeitem", { name: "Drummers" })).toHaveCount(0);
  // Whom one can see as is read after the folders: before that the list would be drawn anew while it is open.
  await quiet(teacher);
  await teacher.getByRole("combobox", { name: "See as" }).click();
  await teacher.getByRole("option").nth(1).click();
  await expect(teacher.getByRole("treeitem", { name: "Drummers" })).toBeVisible();
});

test("a change of a folder is undone in one click", async () => {
  await teacher.goto(`/classes/${classId}/set-up`);
  await openFolder("Drummers");
  await teacher.getByRole("button", { name: "Change…", exact: true }).click();
  await teacher.getByLabel("Name", { exact: true }).fill("Drum crew");
  await teacher.getByRole("button", { name: "Change it" }).click();
  await expect(folder("Drum crew")).toBeVisible();
  await teacher.getByRole("button", { name: "Undo" }).click();
  await expect(folder("Drummers")).toBeVisible();
  await expect(folder("Drum crew")).toHaveCount(0);
});

test("a folder is dragged into another, or taken up and put down with the keys, and stands where it was after one click", async () => {
  await folder("Drummers").dragTo(folder("Start here"));
  await expect(teacher.getByText("“Drummers” stands in “Start here”.")).toBeVisible();
  await folder("Start here").click();
  await expect(teacher.getByRole("treeitem", { name: "Drummers", level: 2 })).toBeVisible();
  await teacher.getByRole("button", { name: "Undo" }).click();
  await expect(teacher.getByRole("treeitem", { name: "Drummers", level: 1 })).toBeVisible();

  await folder("Drummers").focus();
  await teacher.keyboard.press("Control+x");
  await expect(teacher.getByText("“Drummers” is taken up")).toBeVisible();
  await teacher.keyboard.press("Home");
  await teacher.keyboard.press("Control+v");
  await expect(teacher.getByText(/^“Drummers” stands in/)).toBeVisible();
  await teacher.getByRole("button", { name: "Undo" }).click();
  await expect(teacher.getByRole("treeitem", { name: "Drummers", level: 1 })).toBeVisible();
});

test("a page is written with formats, and nothing in it is run or leads astray", async () => {
  await openFolder("Start here");
  await teacher.getByRole("button", { name: "Write a page…" }).click();
  await teacher.getByLabel("Title of the page").fill("How we listen");
  await teacher
    .getByLabel("Text", { exact: true })
    .fill("## First\n\n**Still hands.**\n\n<script>document.title = 'taken'</script>\n\n[go](javascript:alert(1)) [notes](https://notes.invalid/)\n\n![x](https://spy.invalid/x.png)");
  const page = teacher.getByRole("region", { name: "Write a page" });
  await expect(page.getByText("Still hands.", { exact: true })).toBeVisible();
  await isAccessible(teacher, "writing a page");
  await teacher.reload();
  await teacher.getByRole("button", { name: "Write a page…" }).click();
  await expect(teacher.getByLabel("Title of the page")).toHaveValue("How we listen");
  await teacher.getByRole("button", { name: "Add the page" }).click();
  await teacher.getByRole("button", { name: "How we listen", exact: true }).click();
  await expect(teacher.getByRole("heading", { name: "First" })).toBeVisible();
  await expect(teacher.getByRole("link", { name: "notes" })).toHaveAttribute("href", "https://notes.invalid/");
  expect(await teacher.title()).not.toBe("taken");
  expect(await teacher.evaluate(() => [...document.querySelectorAll("main a, main img, main script")].filter((e) => /javascript:|spy\.invalid|taken/.test(e.outerHTML)).length)).toBe(0);
  await isAccessible(teacher, "a page");
});

test("two who write on one page both keep what they wrote, and the earlier page can be looked at", async ({ browser }) => {
  const other = await signedIn(browser, "wren");
  const save = (text: string, version: number) =>
    other.evaluate(
      async ([id, name, t, v]) => {
        const w = await (await fetch(`/api/classes/${id}/workspace`)).json();
        const page = w.items.find((i: { name: string }) => i.name === name);
        const answer = await fetch(`/api/classes/${id}/items/${page.id}/page`, { method: "PUT", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ title: name, text: t, version: v }) });
        return answer.status;
      },
      [classId, "How we listen", text, version] as const,
    );
  expect(await save("First line\n\nMonday: quiet\n\nLast line", 1)).toBe(204);
  await teacher.reload();
  await teacher.getByRole("button", { name: "Change the page…" }).click();
  await teacher.getByLabel("Text", { exact: true }).fill("First line, mine\n\nMonday: loud\n\nLast line");
  expect(await save("First line\n\nMonday: silent\n\nLast line, theirs", 2)).toBe(204);
  // Coming back to the window reads the page anew: what is being written stays.
  await teacher.evaluate(() => window.dispatchEvent(new Event("focus")));
  await teacher.evaluate(() => document.dispatchEvent(new Event("visibilitychange")));
  await expect(teacher.getByLabel("Text", { exact: true })).toHaveValue(/Monday: loud/);
  await teacher.getByRole("button", { name: "Save the page" }).click();
  const both = teacher.getByRole("region", { name: "Two wrote on this page" });
  await expect(both).toContainText("First line, mine");
  await expect(both).toContainText("Last line, theirs");
  await expect(both.getByRole("button", { name: "Save the page with both" })).toBeDisabled();
  await isAccessible(teacher, "a page that two wrote on");
  await both.getByLabel(/^Both/).check();
  // Saved once more before the decision is sent: nothing that was chosen for the page before stands for this one.
  expect(await save("First line, again\n\nMonday: silent\n\nLast line, theirs", 3)).toBe(204);
  // Where the window has read the page anew by then, the choice is gone and the button shut already: pressing it does nothing.
  await both.getByRole("button", { name: "Save the page with both" }).evaluate((b: HTMLButtonElement) => b.click());
  await expect(both).toContainText("2 places to decide");
  for (const place of await both.getByLabel(/^Both/).all()) await expect(place).not.toBeChecked();
  await both.getByLabel(/^Yours/).first().check();
  await both.getByLabel(/^Both/).nth(1).check();
  await both.getByRole("button", { name: "Save the page with both" }).click();
  for (const text of ["First line, mine", "Monday: loud", "Monday: silent", "Last line, theirs"]) await expect(teacher.getByText(text)).toBeVisible();

  await teacher.getByRole("button", { name: "Earlier versions" }).click();
  const versions = teacher.getByRole("region", { name: "Earlier versions" });
  await versions.getByRole("button", { name: "Look at it" }).nth(2).click();
  await expect(versions.getByText("Monday: quiet")).toBeVisible();
  await versions.getByRole("button", { name: "Compare with now" }).nth(2).click();
  await expect(versions.locator("del", { hasText: "quiet" })).toBeVisible();
  await expect(versions.locator("ins", { hasText: "loud" })).toBeVisible();
  await isAccessible(teacher, "two versions of a page compared");
  await versions.getByRole("button", { name: "Fold it away" }).click();
  await versions.getByRole("button", { name: "Bring it back" }).nth(2).click();
  await expect(teacher.getByText("Monday: quiet")).toBeVisible();
  await expect(teacher.getByText("Monday: loud")).toBeHidden();
  await other.context().close();
});

test("a file put in again under its name keeps the one before, which can be fetched and brought back", async () => {
  await openFolder("Start here");
  const put = (text: string) => teacher.locator('input[type="file"][multiple]:not([webkitdirectory])').first().setInputFiles({ name: "tide table.txt", mimeType: "text/plain", buffer: Buffer.from(text) });
  await put("high at nine");
  // In the folder, not only on its way there.
  await expect(teacher.getByRole("button", { name: "Acts on tide table.txt" })).toBeVisible();
  await put("high at ten");
  await expect(teacher.getByText("a new version: the one before is kept")).toBeVisible();
  await expect(teacher.getByRole("button", { name: "Acts on tide table.txt" })).toHaveCount(1);
  await teacher.getByRole("button", { name: "Acts on tide table.txt" }).click();
  await teacher.getByRole("menuitem", { name: "Earlier versions…" }).click();
  const dialog = teacher.getByRole("dialog");
  const [download] = await Promise.all([teacher.waitForEvent("download"), dialog.getByRole("link", { name: /^Download the version/ }).click()]);
  expect(readFileSync((await download.path())!, "utf8")).toBe("high at nine");
  await isAccessible(teacher, "earlier versions of a file");
  await dialog.getByRole("button", { name: "Bring it back" }).click();
  await expect(dialog).toBeHidden();
  const now = await teacher.evaluate(async (id) => {
    const w = await (await fetch(`/api/classes/${id}/workspace`)).json();
    const item = w.items.find((i: { name: string }) => i.name === "tide table.txt");
    return await (await fetch(`/api/classes/${id}/items/${item.id}/content`)).text();
  }, classId);
  expect(now).toBe("high at nine");
});

test("what is binned stands in the bin with who and from where, and comes back", async () => {
  await openFolder("Start here");
  await teacher.getByRole("button", { name: "Acts on How we listen" }).click();
  await teacher.getByRole("menuitem", { name: /bin/i }).click();
  await expect(teacher.getByText("“How we listen” is in the bin.")).toBeVisible();
  await teacher.getByRole("link", { name: "Look into the bin" }).click();
  const row = teacher.getByRole("table", { name: "In the bin" }).getByRole("row").filter({ hasText: "How we listen" });
  await expect(row).toContainText("Start here");
  await isAccessible(teacher, "the bin of a class");
  await row.getByRole("button", { name: /^Bring back/ }).click();
  await expect(teacher.getByText("“How we listen” is back in “Start here”.")).toBeVisible();
  await expect(row).toHaveCount(0);
  await teacher.getByRole("link", { name: "Back to the class" }).click();
  await openFolder("Start here");
  await expect(teacher.getByRole("button", { name: "How we listen", exact: true })).toBeVisible();
});

test("a zip keeps its shape, a dangerous one is refused whole, and a folder comes out as a zip", async () => {
  const here = mkdtempSync(join(tmpdir(), "spring-loft-zip-"));
  mkdirSync(join(here, "tree", "Songs", "Autumn"), { recursive: true });
  writeFileSync(join(here, "tree", "Songs", "Autumn", "harbour.txt"), "harbour song");
  writeFileSync(join(here, "tree", "Songs", "list.txt"), "one song");
  execFileSync("zip", ["-q", "-r", "../good.zip", "."], { cwd: join(here, "tree") });
  symlinkSync("/etc/passwd", join(here, "tree", "link"));
  execFileSync("zip", ["-q", "-y", "-r", "../bad.zip", "."], { cwd: join(here, "tree") });

  await openFolder("Start here");
  await teacher.getByLabel("Unpack a zip here").setInputFiles(join(here, "bad.zip"));
  await expect(teacher.getByText("is a link to another place, not a file")).toBeVisible();
  await expect(folder("Songs")).toHaveCount(0);
  await teacher.getByLabel("Unpack a zip here").setInputFiles(join(here, "good.zip"));
  await expect(teacher.getByText("2 folders made, 2 files added.")).toBeVisible();
  await isAccessible(teacher, "a zip taken in");
  const waiting = teacher.waitForEvent("download");
  await teacher.getByRole("link", { name: "Download as zip" }).click();
  const out = join(here, "out.zip");
  await (await waiting).saveAs(out);
  expect(execFileSync("unzip", ["-p", out, "Start here/Songs/Autumn/harbour.txt"]).toString()).toBe("harbour song");
});

test("a thing is filed in several folders, and given to other classes in one act", async () => {
  await openFolder("Start here");
  await teacher.getByRole("button", { name: "Acts on How we listen" }).click();
  await teacher.getByRole("menuitem", { name: "File in…" }).click();
  await teacher.getByLabel("Stands in").fill("Drummers");
  await teacher.getByRole("option", { name: "Drummers", exact: true }).click();
  await teacher.getByRole("button", { name: "File it in 2 folders" }).click();
  await expect(teacher.getByRole("row", { name: /How we listen/ })).toContainText("in 2 folders");

  await teacher.getByRole("button", { name: "Acts on How we listen" }).click();
  await teacher.getByRole("menuitem", { name: "Give to other classes…" }).click();
  const give = teacher.getByRole("dialog");
  await give.getByRole("checkbox", { name: /^all/ }).check();
  await expect(give.getByText(/1 thing/).first()).toBeVisible();
  await isAccessible(teacher, "giving to several classes");
  await give.getByRole("button", { name: /^Give to \d class/ }).click();
  await expect(give.getByRole("heading")).toContainText("given to");
  await give.getByRole("button", { name: "Done" }).click();
});

test("the welcome note, what the class uses and its calendar stand in the class for its students", async () => {
  await teacher.getByRole("button", { name: "Welcome note…" }).click();
  await teacher.getByLabel("Students read this first").fill("**Bring your sticks.**");
  await isAccessible(teacher, "the welcome note");
  await teacher.getByRole("button", { name: "Save the welcome note" }).click();
  await teacher.getByRole("button", { name: "What it uses…" }).click();
  await teacher.getByLabel("Tide tables of the island").check();
  await isAccessible(teacher, "what a class uses");
  await teacher.getByRole("button", { name: /^Use \d thing/ }).click();
  await teacher.getByRole("button", { name: "Class calendar…" }).click();
  await teacher.getByRole("button", { name: "Make the class calendar" }).click();
  const address = await teacher.getByLabel("Address").inputValue();
  await isAccessible(teacher, "the class calendar");
  await teacher.getByRole("dialog").getByRole("button", { name: "Done" }).click();
  const feed = await teacher.request.get(address);
  expect(feed.headers()["content-type"]).toContain("text/calendar");
  expect(await feed.text()).toContain("BEGIN:VCALENDAR");
  await teacher.goto(`/classes/${classId}/see-as`);
  await expect(teacher.getByRole("region", { name: "Welcome note" })).toContainText("Bring your sticks.");
  await expect(teacher.getByRole("link", { name: "Tide tables of the island" })).toBeVisible();
});

test("what is said about a class is changed, and its name follows", async () => {
  await teacher.goto(`/classes/${classId}/set-up`);
  await teacher.getByRole("button", { name: "About this class…" }).click();
  await teacher.getByLabel("Period", { exact: true }).fill("9");
  await teacher.getByLabel("Room", { exact: true }).fill("Loft over the boathouse");
  await isAccessible(teacher, "about this class");
  await teacher.getByRole("button", { name: "Save", exact: true }).click();
  await expect(teacher.getByText(/period 9 · 2026–27/).first()).toBeVisible();
  await expect(teacher.getByText("period 9 · room Loft over the boathouse")).toBeVisible();
});

test("the bank of a department is used in classes, and a change is offered to copies", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.goto("/plan/departments");
  await expect(page.getByRole("table", { name: "Departments" })).toContainText("2 could follow");
  await isAccessible(page, "departments");
  await page.getByRole("link", { name: "Crafts department" }).click();
  await expect(page.getByRole("region", { name: "Copies behind the bank" })).toContainText("Measured drawing");
  await isAccessible(page, "a department");
  // One of the two classes that have a copy.
  await page.goto("/classes/26/set-up");
  const offers = page.getByRole("region", { name: "Newer in the bank" });
  await offers.getByRole("button", { name: /Take the bank/ }).click();
  await expect(offers).toHaveCount(0);
});

test("the school's list and its user names are kept by the coordinator", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.goto("/plan/shared");
  await page.getByRole("button", { name: "Add a site…" }).click();
  await page.getByLabel("Title that makes sense").fill("Weather of the skerries");
  await page.getByLabel("Address", { exact: true }).fill("weather");
  await page.getByRole("button", { name: "Add the site" }).click();
  await expect(page.getByRole("alert")).toContainText("Give it whole");
  await page.getByLabel("Address", { exact: true }).fill("https://weather.invalid/");
  await page.getByRole("button", { name: "Add the site" }).click();
  await expect(page.getByRole("table", { name: "Sites and materials" })).toContainText("Weather of the skerries");
  await isAccessible(page, "sites and materials");
  const waiting = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download as a bundle" }).click();
  const bundle = await (await waiting).path();
  expect(execFileSync("unzip", ["-p", bundle, "resources.csv"]).toString()).toContain("Weather of the skerries");
  await page.getByLabel("Read resources…").setInputFiles({ name: "resources.csv", mimeType: "text/csv", buffer: Buffer.from("sourcedId,title,vendorResourceId\r\nx1,Star charts,https://stars.invalid/\r\n,Nameless,y\r\n") });
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("1 would be added");
  await expect(dialog).toContainText("resources.csv, line 3, sourcedId");
  await dialog.getByRole("button", { name: "Take them in" }).click();
  await expect(page.getByRole("table", { name: "Sites and materials" })).toContainText("Star charts");

  await page.goto("/plan/user-names");
  await page.getByLabel("Pattern", { exact: true }).fill("{given}");
  await expect(page.getByText(/would need a number to be told apart/)).toBeVisible();
  await isAccessible(page, "user names");
});

test("a set-up leaves as a cartridge and is taken in elsewhere, after what it makes is told", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const own = (await page.locator("tr[data-id]", { hasText: "Boatbuilding 6B" }).getAttribute("data-id"))!;
  const others = (await page.locator("tr[data-id]", { hasText: "Lantern Making 6B" }).getAttribute("data-id"))!;
  await page.goto(`/classes/${own}/set-up`);
  await page.getByRole("button", { name: "Set-up as a file…" }).click();
  const waiting = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download a cartridge" }).click();
  const cartridge = await (await waiting).path();
  expect(execFileSync("unzip", ["-p", cartridge, "imsmanifest.xml"]).toString()).toContain("<schemaversion>1.3.0</schemaversion>");

  await page.goto(`/classes/${others}/set-up`);
  await page.getByRole("button", { name: "Set-up as a file…" }).click();
  const dialog = page.getByRole("dialog");
  const choose = (name: string, buffer: Buffer) => dialog.locator("input[type=file]").setInputFiles({ name, mimeType: "application/zip", buffer });
  await choose("broken.imscc", Buffer.from("no zip at all"));
  await expect(dialog.getByRole("alert")).toContainText("broken, or no zip at all");
  await expect(dialog.getByRole("button", { name: "Take it into this class" })).toBeDisabled();
  await choose("class.imscc", readFileSync(cartridge));
  await expect(dialog.getByRole("status")).toContainText("will make:");
  await isAccessible(page, "a cartridge before it is taken in");
  const told = (await dialog.getByRole("status").textContent())!.replace("will make:", "");
  await dialog.getByRole("button", { name: "Take it into this class" }).click();
  await expect(dialog.getByRole("status")).toContainText("made:");
  expect((await dialog.getByRole("status").textContent())!.replace("made:", "").replace(/^\W*/, "")).toBe(told.replace(/^\W*/, ""));
  await dialog.getByRole("button", { name: "Close" }).last().click();
  await expect(page.getByRole("treeitem", { name: "Units" })).toBeVisible();
  await page.context().close();
});

test("blind spots are counted on the board", async () => {
  await teacher.goto(`/classes/${classId}/groups`);
  await teacher.getByRole("button", { name: "Change group Drummers" }).click();
  await teacher.getByRole("button", { name: "Not now" }).click();
  const saved = teacher.waitForResponse((r) => r.request().method() !== "GET" && r.url().includes("/groups"));
  await teacher.getByRole("table", { name: "Students and groups" }).getByRole("checkbox", { checked: true }).first().uncheck();
  // Gone to the board before it is answered, it would be cut off.
  await saved;
  await teacher.goto("/");
  await expect(teacher.locator(`tr[data-id="${classId}"]`)).toContainText("1 blind spot");
  await isAccessible(teacher, "the board with a blind spot");
});

test("the planning desks are accessible in the dark too", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.emulateMedia({ colorScheme: "dark" });
  for (const path of ["/plan/years", "/plan/names", "/plan/user-names", "/plan/shared", "/plan/departments", "/plan/put?plan=1", "/set-up/many", `/classes/${classId}/groups`, `/classes/${classId}/see-as`]) {
    await page.goto(path);
    await expect(page.getByRole("main")).toBeVisible();
    await isAccessible(page, `${path} in the dark`);
  }
});
