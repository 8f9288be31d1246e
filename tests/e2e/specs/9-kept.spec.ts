import { expect, type Page } from "@playwright/test";
import { isAccessible, signedIn, staffPassword } from "./people";
import { startServer, test, type RunningServer } from "./server";

// What somebody typed is still there, whatever happens beside it: a click, a key, another person, a session that ends, a server that goes.
test.describe.configure({ mode: "serial" });

let teacher: Page;
let coordinator: Page;
let classId: number;
let again: RunningServer | undefined;

test.afterAll(async () => {
  await again?.end();
});

test("a session that ends in mid-sentence is renewed in place, and what was begun is done", async ({ browser }) => {
  teacher = await signedIn(browser, "oisin");
  classId = await teacher.evaluate(async () => (await (await fetch("/api/board")).json()).rows.find((r: { state: string }) => r.state === "Open").id);
  await teacher.goto(`/classes/${classId}/set-up`);
  await teacher.getByLabel("Notice to the class").fill("On Friday we sail, unless");
  await teacher.context().clearCookies();
  await teacher.getByLabel("Notice to the class").fill("On Friday we sail, unless the wind turns.");
  await teacher.getByRole("button", { name: "Post notice" }).click();

  const door = teacher.getByRole("dialog", { name: "Your sign-in has ended" });
  await expect(door).toBeVisible();
  await isAccessible(teacher, "a session that ended");
  await door.getByLabel("User name").fill("oisin");
  await door.getByLabel("Password").fill("not-this-one");
  await door.getByRole("button", { name: "Sign in and go on" }).click();
  await expect(door.getByRole("alert")).toBeVisible();
  await door.getByLabel("Password").fill(staffPassword);
  await door.getByRole("button", { name: "Sign in and go on" }).click();

  await expect(door).toBeHidden();
  await expect(teacher.getByText("On Friday we sail, unless the wind turns.").first()).toBeVisible();
  await expect(teacher.getByLabel("Notice to the class")).toHaveValue("");
  expect(await teacher.evaluate(async (id) => (await (await fetch(`/api/classes/${id}/workspace`)).json()).notices.filter((n: { text: string }) => n.text.startsWith("On Friday we sail")).length, classId)).toBe(1);
});

test("a click beside and Escape ask before typed text goes, and so does leaving the screen", async () => {
  await teacher.goto(`/classes/${classId}/work`);
  await teacher.getByRole("navigation", { name: "Seasons" }).getByRole("link", { name: "Set up", exact: true }).click();
  await teacher.getByRole("button", { name: "Add a link…" }).click();
  const dialog = teacher.getByRole("dialog");
  await dialog.getByLabel("Title").fill("Knots for the mast");
  await teacher.keyboard.press("Escape");
  await expect(dialog.getByText("What you typed is not saved.")).toBeVisible();
  await isAccessible(teacher, "a dialog that asks");
  await dialog.getByRole("button", { name: "Go on typing" }).click();
  await expect(dialog.getByLabel("Title")).toHaveValue("Knots for the mast");
  await teacher.mouse.click(5, 400);
  await expect(dialog.getByText("What you typed is not saved.")).toBeVisible();
  await dialog.getByRole("button", { name: "Go on typing" }).click();
  // A reload is asked by the browser itself.
  expect(await teacher.evaluate(() => !window.dispatchEvent(new Event("beforeunload", { cancelable: true })))).toBe(true);
  await teacher.goBack();
  const leaving = teacher.getByRole("dialog", { name: "What you typed here is not saved" });
  await expect(leaving).toBeVisible();
  await leaving.getByRole("button", { name: "Stay here" }).click();
  await expect(leaving).toBeHidden();
  await expect(dialog.getByLabel("Title")).toHaveValue("Knots for the mast");
  await teacher.keyboard.press("Escape");
  await dialog.getByRole("button", { name: "Drop it" }).click();
  await expect(dialog).toBeHidden();
  // Nothing typed, nothing asked.
  await teacher.getByRole("button", { name: "Add a link…" }).click();
  await expect(dialog.getByLabel("Title")).toHaveValue("");
  await teacher.keyboard.press("Escape");
  await expect(dialog).toBeHidden();
  expect(await teacher.evaluate(() => !window.dispatchEvent(new Event("beforeunload", { cancelable: true })))).toBe(false);
});

