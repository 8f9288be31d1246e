import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

type View = { kept: boolean; days: { day: string; week: number }[]; students: { student: number; sortName: string; did: number[]; daysHere: number; lastHere: string | null; quiet: boolean }[] };

const activity = async (page: Page, id: string) => (await (await page.request.get(`/api/classes/${id}/activity`)).json()) as View;

test("staff see who was here on which day and who has gone quiet; a student leaves a square, knows of it and does not reach the page", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.getByRole("row", { name: /Tides and Weather 5A/ }).getByRole("link", { name: /Tides and Weather 5A/ }).click();
  await page.getByRole("navigation", { name: "Seasons" }).getByRole("link", { name: "Work" }).click();
  await page.getByRole("link", { name: "Activity", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Activity", level: 1 })).toBeVisible();
  const id = new URL(page.url()).pathname.split("/")[2]!;
  await expect(page.getByRole("table", { name: "Activity of students" })).toBeVisible();
  await isAccessible(page, "activity");
  const before = await activity(page, id);
  const quiet = before.students.filter((s) => s.quiet);
  await expect(page.getByText(`${quiet.length} have gone quiet: nothing for a week of school`)).toBeVisible();
  for (const s of quiet) await expect(page.getByRole("complementary").getByRole("link", { name: s.sortName })).toBeVisible();

  // One who was quiet opens the class and puts a file in.
  const one = quiet[0]!;
  const found = (await (await page.request.get(`/api/people?Text=${encodeURIComponent(one.sortName.split(", ")[0]!)}`)).json()) as { people: { id: number; userName: string }[] };
  const { userName } = found.people.find((r) => r.id === one.student)!;
  const student = await signedIn(browser, userName, "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "salt-wind-harbour-9");
  await student.goto(`/classes/${id}`);
  await expect(student.getByText("Your teachers see on which school days you opened, wrote or handed in something here. It is kept for 400 days.")).toBeVisible();
  expect((await student.request.get(`/api/classes/${id}/activity`)).status()).toBe(403);

  await page.reload();
  await expect(page.getByText(`${quiet.length - 1} have gone quiet`)).toBeVisible();
  const now = (await activity(page, id)).students.find((s) => s.student === one.student)!;
  expect([now.did.at(-1)! & 1, now.daysHere, now.lastHere]).toEqual([1, one.daysHere + 1, "2027-06-07"]);
  const row = page.getByRole("row", { name: new RegExp(one.sortName) });
  await expect(row.getByRole("img", { name: /Mon,? 7 June: opened the class/ })).toBeVisible();

  // The period is chosen from the keyboard, stands in the address, and a whole year fits.
  await page.getByRole("slider", { name: "First school week" }).focus();
  await page.keyboard.press("Home");
  await expect(page).toHaveURL(/from=1&to=\d+/);
  await expect(page.getByText(/^School weeks 1 to \d+$/)).toBeVisible();
  expect(await page.evaluate(() => document.scrollingElement!.scrollWidth)).toBeLessThanOrEqual(1280);
  await student.context().close();
  await page.context().close();
});

test("a school keeps no activity: nothing is noted, staff are told, and students are not told of it", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.goto("/plan/rules");
  await page.getByLabel(/^Keep who opened, wrote and handed in/).uncheck();
  await expect(page.getByText("What was kept so far goes within a day, and is not brought back.")).toBeVisible();
  await page.getByRole("button", { name: "Lay down these rules" }).click();
  await expect(page.getByRole("button", { name: "Lay down these rules" })).toBeDisabled();
  const board = (await (await page.request.get("/api/board")).json()) as { rows: { id: number; name: string }[] };
  const id = board.rows.find((r) => r.name.startsWith("Tides and Weather 5A"))!.id;
  await page.goto(`/classes/${id}/activity`);
  await expect(page.getByText("The school keeps no activity.")).toBeVisible();
  await page.context().close();
});
