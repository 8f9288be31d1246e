import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { chooseOwn, isAccessible, signedIn } from "./people";
import { test } from "./server";

type View = { notices: { id: number; text: string; state: string; for: number | null; seen: number }[]; classes: { id: number; name: string }[] };

const notices = async (page: Page) => (await (await page.request.get("/api/notices")).json()) as View;

test("one notice to four classes: students find it in their day once, who has seen it is told, changed and withdrawn it is so for all", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.goto("/work/notices");
  await expect(page.getByRole("heading", { name: "Notices", level: 1 })).toBeVisible();
  await isAccessible(page, "notices");
  await expect(page.getByText("To nobody yet")).toBeVisible();
  await page.getByRole("button", { name: "Post it now" }).click();
  await expect(page.getByText("Type what is to be told.")).toBeVisible();
  await expect(page.getByText("Choose a class.")).toBeVisible();

  const names = (await notices(page)).classes.filter((k) => / 5A /.test(k.name)).slice(0, 4);
  expect(names.length).toBe(4);
  await page.getByRole("textbox", { name: "Notice" }).fill("Boots come home on **Friday**.");
  const pick = page.getByRole("combobox", { name: "Classes" });
  for (const k of names) {
    await pick.fill(k.name);
    await page.getByRole("option", { name: k.name, exact: true }).click();
  }
  await page.keyboard.press("Escape");
  await expect(page.getByText("In their day and in 4 classes; each counted once.")).toBeVisible();
  const reach = Number(/^(\d+) students find it$/.exec((await page.getByRole("status").filter({ hasText: "find it" }).textContent())!)![1]);

  // Files are sent at once; an empty one says so, and a wrong one is taken off.
  const file = (name: string, words: string) => ({ name, mimeType: "text/plain", buffer: Buffer.from(words) });
  const choose = page.locator('input[aria-label="Add files…"]');
  await choose.setInputFiles([file("what to bring.txt", "Boots, a bag."), file("wrong.txt", "x"), file("empty.txt", "")]);
  await expect(page.getByText("“empty.txt” has 0 bytes")).toBeVisible();
  await page.getByRole("button", { name: "Take off wrong.txt" }).click();
  await isAccessible(page, "a notice that is written, with a file");

  // Typed is kept over a reload, and so is what was sent.
  await page.reload();
  await expect(page.getByRole("button", { name: "Take off what to bring.txt" })).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Notice" })).toHaveValue("Boots come home on **Friday**.");
  await page.getByRole("button", { name: "Post it now" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Posted." })).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Notice" })).toHaveValue("");
  const made = (await notices(page)).notices[0]!;
  expect([made.text, made.for, made.seen]).toEqual(["Boots come home on **Friday**.", reach, 0]);

  // A student who is in two of them finds it once, on a phone.
  const student = await signedIn(browser, "s1001", "tide-pool-lantern");
  await chooseOwn(student, "tide-pool-lantern", "salt-wind-harbour-9");
  await student.setViewportSize({ width: 390, height: 844 });
  await student.goto("/");
  await expect(student.getByRole("link", { name: "Boots come home on Friday." })).toHaveCount(1);
  const come = student.waitForEvent("download");
  await student.getByRole("link", { name: "what to bring.txt" }).click();
  expect(readFileSync(await (await come).path(), "utf8")).toBe("Boots, a bag.");
  await student.getByRole("link", { name: "Boots come home on Friday." }).click();
  await expect(student.getByText("Boots come home on Friday.")).toBeVisible();
  await expect(student.locator(".notice-told strong").filter({ hasText: "Friday" }).first()).toBeVisible();
  await expect.poll(async () => (await notices(page)).notices[0]!.seen).toBe(1);

  await page.reload();
  await page.getByRole("button", { name: `1 of ${reach}` }).click();
  const readers = page.getByRole("dialog", { name: `Seen by 1 of ${reach}` });
  await expect(readers.getByRole("cell", { name: "not yet" }).first()).toBeVisible();
  await isAccessible(page, "who has seen a notice");
  await readers.getByRole("button", { name: "Close" }).click();

  await page.getByRole("button", { name: "Change: Boots come home on Friday." }).click();
  await page.getByRole("textbox", { name: "Notice" }).fill("Boots come home on Thursday.");
  await page.getByRole("button", { name: "Change it" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Changed." })).toBeVisible();
  await student.reload();
  await expect(student.getByText("Boots come home on Thursday.")).toBeVisible();
  await expect(student.getByText(/changed \d+ June|changed \d+ Jun/)).toBeVisible();
  await expect(student.getByRole("link", { name: "what to bring.txt" })).toBeVisible();

  await page.getByRole("button", { name: "Withdraw: Boots come home on Thursday." }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Withdraw it" }).click();
  await expect(page.getByRole("row", { name: /Boots come home on Thursday.*withdrawn/ })).toBeVisible();
  await student.reload();
  await expect(student.getByRole("heading", { name: "Notices" })).toBeVisible();
  await expect(student.getByText("Boots come home on Thursday.")).toHaveCount(0);
  await student.context().close();
  await page.context().close();
});

test("a notice waits for its moment, and one to the whole school is the coordinator's to tell", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.goto("/work/notices");
  await page.getByRole("textbox", { name: "Notice" }).fill("Fire drill at ten.");
  await page.getByLabel("To everybody of the school").check();
  await expect(page.getByText(/people find it/)).toBeVisible();
  await page.getByLabel("Post on (empty for now)").fill("2020-01-01");
  await page.getByRole("button", { name: "Post it then" }).click();
  await expect(page.getByText("The moment that is set for posting is over.")).toBeVisible();
  await page.getByLabel("Post on (empty for now)").fill("2027-06-09");
  await page.getByRole("button", { name: "Post it then" }).click();
  await expect(page.getByRole("row", { name: /Fire drill at ten\..*the whole school.*waits for 9 Jun/ })).toBeVisible();

  const teacher = await signedIn(browser, "oisin");
  await teacher.goto("/work/notices");
  await expect(teacher.getByRole("heading", { name: "Notices", level: 1 })).toBeVisible();
  await expect(teacher.getByLabel("To everybody of the school")).toHaveCount(0);
  expect((await teacher.request.post("/api/notices", { data: { text: "x", classes: [], group: null, school: true, postAt: null, pinnedUntil: null } })).status()).toBe(403);
  await teacher.context().close();
  await page.context().close();
});
