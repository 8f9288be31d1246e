import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

// Several write one page at once: each sees the others' words, one is cut off and comes back, and nothing typed is lost.
let teacher: Page;
let student: Page;
let classId: number;
let itemId: number;
let folder: number;

test.beforeAll(async ({ browser }) => {
  teacher = await signedIn(browser, "wren");
  student = await signedIn(browser, "s1001", "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "blue-otter-walks-9");
  const mine = (await (await student.request.get("/api/my-classes")).json()) as { id: number; state: string }[];
  classId = mine.find((k) => k.state === "Open")!.id;
  const made = await teacher.request.post(`/api/classes/${classId}/folders`, { data: { name: "Logbook", parent: null, rule: "ClassEdits", place: 0, version: 0 } });
  expect(made.ok(), await made.text()).toBe(true);
  folder = ((await made.json()) as { id: number }).id;
  const page = await teacher.request.post(`/api/classes/${classId}/folders/${folder}/pages`, { data: { title: "Tides", text: "High at nine.\n", version: 0 } });
  expect(page.ok(), await page.text()).toBe(true);
  itemId = ((await page.json()) as { id: number }).id;
});

test.afterAll(async () => {
  await teacher.context().close();
  await student.context().close();
});

const editor = (page: Page) => page.getByRole("textbox", { name: "Text of the page" });
const reads = (page: Page) => page.locator(".together-words");

async function open(page: Page, path: string) {
  await page.goto(`/classes/${classId}${path}?folder=${folder}`);
  await page.getByRole("button", { name: "Tides" }).or(page.getByRole("link", { name: "Tides" })).first().click();
  await expect(page.getByText("Everything is kept.")).toBeVisible();
}

test("what one writes the other reads at once, with who is there", async () => {
  await open(teacher, "/set-up");
  await open(student, "");
  await expect(teacher.getByText(/^Here too: /)).toBeVisible();
  await isAccessible(student, "a page that several write, as it is read");
  await student.getByRole("button", { name: "Write with the others" }).click();
  await editor(student).press("Control+End");
  await editor(student).pressSequentially("Low at **three**.");
  await expect(reads(teacher)).toContainText("Low at three.");
  await isAccessible(student, "a page that several write, as it is written");
  await teacher.getByRole("button", { name: "Write with the others" }).click();
  await editor(teacher).press("Control+Home");
  await editor(teacher).pressSequentially("Seen from the quay.\n\n");
  await expect(reads(student)).toContainText("Seen from the quay.");
  await expect(reads(student)).toContainText("Low at three.");
});

test("cut off, one goes on typing; back, both have everything, and the page's text soon too", async () => {
  await student.context().setOffline(true);
  await editor(student).press("Control+End");
  await editor(student).pressSequentially(" Typed alone.");
  await expect(student.getByText("Cut off.", { exact: false })).toBeVisible({ timeout: 60_000 });
  await editor(teacher).press("Control+Home");
  await editor(teacher).pressSequentially("Meanwhile. ");
  await expect(reads(teacher)).not.toContainText("Typed alone.");
  await student.context().setOffline(false);
  await expect(reads(teacher)).toContainText("Typed alone.", { timeout: 60_000 });
  await expect(reads(student)).toContainText("Meanwhile.");
  await expect(student.getByText("Everything is kept.")).toBeVisible();
  await expect(async () => {
    const page = (await (await student.request.get(`/api/classes/${classId}/items/${itemId}/page`)).json()) as { text: string; writers: string[] };
    expect(page.text).toContain("Meanwhile. Seen from the quay.");
    expect(page.text).toContain("Typed alone.");
    expect(page.writers).toHaveLength(2);
  }).toPass({ timeout: 60_000 });
});

test("what stood before they wrote is an earlier version, and undo takes back one's own alone", async () => {
  await editor(teacher).press("Control+End");
  await editor(teacher).pressSequentially(" Oops.");
  await expect(reads(student)).toContainText("Oops.");
  await editor(student).press("Control+End");
  await editor(student).pressSequentially(" Kept.");
  await expect(reads(teacher)).toContainText("Kept.");
  await editor(teacher).press("Control+z");
  await expect(reads(student)).not.toContainText("Oops.");
  await expect(reads(student)).toContainText("Kept.");
  await teacher.getByRole("button", { name: "Done writing" }).click();
  await teacher.getByRole("button", { name: "Earlier versions" }).click();
  const versions = teacher.getByRole("region", { name: "Earlier versions" });
  await versions.getByRole("button", { name: "Look at it" }).first().click();
  await expect(versions.getByText("High at nine.")).toBeVisible();
});

test("a student makes a folder where the class edits, and a page is made for each group in one act", async () => {
  await student.getByRole("link", { name: "Back to the folder" }).or(student.getByRole("button", { name: "Back to the folder" })).click();
  await student.getByRole("button", { name: "Make a folder…" }).click();
  const dialog = student.getByRole("dialog");
  await dialog.getByLabel("Name of the folder").fill("June");
  await isAccessible(student, "making a folder as a student");
  await dialog.getByRole("button", { name: "Make the folder" }).click();
  await expect(dialog).toHaveCount(0);
  await expect(student.getByRole("heading", { level: 2, name: "June" })).toBeVisible();

  const me = (await (await student.request.get("/api/me")).json()) as { id: number };
  const group = await teacher.request.post(`/api/classes/${classId}/groups`, { data: { name: "Tide", members: [me.id], version: 0 } });
  expect(group.ok(), await group.text()).toBe(true);
  await teacher.goto(`/classes/${classId}/set-up?folder=${folder}`);
  await teacher.getByRole("button", { name: "Write a page…" }).click();
  await teacher.getByLabel("Title of the page").fill("Findings");
  await teacher.getByLabel(/^A page for each group/).check();
  await teacher.getByRole("button", { name: "Add a page for each group" }).click();
  await expect(teacher.getByRole("button", { name: "Write a page…" })).toBeVisible();
  await open(student, "");
  await student.getByRole("treeitem", { name: /Logbook/ }).press("ArrowRight");
  await student.getByRole("treeitem", { name: /Tide/ }).click();
  await student.getByText("Findings").first().click();
  await expect(student.getByRole("button", { name: "Write with the others" })).toBeVisible();
  await open(student, "");
  await student.getByRole("button", { name: "Write with the others" }).click();
});

test("set to view only in the middle, one reads on and is told why", async () => {
  await open(teacher, "/set-up");
  const me = (await (await student.request.get("/api/me")).json()) as { id: number };
  const set = await teacher.request.put(`/api/classes/${classId}/roster/posting`, { data: { people: [me.id], posts: false } });
  expect(set.ok(), await set.text()).toBe(true);
  await editor(student).press("Control+End");
  await editor(student).pressSequentially(" More!");
  await expect(student.getByText("is not yours to change", { exact: false })).toBeVisible();
  await expect(student.getByText("What you typed last is still here.", { exact: false })).toBeVisible();
  await expect(editor(student)).toHaveAttribute("contenteditable", "false");
  // Whoever goes on typing types into nothing, and presses no key of the screen; one that they press themselves is one again.
  await student.keyboard.press("?");
  await expect(student.getByRole("dialog")).toBeHidden();
  await student.getByRole("heading").first().click();
  await student.keyboard.press("?");
  await expect(student.getByRole("dialog")).toBeVisible();
  await student.keyboard.press("Escape");
  await expect(student.getByRole("dialog")).toBeHidden();
  await expect(reads(teacher)).not.toContainText("More");

  // Taken off the roster, one reads no more of what others write.
  const off = await teacher.request.delete(`/api/classes/${classId}/roster/${me.id}`);
  expect(off.ok(), await off.text()).toBe(true);
  await expect(student.getByText("Your place in this class does not allow that.", { exact: false })).toBeVisible({ timeout: 60_000 });
});
