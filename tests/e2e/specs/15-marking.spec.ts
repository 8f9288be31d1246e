import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

type Marking = { title: string; stretches: { class: number; pieces: { work: number | null; student: number; state: string; score: number | null; sortName: string; assignment: number }[] }[] };

const marking = async (page: Page, id: string, assignment: string) => (await (await page.request.get(`/api/classes/${id}/marking?assignment=${assignment}`)).json()) as Marking;

/** Opens the marking desk of the show piece of Clay and Glass 9B, of which four pieces wait. */
async function opened(page: Page) {
  await page.getByRole("row", { name: /Clay and Glass 9B/ }).getByRole("link", { name: /Clay and Glass 9B/ }).click();
  await page.getByRole("navigation", { name: "Seasons" }).getByRole("link", { name: "Work" }).click();
  await page.getByRole("button", { name: "Show piece", exact: true }).click();
  await page.getByRole("link", { name: /^(Mark one after another|Look through the pieces)$/ }).click();
  await expect(page.getByRole("heading", { name: "Mark Show piece" })).toBeVisible();
  const address = new URL(page.url());
  return { id: address.pathname.split("/")[2]!, assignment: address.searchParams.get("assignment")! };
}

test("what waits is marked from the keyboard, with the digits of the mark and one key a piece, and goes back in one act", async ({ browser }) => {
  const page = await signedIn(browser, "oisin");
  const at = await opened(page);
  const before = await marking(page, at.id, at.assignment);
  const waiting = before.stretches[0]!.pieces.filter((p) => p.state === "HandedIn" && p.score === null);
  expect(waiting.length).toBeGreaterThan(2);
  await expect(page.getByLabel("Mark, of 20")).toBeFocused();
  await isAccessible(page, "the marking desk");

  let keys = 0;
  await page.exposeFunction("keyWentDown", () => keys++);
  await page.evaluate(() => window.addEventListener("keydown", () => (window as unknown as { keyWentDown: () => void }).keyWentDown(), true));
  const marks = waiting.map((_, n) => String(11 + n));
  for (const [n, mark] of marks.entries()) {
    await expect(page.getByRole("heading", { level: 2 })).toHaveText(waiting[n]!.sortName.split(", ").reverse().join(" "));
    await expect(page.getByLabel("Mark, of 20")).toBeFocused();
    await page.keyboard.type(mark);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("status").filter({ hasText: `: ${mark} of 20, a draft.` })).toBeAttached();
  }
  await expect(page.getByRole("status").filter({ hasText: "None waits any more." })).toBeVisible();
  expect(keys).toBe(marks.join("").length + marks.length);

  const now = (await marking(page, at.id, at.assignment)).stretches[0]!.pieces;
  expect(waiting.map((w) => now.find((p) => p.student === w.student)!.score)).toEqual(marks.map(Number));
  await page.getByRole("button", { name: `Return ${waiting.length} drafts…` }).click();
  await page.getByRole("button", { name: `Return ${waiting.length} pieces of work` }).click();
  await expect(page.getByRole("status").filter({ hasText: `${waiting.length} pieces returned.` })).toBeVisible();
  await expect(page.getByText("none waits")).toBeVisible();
  await page.context().close();
});

test("a picture, pages, a page with a script and a broken picture: shown as what they are, or downloaded", async ({ browser }) => {
  const staff = await signedIn(browser, "wren");
  const at = await opened(staff);
  // One who has not handed in puts it all in.
  const late = (await marking(staff, at.id, at.assignment)).stretches[0]!.pieces.find((p) => p.work === null)!;
  const found = (await (await staff.request.get(`/api/people?Text=${encodeURIComponent(late.sortName.split(", ")[0]!)}`)).json()) as { people: { id: number; userName: string }[] };
  const { userName } = found.people.find((r) => r.id === late.student)!;
  const page = await signedIn(browser, userName, "tide-pool-lantern");
  await chooseOwn(page, "tide-pool-lantern", "salt-wind-harbour-9");
  const art = await page.context().newPage();
  await art.setContent("<h1>Glaze notes</h1><p>The first firing ran too hot.</p>");
  const pdf = await art.pdf();
  const png = await art.screenshot();
  await art.close();
  const own = `/api/classes/${at.id}/assignments/${at.assignment}/own-work`;
  const put = async (name: string, data: Buffer) => expect((await page.request.post(`${own}/files?name=${encodeURIComponent(name)}`, { data, headers: { "Content-Type": "application/octet-stream", "Idempotency-Key": name } })).ok(), name).toBe(true);
  await put("kiln.png", png);
  await put("glaze notes.pdf", pdf);
  await put("broken.png", png.subarray(0, 40));
  await put("broken.pdf", pdf.subarray(0, 60));
  await put("trick.png", Buffer.from("<svg xmlns='http://www.w3.org/2000/svg'><script>document.title='run'</script></svg>"));
  expect((await page.request.post(`${own}/hand-in`, { headers: { "Idempotency-Key": "in" } })).ok()).toBe(true);

  await staff.goto(`/classes/${at.id}/marking?assignment=${at.assignment}&piece=${at.assignment}-${late.student}`);
  const picture = staff.getByRole("img", { name: "kiln.png" });
  await expect(picture).toBeVisible();
  expect(await picture.evaluate((e: HTMLImageElement) => e.naturalWidth)).toBeGreaterThan(100);
  // Beside it the pages: drawn, and to be heard.
  await expect(staff.getByRole("img", { name: "glaze notes.pdf, page 1 of 1" })).toBeVisible();
  await expect(staff.getByText("Glaze notes The first firing ran too hot.")).toBeAttached();
  const drawn = await staff.locator("canvas.pdf-page").evaluate((c: HTMLCanvasElement) => new Set(c.getContext("2d")!.getImageData(0, 0, c.width, Math.min(200, c.height)).data).size);
  expect(drawn).toBeGreaterThan(2);
  await isAccessible(staff, "a piece in view");
  for (const broken of ["broken.png", "broken.pdf"]) {
    await staff.getByRole("combobox", { name: "Beside it" }).click();
    await staff.getByRole("option", { name: broken }).click();
    await expect(staff.getByText(`“${broken}” can’t be shown`)).toBeVisible();
  }
  await staff.getByRole("combobox", { name: "Beside it" }).click();
  await staff.getByRole("option", { name: "trick.png" }).click();
  await expect(staff.getByText("This kind of file is not shown in the page: download it.")).toBeVisible();
  await expect(staff).toHaveTitle(/Mark Show piece/);
  await staff.context().close();
  await page.context().close();
});

