import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

// A day in June: a student sees what is late, what is due and what came back; a teacher gives an assignment and sees who will find it.
let student: Page;
let teacher: Page;

test.beforeAll(async ({ browser }) => {
  student = await signedIn(browser, "s1001", "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "blue-otter-walks-9");
  teacher = await signedIn(browser, "wren");
});

test.afterAll(async () => {
  await student.context().close();
  await teacher.context().close();
});

const part = (name: string) => student.getByRole("region", { name, exact: true });

test("a student finds the day's work on a phone: what is late and until when, what is due, what came back", async () => {
  await student.setViewportSize({ width: 390, height: 844 });
  await student.goto("/");
  await expect(student.getByRole("heading", { level: 1, name: "Monday 7 June" })).toBeVisible();
  await expect(student.getByText("School week 36, 10 school days left.")).toBeVisible();
  const late = part("Late").getByRole("listitem").filter({ hasText: "Log of the week" });
  await expect(late).toContainText("since Fri 4 June, taken to Mon 14 June");
  await expect(part("Today").getByRole("listitem").filter({ hasText: "List for the open day" }).first()).toContainText("today");
  await expect(part("This week").getByRole("listitem").filter({ hasText: "Last sketch" }).first()).toContainText("Thu 10 June");
  await expect(part("Came back, and told")).toContainText("Log of the week");
  await expect(part("Came back, and told")).toContainText("new");
  await isAccessible(student, "a student's day");
  // Within one visit it stays new: a look into the class and back takes nothing away.
  await student.reload();
  await expect(part("Came back, and told")).toContainText("new");
});

test("what came back of a class stands in one list, with its marks and what was said", async () => {
  const link = student.getByRole("link", { name: /^\d+ pieces came back$/ }).first();
  const many = Number.parseInt((await link.textContent())!, 10);
  await link.click();
  await expect(student.getByRole("heading", { name: "What came back" })).toBeVisible();
  await expect(student.getByRole("table", { name: "What came back" }).getByRole("row")).toHaveCount(many + 1);
  await expect(student.getByText(/^\d+ of \d+$/).first()).toBeVisible();
  await isAccessible(student, "what came back");
  await student.getByRole("button", { name: "Back to the folders" }).click();
  await expect(student.getByRole("button", { name: `Came back: ${many}` })).toBeVisible();
  await student.goto("/");
  await expect(part("Late")).toBeVisible();
});

test("what is late and still taken is handed in, said by how much, and leaves the day; what is marked comes back into it", async () => {
  const waiting = await part("Late").getByRole("listitem").count();
  await part("Late").getByRole("link", { name: "Log of the week" }).click();
  const piece = student.getByRole("region", { name: "Log of the week" });
  await expect(piece).toContainText("late, still taken");
  await piece.locator("input[type=file]").setInputFiles({ name: "log.txt", mimeType: "text/plain", buffer: Buffer.from("The edge went wrong once.") });
  await piece.getByRole("button", { name: "Hand in" }).click();
  await expect(piece).toContainText(/\d+ (days|hours) late/);
  await expect(piece).toContainText("your teacher holds it");
  const id = new URL(student.url()).pathname.split("/")[2]!;
  await student.goto("/");
  await expect(part("Came back, and told")).toBeVisible();
  await expect(student.getByRole("region", { name: "Late", exact: true }).getByRole("listitem")).toHaveCount(waiting - 1);

  const { assignments } = (await (await teacher.request.get(`/api/classes/${id}/returns`)).json()) as { assignments: { id: number; title: string }[] };
  const log = assignments.find((a) => a.title === "Log of the week")!.id;
  await teacher.goto(`/classes/${id}/marking?assignment=${log}`);
  await expect(teacher.getByText(/\d+ (days|hours) late/)).toBeVisible();
  await expect(teacher.getByText("The edge went wrong once.")).toBeVisible();
  await teacher.getByLabel("Mark, of 10").fill("9");
  await teacher.getByLabel(/alone$/).fill("Say which edge.");
  await teacher.getByRole("button", { name: "Return and next" }).click();
  await expect(teacher.getByRole("status").filter({ hasText: "with 9 of 10" })).toBeAttached();

  await student.goto("/");
  const back = part("Came back, and told").getByRole("listitem").filter({ hasText: "Say which edge." });
  await expect(back).toContainText("9 of 10, new");
});

test("an assignment is written beside what students will read and who will find it, kept while it is typed, and given", async ({ school }) => {
  const { rows } = (await (await teacher.request.get("/api/board")).json()) as { rows: { id: number; name: string }[] };
  const id = rows.find((r) => r.name.startsWith("Tides and Weather 5A"))!.id;
  await teacher.goto(`/classes/${id}/work`);
  await teacher.getByRole("button", { name: "Make an assignment…" }).click();
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher.getByText("Type a title: students find it by that.")).toBeVisible();
  await expect(teacher.getByText("Pick at least one folder: students find it there.")).toBeVisible();
  await teacher.getByLabel("Title").fill("Last sketch");
  await teacher.getByLabel("Instructions").fill("## What to bring\n\n- your tile");
  await expect(teacher.getByRole("region", { name: "As students read it" }).getByRole("heading", { name: "What to bring" })).toBeVisible();
  await teacher.getByLabel("Points (empty for none)").fill("two");
  await teacher.getByLabel("Due", { exact: true }).fill("2027-06-12");
  await expect(teacher.getByText("There is no school on that day.")).toBeVisible();
  await teacher.getByLabel("Due", { exact: true }).fill("2027-06-10");
  await expect(teacher.getByText("There is no school on that day.")).toBeHidden();
  await expect(teacher.getByText("Due in school week 36.")).toBeVisible();
  await expect(teacher.getByRole("complementary")).toContainText("Last sketch, Thu 10 June");
  await teacher.getByLabel(/^By/).fill("15:30");
  await teacher.getByLabel("Late work").click();
  await teacher.getByRole("option", { name: "is taken for some days" }).click();
  await teacher.getByLabel("Days after it is due").fill("4");
  await expect(teacher.getByText("Late work is taken to Mon 14 June.")).toBeVisible();
  await teacher.getByLabel("Filed in (one folder or several)").click();
  await teacher.getByRole("option", { name: "Start here" }).click();
  await teacher.keyboard.press("Escape");
  await expect(teacher.getByRole("status").filter({ hasText: /^\d+ students find it/ })).toBeVisible();
  await isAccessible(teacher, "giving an assignment");
  // Leaving and coming back, it is still there.
  await teacher.goto("/today");
  await expect(teacher.getByRole("table", { name: "What waits to be marked and returned" }).or(teacher.getByText("Nothing waits for you."))).toBeVisible();
  await isAccessible(teacher, "a teacher's day");
  await teacher.goto(`/classes/${id}/work/new`);
  await expect(teacher.getByLabel("Instructions")).toHaveValue("## What to bring\n\n- your tile");
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher.getByText("“two” is no number")).toBeVisible();
  await teacher.getByLabel("Points (empty for none)").fill("20");
  // There is one of that title: the server says so at the field.
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher.getByText("There is already an assignment “Last sketch”.")).toBeVisible();
  await expect(teacher.getByLabel("Title")).toBeFocused();
  await teacher.getByLabel("Title").fill("Glaze diary");
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher.getByRole("columnheader", { name: /Glaze diary/ })).toContainText(/0 of \d+ in/);
  const given = ((await (await teacher.request.get(`${school.url}/api/classes/${id}/workspace`)).json()) as { assignments: Record<string, unknown>[] }).assignments.find((a) => a.title === "Glaze diary")!;
  expect(given).toMatchObject({ dueOn: "2027-06-10", dueTime: "15:30:00", lateDays: 4, points: 20, dueState: "InTime" });
  // Changed, it begins with what was given; an empty form is empty again.
  await teacher.getByRole("button", { name: "Change…" }).click();
  await expect(teacher.getByLabel("Title")).toHaveValue("Glaze diary");
  await expect(teacher.getByLabel(/^By/)).toHaveValue("15:30");
  await teacher.getByLabel("Late work").click();
  await teacher.getByRole("option", { name: "is not taken" }).click();
  await teacher.getByRole("button", { name: "Change it" }).click();
  await expect(teacher.getByRole("heading", { name: /^Change/ })).toBeHidden();
  await expect(teacher.getByRole("complementary").getByRole("heading", { name: "Glaze diary" })).toBeVisible();
  await teacher.goto(`/classes/${id}/work/new`);
  await expect(teacher.getByLabel("Title")).toHaveValue("");
});

