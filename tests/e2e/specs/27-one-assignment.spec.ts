import { readFileSync } from "node:fs";
import { expect, type APIRequestContext, type Browser, type Page } from "@playwright/test";
import { signedIn } from "./people";
import { test } from "./server";

// One assignment from end to end: three sections, thirty pieces, marked in one sitting, out to a spreadsheet and back.
const title = "Kiln log";
const own = "salt-wind-harbour-9";

type Combined = { id: number; sections: { class: number }[]; students: { id: number; sortName: string; studentNumber: string; section: number }[] };
type Table = { columns: { title: string; drafts: number; toMark: number; numbers: { count: number; mean: number | null } }[]; students: { number: string; cells: { column: number; counts: number | null; draft: number | null }[] }[] };
type Piece = { student: number; state: string; score: number | null; lateMinutes: number | null };

let teacher: Page;
let combined: Combined;
const assignments = new Map<number, number>();
// Ten of each section.
let thirty: Combined["students"];

const json = async <T>(of: APIRequestContext, path: string) => (await (await of.get(path)).json()) as T;
const table = async () => json<Table>(teacher.request, `/api/combined/${combined.id}/scores`);
const column = async () => {
  const t = await table();
  return t.columns.find((c) => c.title === title)!;
};

test.beforeAll(async ({ browser }) => {
  teacher = await signedIn(browser, "wren");
});

test.afterAll(async () => {
  await teacher.context().close();
});

/** A request of somebody's own, signed in with a password that they chose. */
async function at(browser: Browser, number: string): Promise<{ request: APIRequestContext; end: () => Promise<void> }> {
  const context = await browser.newContext();
  const post = async (path: string, data: object) => expect((await context.request.post(path, { data, headers: { "Idempotency-Key": `${path} ${number}` } })).ok(), `${path} of ${number}`).toBe(true);
  await post("/api/sign-in", { userName: `s${number}`, password: "tide-pool-lantern" });
  await post("/api/me/password", { oldPassword: "tide-pool-lantern", newPassword: own });
  return { request: context.request, end: () => context.close() };
}

test("it is given to three sections in one act", async () => {
  const board = await json<{ rows: { id: number; name: string }[] }>(teacher.request, "/api/board");
  const sections = board.rows.filter((r) => r.name.startsWith("Clay and Glass")).slice(0, 3);
  const made = (await (await teacher.request.post("/api/combined", { data: { name: "All of Clay", sections: sections.map((s, n) => ({ class: s.id, colour: n })), version: 0 } })).json()) as { id: number };
  combined = await json<Combined>(teacher.request, `/api/combined/${made.id}`);
  thirty = [0, 1, 2].flatMap((n) => combined.students.filter((s) => s.section === n).slice(0, 10));
  expect(thirty.length).toBe(30);

  await teacher.goto(`/enroll/combined/${combined.id}`);
  await teacher.getByRole("link", { name: "Give an assignment to all…" }).click();
  await teacher.getByLabel("Title").fill(title);
  await teacher.getByLabel("Due", { exact: true }).fill("2027-06-08");
  await teacher.getByLabel("Filed in (one folder or several)").click();
  await teacher.getByRole("option", { name: "Start here", exact: true }).click();
  await teacher.keyboard.press("Escape");
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher.getByRole("heading", { name: title })).toBeVisible();
  for (const { class: id } of combined.sections) {
    // The title stands on the form too: it is made once the class has it.
    const found = async () => (await json<{ assignments: { id: number; title: string; published: boolean }[] }>(teacher.request, `/api/classes/${id}/returns`)).assignments.find((a) => a.title === title);
    await expect.poll(async () => (await found())?.published).toBe(true);
    assignments.set(id, (await found())!.id);
  }
});

test("thirty hand in: files, a PDF, a photo and a typed page, and six of them late", async ({ browser }) => {
  test.slow();
  const art = await (await browser.newContext()).newPage();
  await art.setContent("<h1>Firing</h1><p>It ran too hot.</p>");
  const [pdf, photo] = [await art.pdf(), await art.screenshot()];
  await art.context().close();
  for (const [n, s] of thirty.entries()) {
    // Two days on, who comes now is late.
    if (n === 24) await teacher.request.post("/api/demo/date", { data: { today: "2027-06-10" }, headers: { "Idempotency-Key": "two days on" } });
    const id = combined.sections[s.section]!.class;
    const { request, end } = await at(browser, s.studentNumber);
    const work = `/api/classes/${id}/assignments/${assignments.get(id)}/own-work`;
    const file = async (name: string, data: Buffer) => request.post(`${work}/files?name=${encodeURIComponent(name)}`, { data, headers: { "Content-Type": "application/octet-stream", "Idempotency-Key": "file" } });
    const put = n === 0 ? await file("log.pdf", pdf) : n === 1 ? await file("photo.png", photo) : n === 2 ? await request.post(`${work}/pages`, { data: { title: "My log", text: "It ran **too hot**." }, headers: { "Idempotency-Key": "page" } }) : await file("log.txt", Buffer.from(`Log ${n}`));
    expect(put.ok(), await put.text()).toBe(true);
    expect((await request.post(`${work}/hand-in`, { headers: { "Idempotency-Key": "in" } })).ok()).toBe(true);
    await end();
  }
  const marking = await json<{ stretches: { pieces: Piece[] }[] }>(teacher.request, `/api/combined/${combined.id}/marking?title=${encodeURIComponent(title)}`);
  const came = marking.stretches.flatMap((s) => s.pieces).filter((p) => p.state === "HandedIn");
  expect([came.length, came.filter((p) => p.lateMinutes !== null).length]).toEqual([30, 6]);
});