test("typed and not kept is there again, a mark off the scale is said before it is sent, and the way leads back and forth", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const at = await opened(page);
  const waits = (await marking(page, at.id, at.assignment)).stretches[0]!.pieces.find((p) => p.state === "HandedIn" && p.score === null)!;
  await page.goto(`/classes/${at.id}/marking?assignment=${at.assignment}&piece=${at.assignment}-${waits.student}`);
  const mark = page.getByLabel("Mark, of 20");
  // Without a mark the keys return nothing: that takes the button that says so.
  await mark.press("Control+Enter");
  await expect(page.getByRole("button", { name: "Return without a mark" })).toBeVisible();
  expect((await marking(page, at.id, at.assignment)).stretches[0]!.pieces.find((p) => p.student === waits.student)!.state).toBe("HandedIn");
  await mark.fill("21");
  await expect(page.getByText("From 0 to 20.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Mark and next" })).toBeDisabled();
  await mark.fill("18,5");
  const comment = page.getByLabel(/alone$/);
  await comment.fill("A dry foot at last.");
  await mark.focus();
  const name = (await page.getByRole("heading", { level: 2 }).textContent())!;
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("heading", { level: 2 })).not.toHaveText(name);
  await page.goBack();
  await page.goto(`/classes/${at.id}/marking?assignment=${at.assignment}&piece=${at.assignment}-${waits.student}`);
  await expect(mark).toHaveValue("18,5");
  await expect(comment).toHaveValue("A dry foot at last.");
  await comment.focus();
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("status").filter({ hasText: "with 18.5 of 20." })).toBeVisible();
  const now = (await marking(page, at.id, at.assignment)).stretches[0]!.pieces.find((p) => p.student === waits.student)!;
  expect(now).toMatchObject({ state: "Returned", counts: 18.5 });
  await page.context().close();
});

test("what one writes again and again is kept, found by typing and put in with the student's name", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const at = await opened(page);
  const pieces = (await marking(page, at.id, at.assignment)).stretches[0]!.pieces;
  await page.goto(`/classes/${at.id}/marking?assignment=${at.assignment}&piece=${at.assignment}-${pieces[0]!.student}`);
  // What came back already is marked anew; what waits is marked as it is.
  await expect(page.getByRole("region", { name: "Mark and comment" })).toBeVisible();
  const anew = page.getByRole("button", { name: "Mark it anew" });
  if (await anew.isVisible()) await anew.click();
  const comment = page.getByLabel(/alone$/);
  await comment.fill("Well seen, {name}: the foot is dry.");
  await page.getByRole("button", { name: "Keep it as a phrase" }).click();
  const box = page.getByRole("combobox", { name: "A phrase of yours" });
  await expect(box).toBeVisible();
  await comment.fill("");
  await box.fill("dry");
  await box.press("Enter");
  await expect(comment).toHaveValue(/^Well seen, [^{}]+: the foot is dry\.$/);
  await page.getByRole("button", { name: "All phrases…" }).click();
  await page.getByRole("button", { name: /^Remove: Well seen/ }).click();
  await expect(page.getByRole("dialog").getByText("Well seen", { exact: false })).toHaveCount(0);
  await page.getByRole("button", { name: "Done" }).click();
  await expect(box).toHaveCount(0);
  await page.context().close();
});
