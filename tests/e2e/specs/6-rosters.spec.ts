import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

const post = (page: Page, path: string, body: unknown) =>
  page.evaluate(
    async ([p, b]) => {
      const answer = await fetch(p as string, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(b) });
      if (!answer.ok) throw new Error(`${p}: ${await answer.text()}`);
      return answer.status === 204 ? null : answer.json();
    },
    [path, body] as const,
  );

let coordinator: Page;
let first: number;
let second: number;
let students: { id: number; sortName: string }[];

test.beforeAll(async ({ browser }) => {
  coordinator = await signedIn(browser, "wren");
  const school = await (await coordinator.request.get("/api/school")).json();
  const plans = await (await coordinator.request.get("/api/plans")).json();
  const plan = plans.find((p: { name: string }) => p.name === "Small start").id;
  const make = async (section: string) => (await post(coordinator, "/api/classes", { year: school.current, course: "Lantern Making", section, period: "1", term: null, plan, teacherShown: "Wren" })).id;
  first = await make("5A");
  second = await make("5B");
  const page = await (await coordinator.request.get("/api/people?Grade=5&Role=Student")).json();
  students = page.people.slice(0, 6);
  await post(coordinator, `/api/classes/${first}/roster`, { people: students.slice(0, 4).map((s) => s.id), role: "Student", includeOpen: false });
  for (const k of [first, second]) {
    const head = await (await coordinator.request.get(`/api/classes/${k}`)).json();
    await post(coordinator, `/api/classes/${k}/opening`, { version: head.version });
  }
});

test("the records are asked, what would hurt is held, a yes lets it through, and all is taken back", async () => {
  await coordinator.goto("/enroll/deliveries");
  await expect(coordinator.getByText(/quiet: it is switched off/)).toBeVisible();
  await isAccessible(coordinator, "deliveries");
  await coordinator.getByRole("button", { name: "Run it now" }).click();
  await expect(coordinator.getByRole("heading", { name: /^On hold: / })).toBeVisible();
  await expect(coordinator.getByRole("table", { name: "Findings" })).toContainText("skp-9999");
  await isAccessible(coordinator, "a delivery with holds");
  await coordinator.getByRole("button", { name: /^\d+ new person$/ }).click();
  await expect(coordinator.getByRole("table", { name: "Changes one by one" })).toContainText("Quiroga-Ó Flaithearta, Nerys");
  const slip = coordinator.getByRole("complementary", { name: "Slip" });
  await slip.getByRole("button", { name: /^Apply \d+ changes…$/ }).click();
  await coordinator.getByRole("dialog").getByRole("button", { name: /^Apply \d+ changes$/ }).click();
  await expect(slip.getByRole("status")).toContainText("applied");
  await expect(slip).toContainText("on hold until you decide");

  for (let n = await coordinator.getByRole("button", { name: "Yes, let it happen" }).count(); n > 0; n--) {
    await coordinator.getByRole("button", { name: "Yes, let it happen" }).first().click();
    await expect(coordinator.getByRole("button", { name: "Yes, let it happen" })).toHaveCount(n - 1);
  }
  await slip.getByRole("button", { name: /^Apply \d+ changes…$/ }).click();
  await coordinator.getByRole("dialog").getByRole("button", { name: /^Apply \d+ changes$/ }).click();
  await expect(slip.getByRole("heading", { name: "All of it is applied" })).toBeVisible();

  await slip.getByRole("button", { name: "Take it back…" }).click();
  await coordinator.getByRole("dialog").getByRole("button", { name: "Take it back" }).click();
  await expect(slip.getByRole("status")).toContainText("taken back");
});