test("a notice, a comment and the welcome note that are begun outlive a reload", async () => {
  await teacher.goto(`/classes/${classId}/set-up`);
  await teacher.getByLabel("Notice to the class").fill("Half a notice");
  await teacher.getByRole("button", { name: "Welcome note…" }).click();
  const note = teacher.getByRole("dialog", { name: "Welcome note" });
  await note.getByLabel("Students read this first").fill("Half a welcome");
  await teacher.reload();
  await expect(teacher.getByLabel("Notice to the class")).toHaveValue("Half a notice");
  await teacher.getByRole("button", { name: "Welcome note…" }).click();
  await expect(note.getByLabel("Students read this first")).toHaveValue("Half a welcome");
  await teacher.keyboard.press("Escape");
  await expect(note).toBeHidden();
  await teacher.getByRole("button", { name: "Welcome note…" }).click();
  await expect(note.getByLabel("Students read this first")).toHaveValue("Half a welcome");
  await note.getByRole("button", { name: "Not now" }).click();
  await teacher.getByLabel("Notice to the class").fill("");
});

test("of two who write the welcome note, and of two who say where the class is, the second sees both", async ({ browser }) => {
  coordinator = await signedIn(browser, "wren");
  const open = async (page: Page, what: string) => {
    await page.goto(`/classes/${classId}/set-up`);
    await page.getByRole("button", { name: what }).click();
  };
  await open(teacher, "Welcome note…");
  const note = teacher.getByRole("dialog", { name: "Welcome note" });
  await note.getByLabel("Students read this first").fill("Bring an apron.\n\nWe begin at nine.");
  await open(coordinator, "Welcome note…");
  await coordinator.getByLabel("Students read this first").fill("We begin at ten.");
  await coordinator.getByRole("button", { name: "Save the welcome note" }).click();
  await expect(coordinator.getByRole("dialog")).toBeHidden();

  await note.getByRole("button", { name: "Save the welcome note" }).click();
  const both = note.getByRole("region", { name: "Two wrote on this welcome note" });
  await expect(both).toContainText("We begin at ten.");
  await expect(both).toContainText("Bring an apron.");
  await isAccessible(teacher, "a welcome note that two wrote");
  await both.getByLabel(/^Both/).check();
  await both.getByRole("button", { name: "Save the note with both" }).click();
  await expect(note).toBeHidden();
  const welcome = () => teacher.evaluate(async (id) => (await (await fetch(`/api/classes/${id}/workspace`)).json()).welcome as string, classId);
  expect(await welcome()).toBe("Bring an apron.\n\nWe begin at nine.\n\nWe begin at ten.");

  await open(teacher, "About this class…");
  const about = teacher.getByRole("dialog", { name: "About this class" });
  await about.getByLabel("Room").fill("Attic");
  await about.getByLabel("Level").fill("beginners");
  await open(coordinator, "About this class…");
  await coordinator.getByLabel("Room").fill("Barn");
  await coordinator.getByRole("button", { name: "Save", exact: true }).click();
  await expect(coordinator.getByRole("dialog")).toBeHidden();
  await about.getByRole("button", { name: "Save", exact: true }).click();
  await expect(about.getByRole("alert")).toContainText("The room is “Barn” by now, and you wrote “Attic”");
  await expect(about.getByLabel("Room")).toHaveValue("Attic");
  await expect(about.getByLabel("Level")).toHaveValue("beginners");
  await about.getByRole("button", { name: "Save", exact: true }).click();
  await expect(about).toBeHidden();
  const head = await teacher.evaluate(async (id) => (await fetch(`/api/classes/${id}`)).json(), classId);
  expect([head.room, head.level]).toEqual(["Attic", "beginners"]);
});