test("drafts are published many at once, by the clock at their moment, and taken back while nobody has handed in", async () => {
  const { rows } = (await (await teacher.request.get("/api/board")).json()) as { rows: { id: number; name: string }[] };
  const id = rows.find((r) => r.name.startsWith("Clay and Glass 9B"))!.id;
  const draft = async (title: string, more: () => Promise<void>) => {
    await teacher.goto(`/classes/${id}/work/new`);
    await teacher.getByLabel("Title").fill(title);
    await teacher.getByLabel("Filed in (one folder or several)").click();
    await teacher.getByRole("option", { name: "Start here" }).click();
    await teacher.keyboard.press("Escape");
    await more();
    await expect(teacher.getByRole("columnheader", { name: new RegExp(title) })).toContainText("draft");
  };
  await draft("Coil one", () => teacher.getByRole("button", { name: "Keep as draft" }).click());
  await draft("Coil two", () => teacher.getByRole("button", { name: "Keep as draft" }).click());
  await draft("Coil tomorrow", async () => {
    await teacher.getByLabel("Published by itself on").fill("2027-06-06");
    await teacher.getByLabel("At", { exact: true }).fill("07:00");
    await teacher.getByRole("button", { name: "Keep it until Sun 6 June" }).click();
    await expect(teacher.getByText("The moment that is set for publishing is over.")).toBeVisible();
    await teacher.getByLabel("Published by itself on").fill("2027-06-08");
    await teacher.getByRole("button", { name: "Keep it until Tue 8 June" }).click();
  });
  await expect(teacher.getByRole("complementary")).toContainText(/published by itself on Tue 8 June, 07:00/);
  await isAccessible(teacher, "an assignment that is published by itself");

  await teacher.goto(`/classes/${id}/work`);
  await teacher.getByRole("button", { name: /^Publish \d+ drafts…$/ }).click();
  const dialog = teacher.getByRole("dialog", { name: "Publish drafts" });
  await dialog.getByRole("checkbox", { name: "Tick Coil tomorrow" }).uncheck();
  await isAccessible(teacher, "publishing many drafts");
  await dialog.getByRole("button", { name: /^Publish \d+ assignments$/ }).click();
  await expect(teacher.getByRole("status").filter({ hasText: /assignments published\./ })).toBeVisible();
  await expect(teacher.getByRole("columnheader", { name: /Coil two/ })).toContainText(/0 of \d+ in/);
  await teacher.getByRole("button", { name: "Coil two", exact: true }).click();
  await teacher.getByRole("button", { name: "Take it back to a draft" }).click();
  await expect(teacher.getByRole("columnheader", { name: /Coil two/ })).toContainText("draft");

  // The next day the clock has done it, with nobody at the screen.
  await teacher.request.post("/api/demo/date", { data: { today: "2027-06-09" }, headers: { "Idempotency-Key": "a day on" } });
  const published = async () => ((await (await teacher.request.get(`/api/classes/${id}/returns`)).json()) as { assignments: { title: string; published: boolean }[] }).assignments.find((a) => a.title === "Coil tomorrow")!.published;
  await expect.poll(published).toBe(true);
});

