import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

// What concerns one, in one list: of a student, and of the teacher who tells them something.
let student: Page;
let teacher: Page;

test.beforeAll(async ({ browser }) => {
  student = await signedIn(browser, "s1001", "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "blue-otter-walks-9");
  teacher = await signedIn(browser, "wren");
});

test.afterAll(async () => {
  await student.context().close();
  await teacher.context().close();
});

const places = (page: Page) => page.getByRole("navigation", { name: "Places" });

test("what is new is counted where one is, told, and not new the next time", async () => {
  await student.setViewportSize({ width: 390, height: 844 });
  await student.goto("/");
  await places(student).getByRole("link", { name: /^News \d+$/ }).click();
  await expect(student.getByRole("heading", { level: 1, name: "News" })).toBeVisible();
  await expect(student.getByText(/^\d+ things are new\.$/)).toBeVisible();
  await isAccessible(student, "news on a phone");
  await expect(places(student).getByRole("link", { name: "News", exact: true })).toBeVisible();
  await expect(student.getByText(/^new, /).first()).toBeVisible();
  await places(student).getByRole("link", { name: "Today" }).click();
  await expect(student.getByRole("heading", { level: 1, name: "News" })).toHaveCount(0);
  await places(student).getByRole("link", { name: "News", exact: true }).click();
  await expect(student.getByText("Nothing new.")).toBeVisible();
});

test("a notice of now is news, and leads to its class", async () => {
  const mine = (await (await student.request.get("/api/my-classes")).json()) as { id: number; state: string }[];
  const id = mine.find((k) => k.state === "Open")!.id;
  const text = "The kiln is **open** on Saturday.";
  expect((await teacher.request.post(`/api/classes/${id}/notices`, { data: { text } })).ok()).toBe(true);
  await student.goto("/news");
  await expect(student.getByText("1 thing is new.")).toBeVisible();
  const line = student.getByRole("listitem").filter({ hasText: "The kiln is open on Saturday." });
  await expect(line).toContainText("told by Wren");
  await line.getByRole("link").click();
  await expect(student).toHaveURL(new RegExp(`/classes/${id}$`));
});

test("one chooses what one is told, and a letter needs an address", async () => {
  await student.goto("/news");
  await student.getByRole("button", { name: "Choose what…" }).click();
  const dialog = student.getByRole("dialog");
  await isAccessible(student, "choosing what one is told");
  await dialog.getByLabel("notices").uncheck();
  await expect(dialog.getByText("once the directory has an e-mail address of yours", { exact: false })).toBeVisible();
  await dialog.getByRole("button", { name: "Save it" }).click();
  await expect(dialog).toHaveCount(0);
  await expect(student.getByText("The kiln is open on Saturday.")).toHaveCount(0);
  await teacher.goto("/news");
  await teacher.getByRole("button", { name: "Choose what…" }).click();
  await teacher.getByLabel(/^Also as a letter to /).check();
  await teacher.getByRole("button", { name: "Save it" }).click();
  await expect(teacher.getByText("at most once a day", { exact: false })).toBeVisible();
});