test("all are marked over the sections from the keyboard, with the digits of the mark and one key a piece, and go back in one act", async () => {
  test.slow();
  await teacher.goto(`/enroll/combined/${combined.id}/marking?title=${encodeURIComponent(title)}`);
  await expect(teacher.getByLabel("Mark, of 20")).toBeFocused();
  let keys = 0;
  await teacher.exposeFunction("keyWentDown", () => keys++);
  await teacher.evaluate(() => window.addEventListener("keydown", () => (window as unknown as { keyWentDown: () => void }).keyWentDown(), true));
  const marks = thirty.map((_, n) => String(5 + (n % 15)));
  const seen = new Set<string>();
  for (const mark of marks) {
    const name = (await teacher.getByRole("heading", { level: 2 }).first().textContent())!;
    expect(seen.has(name), `${name} once`).toBe(false);
    seen.add(name);
    await expect(teacher.getByLabel("Mark, of 20")).toBeFocused();
    await expect(teacher.getByLabel("Mark, of 20")).toHaveValue("");
    await teacher.keyboard.type(mark);
    await teacher.keyboard.press("Enter");
    await expect(teacher.getByRole("heading", { level: 2 }).first().filter({ hasText: name }).or(teacher.getByText("None waits any more."))).toHaveCount(seen.size === 30 ? 2 : 0);
  }
  expect(keys).toBe(marks.join("").length + marks.length);

  await teacher.getByRole("button", { name: "Return 30 drafts…" }).click();
  await teacher.getByRole("button", { name: "Return 30 pieces of work" }).click();
  await expect(teacher.getByRole("status").filter({ hasText: "30 pieces returned." })).toBeVisible();
  const numbers = (await column()).numbers;
  expect(numbers.count).toBe(30);
  expect(numbers.mean).toBeCloseTo(marks.reduce((sum, m) => sum + Number(m), 0) / 30, 9);
});

test("the scores go to a spreadsheet, are changed there, come back as drafts and are returned", async ({ browser }) => {
  await teacher.goto(`/enroll/combined/${combined.id}/scores`);
  const [download] = await Promise.all([teacher.waitForEvent("download"), teacher.getByRole("link", { name: "Download the scores" }).click()]);
  const lines = readFileSync(await download.path(), "utf8").trimEnd().split("\r\n");
  const place = lines[0]!.split(",").findIndex((c) => c.startsWith(title));
  const first = thirty[0]!;
  // Whoever opens it in a spreadsheet changes one cell, and saves.
  const changed = lines.map((l) => (l.startsWith(`${first.studentNumber},`) ? l.split(",").map((c, n) => (n === place ? "19.5" : c)).join(",") : l));
  expect(changed.filter((l, n) => l !== lines[n]).length).toBe(1);
  await teacher.getByLabel("A file of scores").setInputFiles({ name: "changed.csv", mimeType: "text/csv", buffer: Buffer.from(changed.join("\r\n")) });
  await teacher.getByRole("dialog").getByRole("button", { name: "Take in 1 draft mark" }).click();
  await expect(teacher.getByRole("status").filter({ hasText: "1 draft mark came in from “changed.csv”" })).toBeVisible();
  expect((await column()).drafts).toBe(1);
  await teacher.getByRole("button", { name: "Return 1 draft mark…" }).click();
  await teacher.getByRole("button", { name: "Return 1 piece of work" }).click();
  await expect(teacher.getByRole("status").filter({ hasText: "1 piece returned." })).toBeVisible();

  // The student finds it in their day, with the mark of the spreadsheet.
  const student = await signedIn(browser, `s${first.studentNumber}`, own);
  await expect(student.getByRole("listitem").filter({ hasText: title })).toContainText("19.5 of 20");
  await student.context().close();
});