test("work for a group says so, follows who is in it, and comes to who joined later when the teacher says so", async () => {
  type People = { groups: { id: number; name: string; version: number }[]; students: { id: number; sortName: string }[] };
  const { rows } = (await (await teacher.request.get("/api/board")).json()) as { rows: { id: number; name: string }[] };
  const id = rows.find((r) => r.name.startsWith("Tides and Weather 5A"))!.id;
  const people = async () => (await (await teacher.request.get(`/api/classes/${id}/groups`)).json()) as People;
  const me = (await (await student.request.get("/api/me")).json()) as { id: number };
  const other = (await people()).students.find((s) => s.id !== me.id)!;
  const set = async (members: number[]) => {
    const was = (await people()).groups.find((g) => g.name === "Ebb");
    const data = { name: "Ebb", members, version: was?.version ?? 0 };
    const path = `/api/classes/${id}/groups`;
    expect((await (was ? teacher.request.put(`${path}/${was.id}`, { data }) : teacher.request.post(path, { data }))).ok()).toBe(true);
  };
  await set([other.id]);

  await teacher.goto(`/classes/${id}/work/new`);
  await teacher.getByLabel("Title").fill("Ebb tables");
  await teacher.getByLabel("Filed in (one folder or several)").click();
  await teacher.getByRole("option", { name: "Start here" }).click();
  await teacher.keyboard.press("Escape");
  await teacher.getByRole("combobox", { name: "Given to" }).fill("Ebb");
  await teacher.getByRole("option", { name: "Group Ebb" }).click();
  await teacher.keyboard.press("Escape");
  await expect(teacher.getByRole("status").filter({ hasText: "1 student finds it" })).toBeVisible();
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher.getByRole("complementary").getByText("For group Ebb.")).toBeVisible();

  await set([other.id, me.id]);
  await student.goto(`/classes/${id}`);
  await expect(student.getByRole("heading", { level: 1 })).toBeVisible();
  await expect(student.getByText("Ebb tables")).toHaveCount(0);
  await teacher.reload();
  await teacher.getByRole("button", { name: "Change…" }).click();
  await expect(teacher.getByText("1 student has joined since it was published and not got it")).toBeVisible();
  await expect(teacher.getByRole("status").filter({ hasText: "1 student finds it" })).toBeVisible();
  await isAccessible(teacher, "work for a group that somebody joined since");
  await teacher.getByRole("button", { name: "Give it to them too" }).click();
  await expect(teacher.getByText("2 students find it")).toBeVisible();
  await teacher.getByRole("button", { name: "Change it" }).click();
  await expect(teacher.getByRole("heading", { name: /^Change/ })).toBeHidden();
  await student.goto("/");
  await expect(student.getByText("Ebb tables").first()).toBeVisible();
});
