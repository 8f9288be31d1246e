import { execFileSync } from "node:child_process";
import { expect, type Page } from "@playwright/test";
import { isAccessible, signedIn } from "./people";
import { test } from "./server";

// Who at home is written to: a contact added, a letter looked at before the first goes out, sent, and stopped by its address.
let coordinator: Page;

test.beforeAll(async ({ browser }) => {
  coordinator = await signedIn(browser, "wren");
});

test.afterAll(async () => {
  await coordinator.context().close();
});

const row = (name: string) => coordinator.getByRole("row", { name: new RegExp(name) });

test("a contact is added by hand; what is wrong is said where it is typed", async () => {
  await coordinator.goto("/enroll/families");
  await expect(coordinator.getByText(/^It would go to \d+ contacts, about \d+ of 261 students, without marks\./)).toBeVisible();
  await isAccessible(coordinator, "families");
  await coordinator.getByRole("button", { name: "Add a contact" }).click();
  const dialog = coordinator.getByRole("dialog");
  await dialog.getByLabel("Name").fill("Perpetua Quill");
  await dialog.getByLabel("E-mail address").fill("perpetua at home");
  await dialog.getByRole("button", { name: "Add the contact" }).click();
  await expect(dialog.getByText("is no e-mail address", { exact: false })).toBeVisible();
  await dialog.getByLabel("E-mail address").fill("perpetua@quill.example");
  await dialog.getByLabel("Language of letters").click();
  await coordinator.getByRole("option", { name: "Deutsch" }).click();
  await dialog.getByRole("button", { name: "Add the contact" }).click();
  await expect(dialog.getByText("Somebody at home is the contact of 1 to 20 students", { exact: false })).toBeVisible();
  await dialog.getByRole("combobox", { name: "Contact of" }).fill("a");
  await coordinator.getByRole("option").first().click();
  await isAccessible(coordinator, "adding a contact");
  await dialog.getByRole("button", { name: "Add the contact" }).click();
  await expect(dialog).toHaveCount(0);
  await coordinator.getByLabel("Find a contact or a student").fill("quill");
  await expect(row("Perpetua Quill")).toContainText("written to");
});

test("lists on paper tell each home what is due in a class and what came back, and the wall what all see", async () => {
  await coordinator.goto("/");
  await coordinator.locator("tr[data-id]", { hasText: "Boatbuilding 6B" }).getByRole("link").first().click();
  const id = /classes\/(\d+)/.exec(coordinator.url())![1]!;
  await coordinator.goto(`/classes/${id}/work`);
  await coordinator.getByRole("button", { name: "Lists on paper" }).click();
  const dialog = coordinator.getByRole("dialog");
  await expect(dialog.getByRole("status")).toContainText(/^Until .* of 29 students have something to hand in/);
  await isAccessible(coordinator, "lists on paper");
  const printed = async (name: string) => {
    const waiting = coordinator.waitForEvent("download");
    await dialog.getByRole("link", { name, exact: true }).click();
    return execFileSync("pdftotext", ["-layout", await (await waiting).path(), "-"]).toString();
  };
  const all = await printed("Lists for homes, A4");
  expect(all.split("\f").length).toBeGreaterThan(5);
  expect(all).toContain("For the family of");
  const wall = await printed("List for the wall, Letter");
  expect(wall).toContain("Folders");
  expect(wall).not.toContain("Staff room");
  await dialog.getByRole("combobox", { name: "Student" }).click();
  await coordinator.getByRole("option").nth(1).click();
  await expect(dialog.getByRole("status")).toContainText("of 1 student has something to hand in");
  await dialog.getByRole("button", { name: "Close" }).click();
});

test("nobody has letters sent before one was looked at; then they go out, and the home stops them by one link", async ({ browser }) => {
  await coordinator.goto("/enroll/families");
  await coordinator.getByRole("button", { name: "Have it sent…" }).click();
  const dialog = coordinator.getByRole("dialog");
  await expect(dialog.getByText("Nobody has looked at a letter without marks yet.", { exact: false })).toBeVisible();
  await expect(dialog.getByRole("button", { name: "Have it sent" })).toBeDisabled();
  await dialog.getByRole("button", { name: "Not now" }).click();
  await coordinator.getByLabel("Find a contact or a student").fill("quill");
  await expect(row("Perpetua Quill")).toBeVisible();
  await row("Perpetua Quill").getByRole("button", { name: "Look at the letter to Perpetua Quill" }).click();
  await expect(dialog.getByText("Guten Tag, Perpetua Quill.", { exact: false })).toBeVisible();
  await isAccessible(coordinator, "looking at a letter");
  await dialog.getByRole("button", { name: "Done looking" }).click();
  await coordinator.getByRole("button", { name: "Have it sent…" }).click();
  // On the weekday that is tomorrow, so that its hour is over once the date has moved on.
  const today = (await (await coordinator.request.get("/api/today")).json()) as { day: string };
  const days = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];
  const on = (n: number) => new Date(Date.parse(`${today.day}T12:00Z`) + n * 86_400_000);
  await dialog.getByLabel("On", { exact: true }).click();
  await coordinator.getByRole("option", { name: days[on(1).getUTCDay()]! }).click();
  await dialog.getByRole("button", { name: "Have it sent" }).click();
  await expect(coordinator.getByText(/^goes out next /)).toBeVisible();
  await coordinator.request.post("/api/demo/date", {
    data: { today: on(2).toISOString().slice(0, 10) },
    headers: { "Idempotency-Key": "two days on" },
  });

  // The clock's worker writes them, those who send letters take them to the outbox.
  let text: string | undefined;
  await expect(async () => {
    const kept = (await (await coordinator.request.get("/api/outbox")).json()) as { to: string; text: string }[];
    text = kept.find((l) => l.to.includes("perpetua@quill.example"))?.text;
    expect(text).toBeDefined();
  }).toPass({ timeout: 90_000 });
  const address = /\/letters\/stop\/[\w-]+/.exec(text!)![0];
  expect(text).not.toContain("…");
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const home = await context.newPage();
  await home.goto(new URL(address, coordinator.url()).href);
  await expect(home.getByRole("heading", { name: "Wochenbrief" })).toBeVisible();
  await isAccessible(home, "the page that stops letters");
  await home.getByRole("button", { name: "Briefe abbestellen" }).click();
  await expect(home.getByText("Sie bekommen keinen Wochenbrief mehr.", { exact: false })).toBeVisible();
  await coordinator.goto("/enroll/families");
  await coordinator.getByLabel("Find a contact or a student").fill("quill");
  await expect(row("Perpetua Quill")).toContainText("stopped by the family");
  // Whoever has the address, and nobody else, has them again.
  await home.getByRole("button", { name: "Briefe wieder bekommen" }).click();
  await expect(home.getByRole("button", { name: "Briefe abbestellen" })).toBeVisible();
  await context.close();
});