test("of two who write on one folder plan, the second has both", async ({ browser }) => {
  await coordinator.goto("/plan");
  const first = coordinator.getByLabel("Name of line 1", { exact: true });
  await first.fill("Begin here");
  const other = await signedIn(browser, "wren");
  await other.goto(coordinator.url());
  const last = other.getByLabel(/^Name of line/).last();
  const lastName = await last.inputValue();
  await last.fill(`${lastName} and more`);
  await other.getByRole("button", { name: /^Save as version/ }).click();
  await expect(other.getByRole("button", { name: /^Save as version/ })).toBeHidden();

  await coordinator.getByRole("button", { name: /^Save as version/ }).click();
  const both = coordinator.getByRole("region", { name: "Two wrote on this plan" });
  await expect(both).toContainText("Begin here");
  await expect(both).toContainText(`${lastName} and more`);
  await isAccessible(coordinator, "a plan that two wrote on");
  await both.getByRole("button", { name: "Take both into my draft" }).click();
  await expect(first).toHaveValue("Begin here");
  await expect(coordinator.getByLabel(/^Name of line/).last()).toHaveValue(`${lastName} and more`);
  await coordinator.getByRole("button", { name: /^Save as version/ }).click();
  await expect(coordinator.getByRole("link", { name: /^Put version/ })).toBeVisible();
});

test("who signs out leaves nothing behind for the next at the same screen", async ({ browser }) => {
  const page = await signedIn(browser, "oisin");
  await page.goto(`/classes/${classId}/set-up`);
  await page.getByLabel("Notice to the class").fill("Half a notice of Oisín's");
  await page.getByRole("button", { name: /^Oisín/ }).click();
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  await expect(page.getByRole("heading", { name: "Sign in to Spring Loft" })).toBeVisible();
  await expect(page.getByText("Year board")).toHaveCount(0);
  await page.getByLabel("User name").fill("wren");
  await page.getByLabel("Password").fill(staffPassword);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("button", { name: /^Wren/ })).toBeVisible();
  await page.goto(`/classes/${classId}/set-up`);
  await expect(page.getByLabel("Notice to the class")).toHaveValue("");
  await page.context().close();
});

test("a server that goes while a form is open: the screen stays, and the act is done once when it is back", async ({ school }) => {
  await teacher.goto(`/classes/${classId}/work`);
  await teacher.getByRole("button", { name: "Make an assignment…" }).click();
  const desk = teacher.getByRole("heading", { name: "Give an assignment" });
  await teacher.getByLabel("Title").fill("Splicing");
  await teacher.getByLabel("Filed in (one folder or several)").click();
  await teacher.getByRole("option").first().click();
  await school.end();
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(teacher.getByText("Spring Loft can’t be reached.")).toBeVisible();
  await expect(teacher.getByLabel("Title")).toHaveValue("Splicing");
  await isAccessible(teacher, "a server that is away");
  await teacher.getByRole("button", { name: "Try again" }).click();
  await expect(teacher.getByText("Spring Loft can’t be reached.")).toBeVisible();

  again = await startServer(["--demo", "--today", "2027-06-07"], {}, school.data, school.url);
  // It is asked again by itself, too: whoever does nothing sees the bar go.
  await expect(teacher.getByText("Spring Loft can’t be reached.")).toBeHidden();
  await expect(teacher.getByLabel("Title")).toHaveValue("Splicing");
  await teacher.getByRole("button", { name: "Make and publish" }).click();
  await expect(desk).toBeHidden();
  expect(await teacher.evaluate(async (id) => (await (await fetch(`/api/classes/${id}/workspace`)).json()).assignments.filter((a: { title: string }) => a.title === "Splicing").length, classId)).toBe(1);
});
