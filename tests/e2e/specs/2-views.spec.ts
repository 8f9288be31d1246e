import { expect } from "@playwright/test";
import { isAccessible, signedIn } from "./people";
import { test } from "./server";

// Every view in the dark, and what is worked from the keyboard.
test("every view of a teacher is accessible in the dark theme too", async ({ browser }) => {
  const page = await signedIn(browser, "ngozi");
  await page.emulateMedia({ colorScheme: "dark" });
  const id = await page.locator("tr[data-id]").first().getAttribute("data-id");
  for (const path of ["/", "/plan", "/set-up", "/loft", `/classes/${id}/set-up`, `/classes/${id}/enroll`, `/classes/${id}/work`, `/classes/${id}/close`, `/classes/${id}/roll-over`]) {
    await page.goto(path);
    await expect(page.getByRole("main")).toBeVisible();
    await isAccessible(page, `${path} in the dark`);
  }
});

test("the door says what is wrong and is accessible", async ({ page }) => {
  await page.goto("/");
  await page.getByLabel("User name").fill("wren");
  await page.getByLabel("Password").fill("not the one");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toContainText("User name or password is not right.");
  await isAccessible(page, "the door with an error");
});

test("one box finds a class and its desk, and ? lists the keys of the screen", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await expect(page.locator("tr[data-id]").first()).toBeVisible();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("boat 6b close");
  await expect(page.getByRole("option", { name: /Boatbuilding 6B/ })).toBeVisible();
  await isAccessible(page, "the box that finds anything");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Close", exact: true })).toBeVisible();
  await expect(page).toHaveTitle(/^Close · Boatbuilding 6B.* · Spring Loft$/);
  await page.goBack();
  await expect(page.getByRole("heading", { name: /Year board/ })).toBeVisible();
  await page.locator("tr[data-id]").first().focus();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Space");
  await expect(page.getByText("1 class ticked")).toBeVisible();
  // To each cell without a Tab, and down in its column.
  const second = await page.locator("tr[data-id]").nth(1).getAttribute("data-id");
  for (const key of ["ArrowRight", "ArrowRight"]) await page.keyboard.press(key);
  expect(await page.evaluate(() => document.activeElement!.getAttribute("href"))).toBe(`/classes/${second}/set-up`);
  await page.keyboard.press("ArrowDown");
  const third = await page.locator("tr[data-id]").nth(2).getAttribute("data-id");
  expect(await page.evaluate(() => document.activeElement!.getAttribute("href"))).toBe(`/classes/${third}/set-up`);
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys of this screen" })).toContainText("tick the class");
  await isAccessible(page, "the keys of the screen");
});

test("several classes are returned and closed from the board in one act", async ({ browser }) => {
  const page = await signedIn(browser, "mereana");
  await page.getByLabel("Tick all classes shown").check();
  await expect(page.getByText("3 classes ticked")).toBeVisible();
  await page.getByRole("button", { name: /Return \d+ pieces?…/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: /^Return \d/ }).click();
  await expect(page.getByRole("dialog")).toBeHidden();
  await page.getByRole("link", { name: /^Close \d class/ }).click();
  await isAccessible(page, "the plan of a teacher's closing run");
  await page.getByRole("button", { name: /^Close \d class/ }).click();
  await expect(page.getByRole("heading", { name: "All verified" })).toBeVisible();
  await page.goto("/");
  await expect(page.getByText(/archived \d/).first()).toBeVisible();
});

test("a student is shown no page of staff", async ({ browser }) => {
  const page = await signedIn(browser, "s1002", "tide-pool-lantern");
  await page.getByLabel("Password from your slip").fill("tide-pool-lantern");
  await page.getByLabel("New password", { exact: true }).fill("green-heron-waits");
  await page.getByLabel("New password again").fill("green-heron-waits");
  await page.getByRole("button", { name: "Set new password" }).click();
  await expect(page.getByRole("heading", { name: "Monday 7 June" })).toBeVisible();
  for (const path of ["/audit", "/plan", "/loft"]) {
    await page.goto(path);
    await expect(page.getByText("There is no such page.")).toBeVisible();
  }
});
