import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

let student: Page;
let teacher: Page;
let at: { id: number; assignment: number; student: number };

test.beforeAll(async ({ browser }) => {
  teacher = await signedIn(browser, "oisin");
  // One who has not handed in the show piece of Clay and Glass 9B.
  const id = Number(await teacher.locator("tr[data-id]", { hasText: "Clay and Glass 9B" }).getAttribute("data-id"));
  const { assignments } = (await (await teacher.request.get(`/api/classes/${id}/returns`)).json()) as { assignments: { id: number; title: string }[] };
  const assignment = assignments.find((a) => a.title === "Show piece")!.id;
  const { stretches } = (await (await teacher.request.get(`/api/classes/${id}/marking?assignment=${assignment}`)).json()) as { stretches: { pieces: { work: number | null; student: number; sortName: string }[] }[] };
  const late = stretches[0]!.pieces.find((p) => p.work === null)!;
  at = { id, assignment, student: late.student };
  const wren = await signedIn(browser, "wren");
  const found = (await (await wren.request.get(`/api/people?Text=${encodeURIComponent(late.sortName.split(", ")[0]!)}`)).json()) as { people: { id: number; userName: string }[] };
  await wren.context().close();
  student = await signedIn(browser, found.people.find((r) => r.id === late.student)!.userName, "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "salt-wind-harbour-9");
});

test("a link and a page that is written in place are handed in with a receipt, and are read on the marking desk", async () => {
  await student.goto(`/classes/${at.id}`);
  await student.getByRole("treeitem", { name: /^Units/ }).click();
  const piece = student.getByRole("region", { name: "Show piece" });
  await piece.getByRole("button", { name: "Add a link…" }).click();
  const dialog = student.getByRole("dialog");
  await dialog.getByLabel("Address").fill("glazes.example");
  await dialog.getByLabel("What it is").fill("Where my glaze is from");
  await dialog.getByRole("button", { name: "Add the link" }).click();
  await expect(dialog.getByText("Give it whole, as https://example.org/page.")).toBeVisible();
  await dialog.getByLabel("Address").fill("https://glazes.example/blue");
  await dialog.getByRole("button", { name: "Add the link" }).click();
  await expect(piece.getByRole("link", { name: "Where my glaze is from" })).toHaveAttribute("href", "https://glazes.example/blue");
  await expect(piece.getByText("link to glazes.example")).toBeVisible();

  // What is being written outlives a reload.
  await piece.getByRole("button", { name: "Write a page" }).click();
  await piece.getByLabel("Title of the page").fill("How I made it");
  await piece.getByLabel("Text").fill("## First firing\n\nIt ran **too hot**.");
  await student.reload();
  await expect(piece.getByLabel("Title of the page")).toHaveValue("How I made it");
  await isAccessible(student, "writing a page of one’s work");
  await piece.getByRole("button", { name: "Add the page" }).click();
  await piece.getByRole("button", { name: "Write on How I made it" }).click();
  await piece.getByLabel("Text").fill("## First firing\n\nIt ran **much too hot**.");
  await piece.getByRole("button", { name: "Save the page" }).click();
  await expect(piece.getByLabel("Text")).toHaveCount(0);
  await piece.getByRole("button", { name: "Hand in" }).click();
  const receipt = piece.getByRole("link", { name: /^[0-9A-Z]{4}-[0-9A-Z]{4}$/ });
  await expect(receipt).toBeVisible();
  const code = (await receipt.textContent())!;
  const waiting = student.waitForEvent("download");
  await receipt.click();
  const text = readFileSync((await (await waiting).path())!, "utf8");
  expect(text).toContain(`Receipt ${code}`);
  expect(text).toContain("How I made it.md");
  await piece.getByRole("button", { name: "Read How I made it" }).click();
  await expect(piece.getByRole("heading", { name: "First firing" })).toBeVisible();

  await teacher.goto(`/classes/${at.id}/marking?assignment=${at.assignment}&piece=${at.assignment}-${at.student}`);
  await expect(teacher.getByRole("link", { name: "https://glazes.example/blue" })).toHaveAttribute("rel", /noopener/);
  await expect(teacher.locator("strong", { hasText: "much too hot" })).toBeVisible();
  await isAccessible(teacher, "a link and a page on the marking desk");
});

test("files, a link and a page of the class are attached while it is written, a wrong one is taken off, and students open them", async () => {
  await teacher.goto(`/classes/${at.id}/work/new`);
  await teacher.getByLabel("Title", { exact: true }).fill("Bowl with a foot");
  await teacher.getByLabel("Instructions").fill("one bowl");
  await teacher.getByLabel("Instructions").selectText();
  await teacher.getByRole("button", { name: "Bold", exact: true }).click();
  await expect(teacher.getByLabel("Instructions")).toHaveValue("**one bowl**");
  const attached = teacher.getByRole("group", { name: "Attached" });
  await attached.locator("input[type=file]").setInputFiles([
    { name: "answers.txt", mimeType: "text/plain", buffer: Buffer.from("forty-two") },
    { name: "drawing.txt", mimeType: "text/plain", buffer: Buffer.from("a foot") },
    { name: "empty.txt", mimeType: "text/plain", buffer: Buffer.from("") },
  ]);
  await expect(attached.getByText("“empty.txt” has 0 bytes", { exact: false })).toBeVisible();
  await attached.getByRole("button", { name: "Attach a link…" }).click();
  const dialog = teacher.getByRole("dialog");
  await dialog.getByLabel("Address").fill("glazes.example");
  await expect(dialog.getByText("Give it whole, as https://example.org/page.")).toBeVisible();
  await dialog.getByLabel("Address").fill("https://glazes.example/blue");
  await dialog.getByLabel("What it is called").fill("Blue glazes");
  await isAccessible(teacher, "attaching a link");
  await dialog.getByRole("button", { name: "Attach it" }).click();
  // Kept while it is typed, the files with it; then the wrong one goes.
  await teacher.reload();
  await attached.getByRole("button", { name: "Take off answers.txt" }).click();
  await attached.getByRole("button", { name: "Blue glazes one up" }).click();
  await attached.getByRole("button", { name: "Attach a thing of the class…" }).click();
  await dialog.getByLabel("Files, links and pages").fill("glossary");
  await dialog.getByRole("option").or(teacher.getByRole("option")).first().click();
  await teacher.keyboard.press("Escape");
  await teacher.getByRole("button", { name: "Attach it" }).click();
  await teacher.getByLabel("Filed in (one folder or several)").fill("Units");
  await teacher.getByRole("option", { name: "Units", exact: true }).click();
  await teacher.keyboard.press("Escape");
  await isAccessible(teacher, "an assignment with what is attached");
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher).toHaveURL(/assignment=/);

  await student.goto(`/classes/${at.id}`);
  await student.getByRole("treeitem", { name: /^Units/ }).click();
  const list = student.getByRole("region", { name: "Bowl with a foot" }).getByRole("list", { name: "Attached" });
  await expect(list.getByRole("listitem")).toHaveText([/Blue glazes.*glazes\.example/, /drawing\.txt/, /glossary/]);
  const waiting = student.waitForEvent("download");
  await list.getByRole("link", { name: "drawing.txt" }).click();
  expect(readFileSync((await (await waiting).path())!, "utf8")).toBe("a foot");
  await isAccessible(student, "an assignment with what is attached, for a student");
});

