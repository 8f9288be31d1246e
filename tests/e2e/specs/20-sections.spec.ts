import { expect, type Page } from "@playwright/test";
import { isAccessible, signedIn } from "./people";
import { test } from "./server";

type Returns = { assignments: { id: number; title: string; published: boolean; points: number | null; inStep: string[] }[] };

const work = async (page: Page, id: number) => (await (await page.request.get(`/api/classes/${id}/returns`)).json()) as Returns;

test("one assignment goes to three sections in one act, each at its place, and a change is a change in all", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const board = (await (await page.request.get("/api/board")).json()) as { rows: { id: number; name: string }[] };
  const sections = board.rows.filter((r) => r.name.startsWith("Tides and Weather")).slice(0, 3);
  expect(sections.length).toBe(3);
  const made = (await (await page.request.post("/api/combined", { data: { name: "All of Tides", sections: sections.map((s, n) => ({ class: s.id, colour: n })), version: 0 } })).json()) as { id: number };

  await page.goto(`/enroll/combined/${made.id}`);
  await page.getByRole("link", { name: "Give an assignment to all…" }).click();
  await expect(page.getByRole("heading", { name: "Give an assignment" })).toBeVisible();
  await page.getByLabel("Title").fill("Barometer of our own");
  await page.getByLabel("Filed in (one folder or several)").click();
  await page.getByRole("option", { name: "Start here", exact: true }).click();
  await page.keyboard.press("Escape");
  const slip = page.getByRole("complementary");
  for (const s of sections.slice(1)) await expect(slip.getByText(new RegExp(`^${s.name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}: \\d+ students, in Start here`))).toBeVisible();
  await isAccessible(page, "an assignment for several classes");

  // A title that is taken in one of them is told before anything is made.
  const taken = (await work(page, sections[1]!.id)).assignments[0]!.title;
  await page.getByLabel("Title").fill(taken);
  await expect(slip.getByText(`${sections[1]!.name}: an assignment of that title is there`)).toBeVisible();
  await page.getByLabel("Title").fill("Barometer of our own");
  await page.getByRole("button", { name: "Make and publish" }).click();
  await expect(page.getByRole("heading", { name: "Barometer of our own" })).toBeVisible();
  await expect(slip.getByText(/^Kept in step with /)).toContainText(sections[2]!.name);
  for (const s of sections) expect((await work(page, s.id)).assignments.find((a) => a.title === "Barometer of our own")).toMatchObject({ published: true, points: 20 });

  await page.getByRole("button", { name: "Change…" }).click();
  await page.getByLabel("Points (empty for none)").fill("30");
  await page.getByRole("button", { name: "Change it" }).click();
  await expect(page.getByRole("heading", { name: "Work", level: 1 })).toBeVisible();
  for (const s of sections) expect((await work(page, s.id)).assignments.find((a) => a.title === "Barometer of our own")!.points).toBe(30);
  await page.context().close();
});
