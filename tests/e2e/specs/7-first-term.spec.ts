import { expect, test } from "@playwright/test";
import { chooseOwn, isAccessible } from "./people";
import { startServer, type RunningServer } from "./server";

// A term's start from an empty school: the real program without its demo, on a folder of its own.
let server: RunningServer;
let password = "";

test.beforeAll(async () => {
  server = await startServer([], { SPRING_LOFT_SCHOOL: "Tern Island School" });
  password = /password ([0-9a-f]+)/.exec(server.said())![1]!;
});

test.afterAll(() => server.stop());

const csv = (name: string, lines: string[]) => ({ name, mimeType: "text/csv", buffer: Buffer.from(`${lines.join("\r\n")}\r\n`) });

// Twelve students in two classes; a row without a name, an enrollment of nobody.
function bundle(students: number) {
  const people = Array.from({ length: students }, (_, i) => `s${i},student,Noor${i},Tamihana${i},${3000 + i},6`);
  return [
    csv("users.csv", ["sourcedId,role,givenName,familyName,identifier,grades", "t1,teacher,Ingrid,Quiroga,,", ...people, "bad,student,,,3999,6"]),
    csv("courses.csv", ["sourcedId,title", "c1,Weather"]),
    csv("classes.csv", ["sourcedId,title,courseSourcedId,classCode,periods", "k1,Weather 6A,c1,6A,1", "k2,Weather 6B,c1,6B,2"]),
    csv("enrollments.csv", ["sourcedId,classSourcedId,userSourcedId,role,primary", "et1,k1,t1,teacher,true", "et2,k2,t1,teacher,true", ...Array.from({ length: students }, (_, i) => `e${i},k${1 + (i % 2)},s${i},student,false`), "e99,k1,nobody,student,false"]),
  ];
}

test("from an empty school: a delivery with problems, held, approved, classes filled, slips printed", async ({ browser }) => {
  const page = await (await browser.newContext({ baseURL: server.url, reducedMotion: "reduce" })).newPage();
  await page.goto("/");
  await page.getByLabel("User name").fill("coordinator");
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await chooseOwn(page, password, "tern-over-shingle");
  await page.goto("/enroll/deliveries");
  await expect(page.getByText("Nothing has been delivered yet.")).toBeVisible();

  await page.getByLabel("Folder of a delivery").evaluate((e) => e.removeAttribute("webkitdirectory"));
  await page.getByLabel("Folder of a delivery").setInputFiles(bundle(12));
  const slip = page.getByRole("complementary", { name: "Slip" });
  await expect(slip.getByRole("heading", { name: /changes ready/ })).toBeVisible();
  const findings = page.getByRole("table", { name: "Findings" });
  await expect(findings).toContainText("familyName");
  await expect(findings).toContainText("“nobody” is nobody");
  await slip.getByLabel("Folder plan of new classes").click();
  await page.getByRole("option", { name: "Small start" }).click();
  await slip.getByRole("button", { name: /^Apply \d+ changes…$/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: /^Apply \d+ changes$/ }).click();
  await expect(slip.getByRole("status")).toContainText("applied");
  await isAccessible(page, "a first delivery, applied");

  // The next one has lost most of the school.
  await page.goto("/enroll/deliveries");
  await page.getByLabel("Folder of a delivery").evaluate((e) => e.removeAttribute("webkitdirectory"));
  await page.getByLabel("Folder of a delivery").setInputFiles(bundle(4));
  await expect(page.getByRole("heading", { name: /^On hold: / })).toBeVisible();
  await expect(slip.getByRole("heading", { name: "0 changes ready" })).toBeVisible();
  for (let n = await page.getByRole("button", { name: "Yes, let it happen" }).count(); n > 0; n--) {
    await page.getByRole("button", { name: "Yes, let it happen" }).first().click();
    await expect(page.getByRole("button", { name: "Yes, let it happen" })).toHaveCount(n - 1);
  }
  await slip.getByRole("button", { name: /^Apply \d+ changes…$/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: /^Apply \d+ changes$/ }).click();
  await expect(slip.getByRole("status")).toContainText("applied");

  await page.goto("/");
  const row = page.locator("tr[data-id]").first();
  await expect(row).toContainText("Weather 6A");
  await expect(page.getByText("Ingrid Quiroga").first()).toBeVisible();
  const id = await row.getAttribute("data-id");
  await page.addInitScript(() => (window.print = () => undefined));
  await page.goto(`/classes/${id}/slips`);
  const list = page.getByRole("list", { name: "Slips" });
  await expect(list.getByRole("listitem")).toHaveCount(2);
  for (const name of ["Noor0 Tamihana0", "Noor2 Tamihana2"]) await list.getByRole("button", { name: `New slip for ${name}` }).click();
  await page.getByRole("button", { name: "Print 2 slips…" }).click();
  for (const name of ["Noor0 Tamihana0", "Noor2 Tamihana2"]) await expect(page.locator("[data-sheet]")).toContainText(name);
  await expect(page.locator("[data-sheet]")).toContainText("ntamihana03000");
});