/** Gives an assignment by the desk, in Units, and hands in a page for it; its number. */
async function given(title: string, marked: () => Promise<void>): Promise<number> {
  await teacher.goto(`/classes/${at.id}/work/new`);
  await teacher.getByLabel("Title", { exact: true }).fill(title);
  await marked();
  await teacher.getByLabel("Filed in (one folder or several)").fill("Units");
  await teacher.getByRole("option", { name: "Units", exact: true }).click();
  await teacher.keyboard.press("Escape");
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher).toHaveURL(/assignment=/);
  const made = Number(new URL(teacher.url()).searchParams.get("assignment"));
  const own = `/api/classes/${at.id}/assignments/${made}/own-work`;
  expect((await student.request.post(`${own}/pages`, { data: { title: "Mine", text: "It holds." }, headers: { "Idempotency-Key": title } })).ok()).toBe(true);
  expect((await student.request.post(`${own}/hand-in`, { headers: { "Idempotency-Key": `${title} in` } })).ok()).toBe(true);
  return made;
}

test("by criteria: levels are chosen with one key each and one more returns it; the student sees them", async () => {
  const made = await given("Plate", async () => {
    await teacher.getByRole("combobox", { name: "Marked" }).click();
    await teacher.getByRole("option", { name: "by criteria" }).click();
    await teacher.getByRole("textbox", { name: "Criterion 1" }).fill("Rim");
    await teacher.getByRole("button", { name: "Add a criterion" }).click();
    await teacher.getByRole("textbox", { name: "Criterion 2" }).fill("Glaze");
    await expect(teacher.getByText("Full marks: 6")).toBeVisible();
    await expect(teacher.getByRole("region", { name: "As students read it" })).toContainText("6 points by 2 criteria");
    await isAccessible(teacher, "giving by criteria");
  });
  await teacher.goto(`/classes/${at.id}/marking?assignment=${made}`);
  await expect(teacher.getByRole("group", { name: "Rim" }).getByRole("radio").first()).toBeFocused();
  await isAccessible(teacher, "marking by criteria");
  await teacher.keyboard.press("3");
  // Half of it is no mark.
  await expect(teacher.getByText("Choose a level for each criterion.")).toBeVisible();
  await expect(teacher.getByRole("button", { name: "Keep and next" })).toBeDisabled();
  await teacher.keyboard.press("2");
  await expect(teacher.getByText("Together 5 of 6")).toBeVisible();
  await teacher.reload();
  await expect(teacher.getByText("Together 5 of 6")).toBeVisible();
  // Chosen by mistake, it is taken away again.
  await teacher.getByRole("button", { name: "No level" }).click();
  await expect(teacher.getByText("No level is chosen yet.")).toBeVisible();
  await expect(teacher.getByRole("button", { name: "No level" })).toHaveCount(0);
  await teacher.getByRole("group", { name: "Rim" }).getByRole("radio").first().focus();
  await teacher.keyboard.press("3");
  await teacher.keyboard.press("2");
  await expect(teacher.getByText("Together 5 of 6")).toBeVisible();
  await teacher.getByRole("radio", { name: /reached/ }).first().focus();
  await teacher.keyboard.press("Control+Enter");
  await expect(teacher.getByRole("status").filter({ hasText: "with 5 of 6" })).toBeAttached();
  await student.goto(`/classes/${at.id}`);
  await student.getByRole("treeitem", { name: /^Units/ }).click();
  const piece = student.getByRole("region", { name: "Plate" });
  await expect(piece).toContainText("returned, 5 of 6");
  await expect(piece.getByRole("list", { name: "Criteria" })).toContainText("reached: well reached");
  await isAccessible(student, "what criteria came to");
});

