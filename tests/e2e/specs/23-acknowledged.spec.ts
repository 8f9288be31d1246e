import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

// A page is to be acknowledged by the students of a class, and at home.
let student: Page;
let teacher: Page;
let classId: number;

test.beforeAll(async ({ browser }) => {
  student = await signedIn(browser, "s1001", "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "blue-otter-walks-9");
  teacher = await signedIn(browser, "wren");
  const mine = (await (await student.request.get("/api/my-classes")).json()) as { id: number; state: string }[];
  classId = mine.find((k) => k.state === "Open")!.id;
});

test.afterAll(async () => {
  await student.context().close();
  await teacher.context().close();
});

const wanted = (page: Page) => page.getByRole("region", { name: "Read this, and say that you have" });

test("a teacher has a page acknowledged by students and at home", async () => {
  const { folders } = (await (await teacher.request.get(`/api/classes/${classId}/workspace`)).json()) as {
    folders: { id: number; rule: string }[];
  };
  const folder = folders.find((f) => f.rule === "ClassViews")!.id;
  const made = await teacher.request.post(`/api/classes/${classId}/folders/${folder}/pages`, {
    data: { title: "Quay trip", text: "We go by **boat**. Bring a coat.", version: 0 },
  });
  expect(made.ok()).toBe(true);
  await teacher.goto(`/classes/${classId}/set-up?folder=${folder}`);
  await teacher.getByRole("button", { name: "Acts on Quay trip" }).click();
  await teacher.getByRole("menuitem", { name: "To be acknowledged…" }).click();
  const dialog = teacher.getByRole("dialog");
  await dialog.getByRole("combobox", { name: "To be acknowledged" }).click();
  await teacher.getByRole("option", { name: "by the student, and at home" }).click();
  await dialog.getByLabel("Until (empty for no day)").fill("2027-06-01");
  await dialog.getByRole("button", { name: "Ask it" }).click();
  await expect(dialog.getByText("The day until which it is wanted is over.", { exact: false })).toBeVisible();
  await dialog.getByLabel("Until (empty for no day)").fill("2027-06-14");
  await isAccessible(teacher, "having a page acknowledged");
  await dialog.getByRole("button", { name: "Ask it" }).click();
  await expect(dialog).toHaveCount(0);
  await expect(teacher.getByRole("row", { name: /Quay trip/ })).toContainText("to be acknowledged");
});

test("a student finds it in the day, reads it and says so on a phone", async () => {
  await student.setViewportSize({ width: 390, height: 844 });
  await student.goto("/");
  const line = student.getByRole("listitem").filter({ hasText: "Quay trip" });
  await expect(line).toContainText("by");
  await line.getByRole("link", { name: "Quay trip" }).click();
  await expect(wanted(student)).toBeVisible();
  await wanted(student).getByRole("button", { name: "Quay trip", exact: true }).click();
  await expect(student.locator("strong", { hasText: "boat" })).toBeVisible();
  await isAccessible(student, "a page to be acknowledged on a phone");
  await wanted(student).getByRole("button", { name: "I have read this: Quay trip" }).click();
  await expect(student.getByText("you acknowledged it", { exact: false }).first()).toBeVisible();
  await expect(student.getByRole("button", { name: "I have read this: Quay trip" })).toHaveCount(0);
});

test("somebody at home does it from the paper, without an account", async ({ browser, baseURL }) => {
  await teacher.goto(`/classes/${classId}/acknowledged`);
  await isAccessible(teacher, "what is to be acknowledged");
  await teacher.getByRole("button", { name: "Quay trip" }).click();
  const download = teacher.waitForEvent("download");
  await teacher.getByRole("button", { name: /^Print \d+ papers for homes$/ }).click();
  expect((await download).suggestedFilename()).toBe("papers for homes.pdf");
  await isAccessible(teacher, "who has acknowledged it");

  const home = await browser.newContext({ baseURL, locale: "en-GB", viewport: { width: 390, height: 844 } });
  const page = await home.newPage();
  await page.goto("/home");
  await page.getByLabel("Code, like", { exact: false }).fill("CDFG HJKM NPQR");
  await page.getByRole("button", { name: "Open" }).click();
  await expect(page.getByRole("alert")).toContainText("This is no code that opens anything now");
  await isAccessible(page, "a wrong code at home");
  await home.close();
});

test("a signed paper is noted, who is outstanding is reminded, and a change is asked anew", async () => {
  const rows = teacher.getByRole("table", { name: "Who has acknowledged Quay trip" });
  await rows.getByRole("button", { name: /^The signed paper of / }).first().click();
  await teacher.getByRole("dialog").getByLabel("Who signed it").fill("Aunt Sólrún");
  await teacher.getByRole("dialog").getByRole("button", { name: "Note it" }).click();
  await expect(rows).toContainText("Aunt Sólrún");
  await expect(rows).toContainText("on paper, noted by");
  await teacher.getByRole("button", { name: /^Remind / }).click();
  await expect(teacher.getByRole("status").filter({ hasText: "reminded" })).toBeVisible();
  await teacher.getByRole("button", { name: "Ask anew…" }).click();
  await teacher.getByRole("dialog").getByRole("button", { name: "Ask anew" }).click();
  await expect(rows).toContainText("an earlier wording was acknowledged");
  await student.goto(`/classes/${classId}`);
  await expect(wanted(student).getByRole("button", { name: "I have read this: Quay trip" })).toBeVisible();
});
