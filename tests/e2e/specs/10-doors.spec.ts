import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { expect } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn, staffPassword } from "./people";
import { test } from "./server";

// Who gets in, who sees it, and who ends it.
test("what comes late at the door moves nothing that one is about to press", async ({ browser }) => {
  const page = await (await browser.newContext()).newPage();
  let go: () => void = () => undefined;
  const late = new Promise<void>((r) => (go = r));
  await page.route("**/api/single-sign-on", async (route) => {
    await late;
    await route.continue();
  });
  await page.goto("/");
  const button = page.getByRole("button", { name: "Sign in", exact: true });
  const before = await button.boundingBox();
  expect(before).not.toBeNull();
  go();
  await expect(page.getByRole("link", { name: "Sign in with Island District" })).toBeVisible();
  expect(await button.boundingBox()).toEqual(before);
  await page.context().close();
});

test("another place where one is signed in is seen and signed out; there the door is shown, and here all goes on", async ({ browser }) => {
  const here = await signedIn(browser, "yusuf");
  const there = await signedIn(browser, "yusuf");
  const third = await signedIn(browser, "yusuf");
  await here.getByRole("button", { name: /^Yusuf/ }).click();
  await here.getByRole("menuitem", { name: "Where you are signed in" }).click();
  const places = here.getByRole("table", { name: "Places where you are signed in" }).getByRole("row");
  await expect(places).toHaveCount(4);
  await expect(here.getByRole("heading", { name: "Here and in 2 other places" })).toBeVisible();
  await expect(places.filter({ hasText: "here" })).toContainText("Chrome on Linux");
  await isAccessible(here, "one's own sign-ins");

  await here.getByRole("button", { name: /^Sign out Chrome on Linux/ }).first().click();
  await expect(places).toHaveCount(3);
  await here.getByRole("button", { name: "Sign out everywhere else" }).click();
  await expect(here.getByRole("status").filter({ hasText: "signed out" })).toContainText("1 place was signed out.");
  await expect(here.getByRole("heading", { name: "Here only" })).toBeVisible();
  for (const page of [there, third]) {
    await page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: "Loft" }).click();
    await expect(page.getByRole("dialog", { name: "Your sign-in has ended" })).toBeVisible();
  }
  await here.reload();
  await expect(places).toHaveCount(2);
  for (const page of [here, there, third]) await page.context().close();
});

test("a teacher who enrolls any student has no slip of theirs, until a coordinator says yes; the first password is asked for one that is hard to guess", async ({ browser }) => {
  const teacher = await signedIn(browser, "yusuf");
  await teacher.addInitScript(() => (window.print = () => undefined));
  const id = await teacher.locator("tr[data-id]").first().getAttribute("data-id");
  const other = await teacher.evaluate(async (classId) => {
    const found: { id: number; sortName: string; inThisClass: string | null }[] = await (await fetch(`/api/directory?starts=a&students=true&classId=${classId}`)).json();
    const one = found.find((p) => p.inThisClass === null)!;
    const answer = await fetch(`/api/classes/${classId}/roster`, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ people: [one.id], role: "Student", includeOpen: false }) });
    return answer.ok ? one.sortName : `refused with ${answer.status}`;
  }, id);
  await teacher.goto(`/classes/${id}/slips`);
  const theirs = teacher.getByRole("list", { name: "Slips" }).getByRole("listitem").filter({ hasText: other });
  await expect(theirs).toContainText("enrolled by hand: yours on Thu 10 June, or on a coordinator’s yes");
  await expect(theirs.getByRole("button", { name: /^New slip/ })).toBeDisabled();
  await isAccessible(teacher, "slips with one that the class may not have");

  const wren = await signedIn(browser, "wren");
  await wren.goto(`/classes/${id}/slips`);
  await wren.getByRole("button", { name: "Let the class have 1 slip" }).click();
  await expect(wren.getByText("The staff of the class may have them now.")).toBeVisible();
  await isAccessible(wren, "slips that a coordinator let a class have");

  await teacher.reload();
  await teacher.getByRole("checkbox", { name: /^all/ }).uncheck();
  await theirs.getByRole("checkbox").check();
  await theirs.getByRole("button", { name: /^New slip/ }).click();
  await teacher.getByRole("button", { name: "Print 1 slip…" }).click();
  await teacher.emulateMedia({ media: "print" });
  const sheet = teacher.locator("[data-sheet]");
  await expect(sheet).toContainText(/First password [a-z]+-[a-z]+-[a-z]+-\d\d/);
  const [, userName, phrase] = /User name (\S+)\s+First password (\S+)/.exec((await sheet.innerText()).replaceAll("\n", " "))!;

  const student = await signedIn(browser, userName!, phrase);
  // Whose it is sees who made it.
  await expect(student.getByText(/Yusuf \S+ made that slip on/)).toBeVisible();
  await student.getByLabel("Password from your slip").fill(phrase!);
  for (const field of ["New password", "New password again"]) await student.getByLabel(field, { exact: true }).fill("football1");
  await student.locator("button[type=submit]").click();
  await expect(student.getByRole("alert")).toContainText("guessed in about");
  await isAccessible(student, "a password that is guessed soon");
  await chooseOwn(student, phrase!, "otter-on-the-slipway");
  await student.goto("/sign-ins");
  await expect(student.getByText(/^You chose it on/)).toBeVisible();

  // Now it is their own, and no teacher ends it.
  await teacher.emulateMedia({ media: "screen" });
  await teacher.reload();
  await expect(theirs).toContainText("only a coordinator can end a password of their own");
  await wren.goto("/audit");
  const trail = wren.getByRole("table", { name: "Audit trail" });
  for (const act of ["saw a first password", "made a new slip", "let a class have a slip"]) await expect(trail.getByText(act, { exact: true }).first()).toBeVisible();
  for (const page of [teacher, wren, student]) await page.context().close();
});

