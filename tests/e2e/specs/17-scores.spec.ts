import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { isAccessible, signedIn } from "./people";
import { test } from "./server";

type Table = { columns: { title: string; scores: number[]; drafts: number; numbers: { count: number; mean: number | null } }[]; students: { student: number; sortName: string; number: string; cells: { column: number; counts: number | null; draft: number | null }[] }[]; imports: unknown[] };

const scores = async (page: Page, id: string) => (await (await page.request.get(`/api/classes/${id}/scores`)).json()) as Table;

/** Opens the score table of Tides and Weather 6B from its work. */
async function opened(page: Page) {
  await page.getByRole("row", { name: /Tides and Weather 6B/ }).getByRole("link", { name: /Tides and Weather 6B/ }).click();
  await page.getByRole("navigation", { name: "Seasons" }).getByRole("link", { name: "Work" }).click();
  await page.getByRole("link", { name: "Scores", exact: true }).click();
  await expect(page.getByRole("grid", { name: "Scores" })).toBeVisible();
  return new URL(page.url()).pathname.split("/")[2]!;
}

const put = (page: Page, name: string, text: string) => page.getByLabel("A file of scores").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(text) });

test("scores go out, are changed elsewhere, come in as drafts, and are returned or taken back in one act", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const id = await opened(page);
  await isAccessible(page, "the score table");
  const before = await scores(page, id);

  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Download the scores" }).click()]);
  const table = readFileSync(await download.path(), "utf8");
  const lines = table.trimEnd().split("\r\n");
  expect(lines.length).toBe(before.students.length + 1);

  // As a spreadsheet of half the world writes it: a mark before it, semicolons, decimal commas. Nothing would change.
  await put(page, "again.csv", `\uFEFF${lines.map((l) => l.replaceAll(",", ";").replace(/;(\d+)\.(\d+)/g, ";$1,$2")).join("\r\n")}`);
  await expect(page.getByRole("dialog").getByRole("status")).toContainText("Nothing in this file would change a mark.");
  await expect(page.getByRole("dialog").getByRole("button", { name: "Take in 0 draft marks" })).toBeDisabled();
  await isAccessible(page, "scores that would change nothing");
  await page.getByRole("button", { name: "Not now" }).click();

  // Changed for one student, with a slip of the pen for another, and somebody of another class.
  const marked = before.students.filter((s) => s.cells.some((c) => c.column === 0 && c.counts !== null));
  const [first, second] = [marked[0]!, marked[1]!];
  const quiz = (mark: string) => `student number,${before.columns[0]!.title}\n${first.number},${mark}\n${second.number},1.250\n77777,3\n`;
  await put(page, "quiz.csv", quiz("1.5"));
  const dialog = page.getByRole("dialog", { name: "Scores from “quiz.csv”" });
  await expect(dialog.getByRole("row", { name: new RegExp(`${first.sortName}.*1.5`) })).toBeVisible();
  await expect(dialog.getByText("“1.250” has more than two decimals, or a separator of thousands")).toBeVisible();
  await expect(dialog.getByText("nobody on the roster is “77777”")).toBeVisible();
  await dialog.getByRole("button", { name: "Take in 1 draft mark" }).click();
  await expect(page.getByRole("status").filter({ hasText: "1 draft mark came in from “quiz.csv”" })).toBeVisible();
  await expect(page.getByRole("link", { name: `${first.sortName}, ${before.columns[0]!.title}: mark ${first.cells.find((c) => c.column === 0)!.counts}, draft mark 1.5` })).toBeVisible();
  expect((await scores(page, id)).columns[0]!.numbers).toEqual(before.columns[0]!.numbers);

  await page.getByRole("button", { name: "Take back what came in from quiz.csv" }).click();
  await expect(page.getByRole("status").filter({ hasText: "1 draft mark taken back." })).toBeVisible();
  expect(await scores(page, id)).toEqual(before);

  // Again, and returned this time.
  await put(page, "quiz.csv", quiz("2"));
  await page.getByRole("dialog").getByRole("button", { name: "Take in 1 draft mark" }).click();
  await expect(page.getByText("1 draft", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Return 1 draft mark…" }).click();
  await page.getByRole("button", { name: "Return 1 piece of work" }).click();
  await expect(page.getByRole("status").filter({ hasText: "1 piece returned." })).toBeVisible();
  const after = await scores(page, id);
  expect(after.students.find((s) => s.student === first.student)!.cells.find((c) => c.column === 0)!.counts).toBe(2);
  expect(after.columns[0]!.drafts).toBe(0);
  await page.context().close();
});

test("names and titles stay in sight and arrows go from mark to mark over 200 students and 40 assignments", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const id = await opened(page);
  // The table as it would be, of the real one's shape.
  const real = await scores(page, id);
  const many = {
    ...real,
    columns: Array.from({ length: 40 }, (_, n) => ({ ...real.columns[0]!, title: `Piece ${n + 1}` })),
    students: Array.from({ length: 200 }, (_, n) => ({ ...real.students[0]!, student: 5000 + n, sortName: `Student, Number ${n + 1}`, cells: Array.from({ length: 40 }, (_x, column) => ({ column, counts: (n + column) % 21, draft: null, waits: false })) })),
  };
  await page.route(`**/api/classes/${id}/scores`, (r) => r.fulfill({ json: many }));
  await page.reload();
  await expect(page.getByRole("grid", { name: "Scores" })).toHaveAttribute("aria-rowcount", "201");
  expect(await page.locator(".score-grid tbody tr").count()).toBeLessThan(80);

  await page.locator("[data-cell='0-0']").focus();
  for (let n = 0; n < 12; n++) {
    await page.keyboard.press("PageDown");
    await expect(page.locator(`[data-cell='${10 * (n + 1)}-0']`)).toBeFocused();
  }
  await page.keyboard.press("End");
  const last = page.locator("[data-cell='120-39']");
  await expect(last).toBeFocused();
  await expect(last).toHaveAccessibleName("Student, Number 121, Piece 40: mark 12");
  const [cell, name, title, box] = await Promise.all([last.boundingBox(), page.getByRole("rowheader", { name: "Student, Number 121" }).boundingBox(), page.getByRole("columnheader", { name: /^Piece 40/ }).boundingBox(), page.locator(".score-scroll").boundingBox()]);
  // The name stands at the left edge, the title at the top one, and neither lies over the mark.
  expect(Math.round(name!.x)).toBe(Math.round(box!.x));
  expect(title!.y - box!.y).toBeLessThan(4);
  expect(cell!.x).toBeGreaterThan(name!.x + name!.width - 1);
  expect(cell!.y).toBeGreaterThan(title!.y + title!.height - 1);

  await page.getByRole("button", { name: "Piece 40", exact: true }).click();
  await expect(page.getByRole("columnheader", { name: /^Piece 40/ })).toHaveAttribute("aria-sort", "descending");
  await page.context().close();
});