test("a table that mixes people up is asked about before it touches anybody, and the year goes out as one table", async () => {
  const { people } = await (await coordinator.request.get("/api/people?Role=Student&Grade=9")).json();
  const [a, b] = people as { id: number; sortName: string; studentNumber: string }[];
  const [teacher] = (await (await coordinator.request.get("/api/people?Role=Teacher&Text=farq")).json()).people;
  const text = `class,name,student number,e-mail\n"Lantern Making 5B · period 1 · 2026–27","${a.sortName}",${a.studentNumber},\n"Lantern Making 5B · period 1 · 2026–27","${teacher.sortName}",,${teacher.email}\n"No such class","${b.sortName}",${b.studentNumber},\n`;
  await coordinator.goto("/enroll/deliveries");
  await coordinator.locator("input[type=file]").first().setInputFiles({ name: "lanterns.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  await expect(coordinator.getByLabel("The table is whole: whom a delivery put into a class it names, and who is not in it, leaves that class")).not.toBeChecked();
  await coordinator.getByRole("button", { name: "Compare with the school" }).click();
  const hold = coordinator.getByRole("listitem").filter({ hasText: "is staff here and a student in the delivery; if it is them, they become a student" });
  await expect(hold.getByRole("button", { name: "That is who it is" })).toBeDisabled();
  await expect(coordinator.getByRole("table", { name: "Findings" })).toContainText("There is no class “No such class”");
  await hold.getByRole("button", { name: "No, leave it out" }).click();
  await expect(hold).toContainText("You said no: nothing comes of it.");
  await expect(coordinator.getByRole("button", { name: "Apply 1 change…" })).toBeVisible();

  await coordinator.getByRole("button", { name: "Set it aside…" }).click();
  await coordinator.getByRole("dialog").getByRole("button", { name: "Set it aside" }).click();
  await coordinator.goto("/enroll/deliveries");
  const coming = coordinator.waitForEvent("download");
  await coordinator.getByRole("link", { name: "Rosters of 2026–27 as a table" }).click();
  expect((await coming).suggestedFilename()).toBe("rosters 2026–27.csv");
});

test("a late joiner has an own folder at once, and earlier assignments only if the teacher says so", async () => {
  await coordinator.goto(`/classes/${first}/enroll`);
  await coordinator.getByLabel(/^Students, by the first letters/).fill(students[4]!.sortName.slice(0, 5));
  await coordinator.getByRole("option", { name: new RegExp(students[4]!.sortName.split(",")[0]!) }).filter({ hasText: students[4]!.sortName }).first().click();
  await expect(coordinator.getByLabel(/^Include what is already open/)).not.toBeChecked();
  await coordinator.getByRole("button", { name: "Enroll 1 student" }).click();
  const row = coordinator.getByRole("table", { name: "Roster" }).getByRole("row", { name: new RegExp(students[4]!.sortName) }).first();
  await expect(row).toContainText("ready");
  await isAccessible(coordinator, "the roster with acts");
  await row.getByRole("button", { name: /^Give .* what was open before$/ }).click();
  await expect(row.getByRole("button", { name: /^Give .* what was open before$/ })).toBeHidden();
});

test("a student moves to another set with what is in their own folder, and it is said before", async () => {
  const workspace = await (await coordinator.request.get(`/api/classes/${first}/workspace`)).json();
  const own = workspace.folders.find((f: { ownOf: string | null }) => f.ownOf !== null && students[0]!.sortName.split(", ").every((part) => f.ownOf!.includes(part)));
  const status = await coordinator.evaluate(
    async ([k, folder]) => (await fetch(`/api/classes/${k}/folders/${folder}/files?name=sketch.txt`, { method: "POST", headers: { "Content-Type": "application/octet-stream" }, body: "a lantern" })).status,
    [first, own.id] as const,
  );
  expect(status).toBeLessThan(300);
  await coordinator.goto(`/classes/${first}/enroll`);
  await coordinator.getByRole("button", { name: `Move ${students[0]!.sortName} to another set` }).first().click();
  const dialog = coordinator.getByRole("dialog");
  await dialog.getByLabel("To", { exact: true }).click();
  await coordinator.getByRole("option", { name: /Lantern Making 5B/ }).click();
  await expect(dialog.getByRole("status")).toContainText("sketch.txt");
  await isAccessible(coordinator, "a move, before it is done");
  await dialog.getByRole("button", { name: /^Move to / }).click();
  await expect(coordinator.getByText(/moved to Lantern Making 5B/)).toBeVisible();
  const there = await (await coordinator.request.get(`/api/classes/${second}/workspace`)).json();
  expect(there.items.map((i: { name: string }) => i.name)).toContain("sketch.txt");
});

test("several are taken off at once with what it means for each", async () => {
  await coordinator.goto(`/classes/${first}/enroll`);
  for (const s of students.slice(1, 3)) await coordinator.getByRole("checkbox", { name: `Tick ${s.sortName}` }).first().check();
  await coordinator.getByRole("button", { name: "Take 2 people off the roster…" }).click();
  const dialog = coordinator.getByRole("dialog");
  await expect(dialog.getByRole("table", { name: "What it means" })).toContainText(students[1]!.sortName);
  await isAccessible(coordinator, "several off the roster");
  await dialog.getByRole("button", { name: "Take 2 people off" }).click();
  await expect(dialog).toBeHidden();
  await expect(coordinator.getByRole("table", { name: "Roster" }).getByRole("row", { name: new RegExp(students[1]!.sortName) })).toContainText("left");
});

test("a student joins by the code on the wall, after a yes", async ({ browser }) => {
  await coordinator.goto(`/classes/${second}/join-code`);
  await coordinator.getByRole("checkbox", { name: "Each waits for my yes" }).check();
  await coordinator.getByRole("button", { name: "Make a join code" }).click();
  const code = (await coordinator.getByLabel("Join code", { exact: true }).textContent())!;
  expect(code).toMatch(/^[A-Z0-9]{4}-[A-Z0-9]{4}$/);
  await isAccessible(coordinator, "the join code");

  const child = await signedIn(browser, "s1203", "tide-pool-lantern");
  await chooseOwn(child, "tide-pool-lantern", "paper-boat-seven");
  await child.getByRole("link", { name: "Join a class with a code" }).click();
  await child.getByLabel("Join code").fill("WWWW-9999");
  await child.getByRole("button", { name: "Join" }).click();
  await expect(child.getByText("“WWWW-9999” is no join code.")).toBeVisible();
  await child.getByLabel("Join code").fill(code.toLowerCase());
  await isAccessible(child, "joining a class");
  await child.getByRole("button", { name: "Join" }).click();
  await expect(child.getByText("Your teacher will let you in")).toBeVisible();
  await coordinator.getByRole("button", { name: /^Let .* in$/ }).click();
  await expect(coordinator.getByText("1 student has joined", { exact: false })).toBeVisible();
  await child.goto("/");
  await expect(child.getByRole("link", { name: /Lantern Making 5B/ })).toBeVisible();
});

test("a student set to view only sees the class and posts nothing, until they may again", async ({ browser }) => {
  const child = await signedIn(browser, "s1203", "paper-boat-seven");
  await child.goto(`/classes/${second}`);
  await child.getByRole("treeitem", { name: /Shared table/ }).click();
  await expect(child.getByRole("button", { name: "Write a page…" })).toBeVisible();

  await coordinator.goto(`/classes/${second}/enroll`);
  const row = coordinator.getByRole("table", { name: "Roster" }).getByRole("row").filter({ hasText: "1203" });
  const dialog = coordinator.getByRole("dialog");
  await row.getByRole("checkbox").check();
  await coordinator.getByRole("button", { name: "View only or post…" }).click();
  await expect(dialog.getByRole("table", { name: "What it means" })).toContainText("Shared table");
  await isAccessible(coordinator, "view only, or post");
  await dialog.getByRole("button", { name: "Set 1 student to view only" }).click();
  await expect(row).toContainText("student, views only");

  await child.reload();
  await expect(child.getByText("you may look here, not post", { exact: false })).toBeVisible();
  await child.getByRole("treeitem", { name: /Shared table/ }).click();
  await expect(child.getByRole("button", { name: "Write a page…" })).toHaveCount(0);
  await isAccessible(child, "a class one may only view");

  await row.getByRole("checkbox").check();
  await coordinator.getByRole("button", { name: "View only or post…" }).click();
  await dialog.getByRole("button", { name: "Let 1 student post" }).click();
  await expect(row).not.toContainText("views only");
  await child.reload();
  await child.getByRole("treeitem", { name: /Shared table/ }).click();
  await expect(child.getByRole("button", { name: "Write a page…" })).toBeVisible();
});

test("two sections are one list, each in its colour and letter", async () => {
  await coordinator.goto("/enroll/combined");
  await coordinator.getByRole("button", { name: "Combine classes…" }).click();
  const dialog = coordinator.getByRole("dialog");
  await dialog.getByLabel("Name", { exact: true }).fill("All lanterns");
  for (const s of ["5A", "5B"]) await dialog.getByRole("checkbox", { name: new RegExp(`Lantern Making ${s}`) }).check();
  await isAccessible(coordinator, "combining classes");
  await dialog.getByRole("button", { name: "Combine 2 classes" }).click();
  const table = coordinator.getByRole("table", { name: "Combined roster" });
  await expect(table.getByRole("row", { name: /\bA\b/ }).first()).toBeVisible();
  await expect(table.getByRole("row", { name: /\bB\b/ }).first()).toBeVisible();
  await isAccessible(coordinator, "a combined roster");
});

test("groups are made by chance and mixed again, and what can't be is said", async () => {
  await coordinator.goto(`/classes/${second}/groups`);
  await coordinator.getByRole("button", { name: /^Make many/ }).click();
  const dialog = coordinator.getByRole("dialog");
  await dialog.getByLabel("Groups", { exact: true }).fill("9");
  await expect(dialog.getByText(/can't be put into 9 groups/)).toBeVisible();
  await dialog.getByLabel("Groups", { exact: true }).fill("2");
  await expect(dialog.getByRole("status")).toContainText("2 groups");
  await dialog.getByRole("button", { name: "Mix again" }).click();
  await isAccessible(coordinator, "making groups");
  await dialog.getByRole("button", { name: "Make 2 groups" }).click();
  await expect(coordinator.getByText("2 groups made", { exact: false })).toBeVisible();
});

test("two accounts of one child are joined by a person and taken apart again", async () => {
  await coordinator.goto("/enroll/directory/duplicates");
  await coordinator.getByRole("button", { name: /^They are one: keep .*, s1\d+$/ }).first().click();
  await isAccessible(coordinator, "possible duplicates");
  await coordinator.getByRole("dialog").getByRole("button", { name: "Join the two" }).click();
  const joined = coordinator.getByRole("table", { name: "Joined" });
  await expect(joined).toContainText("visitor-11");
  await joined.getByRole("button", { name: "Take apart again" }).click();
  await expect(joined).toContainText("taken apart again");
});

test("the directory finds by first letters and looks before it adds", async () => {
  await coordinator.goto("/enroll/directory");
  await coordinator.getByLabel("Name, number, e-mail").fill(students[0]!.sortName.slice(0, 4));
  await expect(coordinator.getByRole("table", { name: "People" })).toContainText(students[0]!.sortName);
  await isAccessible(coordinator, "the directory");
  await coordinator.getByRole("button", { name: "Add somebody…" }).click();
  const [family, given] = students[0]!.sortName.split(", ");
  const dialog = coordinator.getByRole("dialog");
  await dialog.getByLabel("Given name").fill(given!);
  await dialog.getByLabel("Family name").fill(family!);
  await expect(dialog.getByText(/lready .*here/)).toBeVisible();
  await expect(dialog.getByRole("button", { name: "Add to the directory" })).toBeDisabled();
  await isAccessible(coordinator, "adding a person");
});

test("the directory is put in order over all who are found and not over a page, and its address says so", async () => {
  await coordinator.goto("/enroll/directory?role=Student");
  const table = coordinator.getByRole("table", { name: "People" });
  const numbers = async () => (await table.locator("td[data-head=Number]").allTextContents()).map(Number);
  await expect(table.getByRole("row").nth(1)).toBeVisible();
  await table.getByRole("button", { name: "Number", exact: true }).click();
  await expect(coordinator).toHaveURL(/order=Number/);
  await expect(async () => expect((await numbers())[0]).toBe(1001)).toPass();
  await table.getByRole("button", { name: "Number", exact: true }).click();
  await expect(table.getByRole("columnheader", { name: "Number" })).toHaveAttribute("aria-sort", "descending");
  // More than one page of them: the highest stands first.
  await expect(async () => {
    const seen = await numbers();
    expect(seen[0]).toBeGreaterThan(1200);
    expect(seen).toEqual([...seen].sort((a, b) => b - a));
  }).toPass();
  // What is ticked on one page stays ticked when another is ticked whole.
  await table.getByRole("checkbox", { name: /^Tick / }).nth(1).check();
  await coordinator.getByRole("button", { name: "After" }).click();
  await expect(coordinator.getByText(/^101 to/)).toBeVisible();
  await table.getByRole("checkbox", { name: "Tick all on this page" }).check();
  await expect(coordinator.getByRole("heading", { name: "101 people ticked" })).toBeVisible();
});

test("who has left the school comes off the rosters where nothing is held, and is back when that was wrong", async () => {
  const person = { given: "Ephraim", family: "Quicklee", role: "Student", grade: "5", studentNumber: "8801", email: null, school: null };
  const who = { ...(await post(coordinator, "/api/people", { person, evenSo: true })), sortName: "Quicklee, Ephraim" };
  await post(coordinator, `/api/classes/${second}/roster`, { people: [who.id], role: "Student", includeOpen: false });
  await coordinator.goto("/enroll/directory");
  await coordinator.getByLabel("Name, number, e-mail").fill("quick");
  const row = coordinator.getByRole("row").filter({ hasText: who.sortName });
  await row.getByRole("checkbox").check();
  await coordinator.getByRole("button", { name: "They have left…" }).click();
  const dialog = coordinator.getByRole("dialog");
  await expect(dialog.getByRole("checkbox", { name: /^Take them off 1 roster: Lantern Making 5B/ })).toBeChecked();
  await isAccessible(coordinator, "marking people as having left");
  await dialog.getByRole("button", { name: "Mark them as having left" }).click();
  // Behind an open dialog there are no rows for anybody: it shuts when it is done.
  await expect(dialog).toHaveCount(0);
  await expect(row).toHaveCount(0);
  const roster = await (await coordinator.request.get(`/api/classes/${second}/roster`)).json();
  expect(roster.filter((r: { id: number; left: string | null }) => r.id === who.id && !r.left)).toHaveLength(0);

  const filter = coordinator.getByLabel("Which");
  await filter.click();
  await coordinator.getByRole("option", { name: /left/ }).click();
  await row.getByRole("checkbox").check();
  await coordinator.getByRole("button", { name: "They are back" }).click();
  await expect(row).toHaveCount(0);
});

test("the roster sheet grows by ten rows as it fills", async () => {
  await coordinator.goto(`/classes/${second}/enroll`);
  const sheet = coordinator.getByRole("list", { name: "To be enrolled" });
  await coordinator.getByRole("button", { name: "All of a class or a grade…" }).click();
  const dialog = coordinator.getByRole("dialog");
  await dialog.getByRole("button", { name: "a grade", exact: true }).click();
  await dialog.getByLabel("Grade", { exact: true }).fill("9");
  await dialog.getByRole("button", { name: /^Put .* on the list$/ }).click();
  const on = await sheet.getByRole("listitem").count();
  expect(on).toBeGreaterThan(10);
  // Numbered rows: those filled, the one to write in, and blank ones up to the next full ten.
  const next = Math.ceil((on + 1) / 10) * 10;
  await expect(coordinator.getByText(String(next), { exact: true }).last()).toBeVisible();
  await expect(coordinator.getByText(String(next + 1), { exact: true })).toHaveCount(0);
  await expect(coordinator.getByLabel(/^Students, by the first letters/)).toBeInViewport();
  await sheet.getByRole("button", { name: /^Take .* off the list$/ }).first().click();
  await expect(sheet.getByRole("listitem")).toHaveCount(on - 1);
});

test("the coordinator prints slips for staff ticked in the directory", async () => {
  await coordinator.addInitScript(() => (window.print = () => undefined));
  await coordinator.goto("/enroll/directory");
  await coordinator.getByLabel("Name, number, e-mail").fill("Winterbourne");
  const row = coordinator.getByRole("table", { name: "People" }).getByRole("row", { name: /Winterbourne, Léa/ });
  await row.getByRole("checkbox").check();
  await coordinator.getByRole("link", { name: "Sign-in slip", exact: true }).click();
  await expect(coordinator.getByRole("heading", { name: "Sign-in slips" })).toBeVisible();
  await coordinator.getByRole("button", { name: "Make 1 new slip…" }).click();
  await coordinator.getByRole("dialog").getByRole("button", { name: "Make 1 new slip" }).click();
  await coordinator.getByRole("button", { name: "Print 1 slip…" }).click();
  await expect(coordinator.locator("[data-sheet]")).toContainText("Léa Winterbourne");
  await isAccessible(coordinator, "slips of people of the directory");
  const pdf = coordinator.waitForEvent("download");
  await coordinator.getByRole("link", { name: "A4", exact: true }).click();
  expect((await pdf).suggestedFilename()).toBe("sign-in slips.pdf");
});

test("all that are found are ticked in one go, past the page that is shown", async () => {
  await coordinator.goto("/enroll/directory");
  await coordinator.getByLabel("Role", { exact: true }).click();
  await coordinator.getByRole("option", { name: "student", exact: true }).click();
  await expect(coordinator.getByRole("table", { name: "People" }).getByRole("cell", { name: "teacher", exact: true })).toHaveCount(0);
  const all = Number((await coordinator.getByRole("heading", { name: /^\d+ people$/ }).textContent())!.match(/\d+/)![0]);
  expect(all).toBeGreaterThan(100);
  await coordinator.getByLabel("Tick all on this page").check();
  await expect(coordinator.getByRole("heading", { name: "100 people ticked" })).toBeVisible();
  await coordinator.getByRole("button", { name: `Tick all ${all} that are found` }).click();
  await expect(coordinator.getByRole("heading", { name: `${all} people ticked` })).toBeVisible();
  await isAccessible(coordinator, "all of the directory ticked");
  await coordinator.getByRole("button", { name: "They have left…" }).click();
  await expect(coordinator.getByRole("dialog").getByRole("checkbox")).toBeChecked();
  await coordinator.getByRole("dialog").getByRole("button", { name: "Not now" }).click();
  await coordinator.getByRole("link", { name: "Sign-in slips", exact: true }).click();
  await expect(coordinator.getByLabel(`all ${all}`)).toBeVisible();
});

test("a role in the school is changed only after it was said what it lets one do", async () => {
  await coordinator.goto("/enroll/directory");
  await coordinator.getByLabel("Name, number, e-mail").fill("Winterbourne");
  const row = coordinator.getByRole("table", { name: "People" }).getByRole("row", { name: /Winterbourne, Léa/ });
  const change = async (to: string, said: RegExp, act: string) => {
    await row.getByRole("checkbox").check();
    await coordinator.getByLabel("Role in the school").click();
    await coordinator.getByRole("option", { name: to }).click();
    await expect(coordinator.getByRole("dialog")).toContainText(said);
    await coordinator.getByRole("dialog").getByRole("button", { name: act }).click();
    await expect(coordinator.getByRole("dialog")).toHaveCount(0);
  };
  const before = (await row.locator("[data-head=Role]").textContent())!;
  await change("coordinator", /see and change every class/, "Not now");
  await expect(row.locator("[data-head=Role]")).toHaveText(before);
  await coordinator.getByRole("button", { name: "Untick all" }).click();
  await change("staff, without", /make no classes/, "Change 1 role");
  await expect(row.locator("[data-head=Role]")).toHaveText("staff");
  await change("teacher", /make classes/, "Change 1 role");
  await expect(row.locator("[data-head=Role]")).toHaveText("teacher");
});

test("an invitation goes out by mail and the outbox shows the letter", async () => {
  await coordinator.goto(`/classes/${second}/invitations`);
  await coordinator.getByRole("button", { name: "Co-teachers" }).click();
  await coordinator.getByLabel("E-mail addresses").fill("oisin@skerrypoint.invalid, nonsense");
  await coordinator.getByRole("button", { name: "Send 2 invitations" }).click();
  await expect(coordinator.getByText("1 invitation written")).toBeVisible();
  await expect(coordinator.getByText("“nonsense” is no e-mail address")).toBeVisible();
  await isAccessible(coordinator, "invitations");
  await coordinator.goto("/outbox");
  await expect(coordinator.getByText(/invites you to Lantern Making 5B/).first()).toBeVisible();
});

test("a class of another program is looked up by its code and matched", async () => {
  await coordinator.goto(`/classes/${second}/enroll`);
  await coordinator.getByRole("button", { name: "From another program…" }).click();
  const dialog = coordinator.getByRole("dialog");
  await dialog.getByLabel("Code of the class over there").fill("nothing");
  await dialog.getByRole("button", { name: "Look it up" }).click();
  await expect(dialog.getByText(/no class with the code/)).toBeVisible();
  await dialog.getByLabel("Code of the class over there").fill("HARBOUR7");
  await dialog.getByRole("button", { name: "Look it up" }).click();
  await expect(dialog.getByText("Harbour Choir, evening group")).toBeVisible();
  await expect(dialog.getByText("Thora Windle")).toBeVisible();
  await isAccessible(coordinator, "a class of another program");
});