test("who mistypes in one browser is shut out there for a while, and not in the one they use every day", async ({ browser, baseURL }) => {
  const daily = await signedIn(browser, "oisin");
  const request = (await browser.newContext()).request;
  const guess = async () => (await request.post(`${baseURL}/api/sign-in`, { data: { userName: "oisin", password: "not-this-one" } })).status();
  for (let i = 0; i < 5; i++) expect(await guess()).toBe(401);
  // Shut for two seconds, then for four, and so on: on a slow machine the first of them may be over before the next guess comes.
  await expect.poll(guess).toBe(429);

  await daily.getByRole("button", { name: /^Oisín/ }).click();
  await daily.getByRole("menuitem", { name: "Sign out" }).click();
  await daily.getByLabel("User name").fill("oisin");
  await daily.getByLabel("Password").fill(staffPassword);
  await daily.getByRole("button", { name: "Sign in" }).click();
  await expect(daily.getByRole("button", { name: /^Oisín/ })).toBeVisible();
  await daily.context().close();
});

test("the audit trail says who looked into whose class and from where; a line that was changed in the database itself is found", async ({ browser, school }) => {
  const wren = await signedIn(browser, "wren");
  const id = await wren.locator("tr[data-id]").first().getAttribute("data-id");
  await wren.goto(`/classes/${id}/enroll`);
  await expect(wren.getByRole("table", { name: /^Roster/ })).toBeVisible();
  await wren.goto("/audit");
  const trail = wren.getByRole("table", { name: "Audit trail" });
  const looked = trail.getByRole("row").filter({ hasText: "looked at roster" });
  await expect(looked.first()).toContainText("Wren");
  await expect(looked.first()).toContainText("127.0.0.1");
  await wren.getByLabel("Look for a name, an act or a word").fill("looked at roster");
  await expect(trail.getByRole("row").filter({ hasNotText: "looked at roster" })).toHaveCount(1);
  await wren.getByLabel("Look for a name, an act or a word").fill("no such words at all");
  await expect(wren.getByText("No line is like that")).toBeVisible();
  await wren.getByLabel("Look for a name, an act or a word").fill("");

  await wren.getByRole("button", { name: "Follow the chain" }).click();
  await expect(wren.getByRole("status")).toContainText("in an unbroken chain.");
  await isAccessible(wren, "the audit trail with its chain");
  // By hand, beside the program, as somebody would who may write the file.
  execFileSync("sqlite3", [join(school.data, "spring-loft.db"), ".timeout 20000", "UPDATE audit SET detail = 'nothing happened' WHERE id = 40"]);
  await wren.getByRole("button", { name: "Follow the chain" }).click();
  await expect(wren.getByRole("status")).toContainText("Line 40 of");
  await isAccessible(wren, "the audit trail with a line that was changed");
  await wren.context().close();
});
