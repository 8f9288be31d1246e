import { expect } from "@playwright/test";
import jsQR from "jsqr";
import { isAccessible, signedIn } from "./people";
import { test } from "./server";

// A teacher with a list in hand is done in two minutes: pasted, settled, enrolled.
test("a pasted list is matched, what is doubtful is settled by a person, and all are enrolled at once", async ({ browser }) => {
  const teacher = await signedIn(browser, "tomasz");
  const row = teacher.locator("tr[data-id]").nth(1);
  const id = await row.getAttribute("data-id");
  await teacher.goto(`/classes/${id}/enroll`);
  const rows = teacher.getByRole("table", { name: "Roster" }).getByRole("row");
  await expect(rows.first()).toBeVisible();
  // Somebody who is not here yet, by name in the other order, by number, misspelt, and nobody.
  const free = await teacher.evaluate(async () => {
    const found: { sortName: string; studentNumber: string; inThisClass: string | null }[] = [];
    const here = location.pathname.split("/")[2];
    for (const letter of "abcdefghij") {
      const answer = await fetch(`/api/directory?starts=${letter}&students=true&classId=${here}`);
      found.push(...(await answer.json()));
    }
    const names = found.map((p) => p.sortName);
    return [...new Map(found.map((p) => [p.studentNumber, p])).values()].filter((p) => !p.inThisClass && names.filter((n) => n === p.sortName).length < 3 && /^[A-Za-z]{6,}, [A-Za-z]{5,}$/.test(p.sortName)).slice(0, 3);
  });
  expect(free.length).toBe(3);
  const [family, given] = free[0]!.sortName.split(", ");
  const [family2, given2] = free[2]!.sortName.split(", ");
  await teacher.getByRole("button", { name: "Paste a list…" }).click();
  await teacher.getByLabel("Names, numbers or e-mails").fill(`${given} ${family}\n${free[1]!.studentNumber}\n${family2}, ${given2!.slice(0, -1)}\nNobody Whatsoever`);
  const dialog = teacher.getByRole("dialog");
  await expect(dialog.getByRole("status")).toContainText("1 not in the directory");
  await isAccessible(teacher, "a pasted list");
  const doubtful = dialog.getByLabel(`Take ${family2}, ${given2!.slice(0, -1)}`);
  if (!(await doubtful.isChecked())) await doubtful.check();
  await dialog.getByRole("button", { name: /^Put \d (people|person) on the list$/ }).click();
  await teacher.getByRole("button", { name: /^Enroll \d students$/ }).click();
  await expect(teacher.getByText(/\d people enrolled/)).toBeVisible();
  await expect(teacher.getByRole("table", { name: "Roster" })).toContainText(free[1]!.sortName);

  await teacher.getByRole("button", { name: "All of a class or a grade…" }).click();
  await teacher.getByRole("button", { name: "a grade" }).click();
  await teacher.getByLabel("Grade", { exact: true }).fill("9");
  await expect(dialog.getByRole("status")).toContainText("students");
  await isAccessible(teacher, "all of a grade");
  await dialog.getByRole("button", { name: "Not now" }).click();
});

test("slips are printed eight to a page, their code leads to the door, and a used one is never shown again", async ({ browser }) => {
  const teacher = await signedIn(browser, "yusuf");
  const id = await teacher.locator("tr[data-id]").first().getAttribute("data-id");
  // A printer that leaves the sheet where it is.
  await teacher.addInitScript(() => (window.print = () => undefined));
  await teacher.goto(`/classes/${id}/slips`);
  await expect(teacher.getByRole("button", { name: /^Print \d+ slips…$/ })).toBeEnabled();
  await isAccessible(teacher, "sign-in slips");
  await teacher.getByRole("checkbox", { name: /^all/ }).uncheck();
  const row = teacher.getByRole("list", { name: "Slips" }).getByRole("listitem").first();
  await row.getByRole("checkbox").check();
  await row.getByRole("button", { name: /^New slip/ }).click();
  await expect(teacher.getByRole("button", { name: "Print 1 slip…" })).toBeEnabled();
  // No first password is on the page before it is printed.
  expect(await teacher.content()).not.toMatch(/[a-z]+-[a-z]+-[a-z]+-\d\d/);
  await teacher.getByRole("button", { name: "Print 1 slip…" }).click();

  await teacher.emulateMedia({ media: "print" });
  const sheet = teacher.locator("[data-sheet]");
  await expect(sheet).toBeVisible();
  await expect(sheet).toContainText(/First password [a-z-]+-\d\d/);
  await expect(teacher.getByRole("banner")).toBeHidden();
  const [, userName, phrase] = /User name (\S+)\s+First password (\S+)/.exec((await sheet.innerText()).replaceAll("\n", " "))!;
  expect(phrase).toMatch(/^[a-z]+-[a-z]+-[a-z]+-\d\d$/);
  const image = await sheet.locator("img").first().evaluate(async (img: HTMLImageElement) => {
    await img.decode();
    const canvas = document.createElement("canvas");
    canvas.width = canvas.height = 400;
    const ink = canvas.getContext("2d")!;
    ink.fillStyle = "#fff";
    ink.fillRect(0, 0, 400, 400);
    ink.imageSmoothingEnabled = false;
    ink.drawImage(img, 40, 40, 320, 320);
    return [...ink.getImageData(0, 0, 400, 400).data];
  });
  expect(jsQR(new Uint8ClampedArray(image), 400, 400)?.data).toBe(new URL(teacher.url()).origin);

  const student = await signedIn(browser, userName!, phrase);
  await expect(student.getByLabel("New password", { exact: true })).toBeVisible();
  await teacher.emulateMedia({ media: "screen" });
  await teacher.reload();
  await expect(teacher.getByRole("list", { name: "Slips" }).getByRole("listitem").first()).toContainText("no slip");
});