test("a scale of the school's is laid down, given with, marked on, and keeps standing when it is changed", async ({ browser }) => {
  const wren = await signedIn(browser, "wren");
  await wren.goto("/plan/scales");
  await wren.getByRole("button", { name: "Lay down a scale" }).click();
  const form = wren.getByRole("form", { name: "A new scale" });
  await form.getByLabel("Name of the scale").fill("Harbour");
  for (const [n, [name, points]] of [["clear", "3"], ["fog", "1"], ["storm", "1"]].entries()) {
    await form.getByRole("group", { name: `Level ${n + 1} of the scale` }).getByRole("textbox", { name: "Level" }).fill(name!);
    await form.getByRole("group", { name: `Level ${n + 1} of the scale` }).getByLabel("Points").fill(points!);
  }
  await form.getByRole("button", { name: "Lay it down" }).click();
  await expect(form.getByText("Two levels of the scale have the same points.")).toBeVisible();
  await form.getByRole("group", { name: "Level 3 of the scale" }).getByLabel("Points").fill("0");
  await form.getByRole("button", { name: "Lay it down" }).click();
  await expect(wren.getByRole("row", { name: /Harbour/ })).toContainText("clear (3), fog (1), storm (0)");
  await isAccessible(wren, "scales");

  const made = await given("Chart", async () => {
    await teacher.getByRole("combobox", { name: "Marked" }).click();
    await teacher.getByRole("option", { name: "on the scale Harbour" }).click();
  });
  await wren.getByRole("button", { name: "Remove Harbour" }).click();
  await wren.getByRole("button", { name: "Remove it" }).click();
  await expect(wren.getByRole("row", { name: /Harbour/ })).toHaveCount(0);
  await wren.context().close();

  await teacher.goto(`/classes/${at.id}/marking?assignment=${made}`);
  await expect(teacher.getByRole("group", { name: "Mark", exact: true }).getByRole("radio").first()).toBeFocused();
  await teacher.keyboard.press("2");
  await teacher.keyboard.press("Control+Enter");
  await expect(teacher.getByRole("status").filter({ hasText: "with fog (1 of 3)" })).toBeAttached();
  await student.goto(`/classes/${at.id}`);
  await student.getByRole("treeitem", { name: /^Units/ }).click();
  await expect(student.getByRole("region", { name: "Chart" })).toContainText("returned, fog (1 of 3)");
  await teacher.goto(`/classes/${at.id}/scores`);
  await expect(teacher.getByRole("link", { name: /Chart: mark fog, 1/ })).toHaveText("fog");
  await teacher.goto(`/classes/${at.id}/work/${made}`);
  await expect(teacher.getByRole("combobox", { name: "Marked" })).toContainText("on the scale Harbour as it was");
});
