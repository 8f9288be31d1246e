import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

// A place to ask for help and to say that one is there, in a class of the student's.
let student: Page;
let teacher: Page;
let at: { id: number; folder: number };

test.beforeAll(async ({ browser }) => {
  student = await signedIn(browser, "s1001", "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "blue-otter-walks-9");
  teacher = await signedIn(browser, "wren");
  for (const { id } of (await (await student.request.get("/api/my-classes")).json()) as { id: number }[]) {
    const { folders } = (await (await student.request.get(`/api/classes/${id}/workspace`)).json()) as { folders: { id: number; talks: boolean }[] };
    const place = folders.find((f) => f.talks);
    if (place) at = { id, folder: place.id };
  }
});

test.afterAll(async () => {
  await student.context().close();
  await teacher.context().close();
});

const talk = (page: Page) => page.getByRole("region", { name: "Talk" });

test("a student answers the question of the day on a phone, and the teacher sees it come without asking", async () => {
  await teacher.goto(`/classes/${at.id}/set-up?folder=${at.folder}`);
  await expect(talk(teacher).getByText("Which glue holds on wet wood?")).toBeVisible();
  await student.setViewportSize({ width: 390, height: 844 });
  await student.goto(`/classes/${at.id}?folder=${at.folder}`);
  await expect(talk(student).getByText("not answered today")).toBeVisible();
  await expect(talk(student).getByText("A teacher has hidden this message.")).toBeVisible();
  await expect(talk(student).getByText("Nobody reads this anyway.")).toHaveCount(0);
  await talk(student).getByLabel("Write a message").fill("Here. I need **paper**.");
  await student.reload();
  await expect(talk(student).getByLabel("Write a message")).toHaveValue("Here. I need **paper**.");
  await isAccessible(student, "a place to talk on a phone");
  await talk(student).getByLabel("Write a message").press("Control+Enter");
  await expect(talk(student).getByText("you have answered today")).toBeVisible();
  await expect(talk(student).getByLabel("Write a message")).toHaveValue("");
  await expect(talk(teacher).locator("strong", { hasText: "paper" })).toBeVisible();
});

test("an answer stands under what it answers; who has not answered is listed", async () => {
  const mine = talk(teacher).locator("article", { hasText: "I need paper." });
  await mine.getByRole("button", { name: /^Answer / }).click();
  await talk(teacher).getByLabel("Your answer").fill("In the drawer.");
  await talk(teacher).getByRole("button", { name: "Send" }).click();
  await expect(talk(teacher).locator("li", { hasText: "I need paper." }).locator("ol").getByText("In the drawer.")).toBeVisible();
  await isAccessible(teacher, "a place to talk, for staff");
  await teacher.getByRole("button", { name: "Who has answered…" }).click();
  const dialog = teacher.getByRole("dialog");
  await expect(dialog.getByRole("heading")).toHaveText(/^\d+ students have not written$/);
  await expect(dialog.getByRole("row").nth(1)).toContainText("none");
  await isAccessible(teacher, "who has answered");
  await dialog.getByRole("button", { name: "Done" }).click();
});

test("set to read only in the middle of writing, what was typed is kept and said to be; hidden, it stays on record", async () => {
  await talk(student).getByLabel("Write a message").fill("Something unkind.");
  await talk(teacher).locator("article", { hasText: "I need paper." }).getByRole("button", { name: /^Let .* only read$/ }).click();
  await expect(talk(teacher).getByText(/ only reads$/)).toBeVisible();
  await expect(talk(student).getByText("You are set to read only. Ask your teacher. What you had typed is kept here: “Something unkind.”")).toBeVisible();
  await talk(teacher).getByRole("button", { name: /^Let .* write again$/ }).first().click();
  await expect(talk(student).getByLabel("Write a message")).toHaveValue("Something unkind.");
  await talk(student).getByRole("button", { name: "Send" }).click();
  const bad = talk(teacher).locator("article", { hasText: "Something unkind." });
  await bad.getByRole("button", { name: /^Hide what / }).click();
  await teacher.getByRole("dialog").getByLabel("Why").fill("Unkind.");
  await teacher.getByRole("button", { name: "Hide it" }).click();
  await expect(bad).toContainText("Unkind.");
  await expect(talk(student).getByText("A teacher has hidden this message.")).toHaveCount(2);
  await student.reload();
  await expect(talk(student).getByText("Something unkind.")).toHaveCount(0);
});

test("any folder becomes a place to talk, and a closed one is read only", async () => {
  const { folders } = (await (await teacher.request.get(`/api/classes/${at.id}/workspace`)).json()) as { folders: { id: number; name: string; talks: boolean }[] };
  const start = folders.find((f) => f.name === "Start here")!;
  await teacher.goto(`/classes/${at.id}/set-up?folder=${start.id}`);
  await teacher.getByRole("button", { name: "Talk here…" }).click();
  await teacher.getByLabel("A question for each school day").fill("How was it?");
  await isAccessible(teacher, "making a place to talk");
  await teacher.getByRole("button", { name: "Make it one" }).click();
  await expect(talk(teacher).getByText("Nobody has written yet.")).toBeVisible();
  await talk(teacher).getByRole("button", { name: "Who writes here…" }).click();
  await teacher.getByRole("checkbox", { name: /^Closed/ }).check();
  await teacher.getByRole("button", { name: "Change it" }).click();
  await expect(talk(teacher).getByText("This place is closed: nobody writes in it for now.")).toBeVisible();
  await student.goto(`/classes/${at.id}?folder=${start.id}`);
  await expect(talk(student).getByText("This place is closed: nobody writes in it for now.")).toBeVisible();
  await expect(talk(student).getByLabel("Write a message")).toHaveCount(0);
});
