import { expect, type Page } from "@playwright/test";
import { signedIn } from "./people";
import { test } from "./server";

// What people type is shown as they typed it, and never run: script in every field that takes text, on every page that shows it.
const script = `"><img src=x onerror="window.ran='img'"><script>window.ran='script'</script><svg onload="window.ran='svg'">`;
// Where a field is short.
const short = `"><img src=x onerror="window.ran=1">`;
const links = "[press](javascript:window.ran='link') <a href=\"javascript:window.ran='a'\">x</a>";

async function ask(page: Page, method: string, path: string, body: unknown) {
  return page.evaluate(
    async ([m, p, b]) => {
      const answer = await fetch(p as string, { method: m as string, headers: { "Content-Type": "application/json" }, body: b === null ? undefined : JSON.stringify(b) });
      const text = await answer.text();
      if (!answer.ok) throw new Error(`${m} ${p}: ${text}`);
      return text === "" ? null : JSON.parse(text);
    },
    [method, path, body] as const,
  );
}

/** Nothing ran, though the page has had the time to. */
async function nothingRan(page: Page) {
  await page.waitForLoadState("networkidle");
  expect(await page.evaluate(() => (window as unknown as { ran?: string }).ran), page.url()).toBeUndefined();
}

test("script in every field is shown and not run, for staff, students and visitors, and the policy stops what would slip through", async ({ browser, baseURL }) => {
  const page = await signedIn(browser, "wren");
  const own = await ask(page, "GET", "/api/school", null);
  const plans = await ask(page, "GET", "/api/plans", null);
  const made = await ask(page, "POST", "/api/classes", { year: own.current, course: `Script ${short}`, section: "<b>1", period: "1", term: null, plan: plans.find((p: { name: string }) => p.name === "Small start").id, teacherShown: short });
  const k = `/api/classes/${made.id}`;
  const person = await ask(page, "POST", "/api/people", { person: { given: "Bobby", family: short, role: "Student", grade: "6", studentNumber: null, email: null, school: short }, evenSo: true });
  await ask(page, "POST", `${k}/roster`, { people: [person.id], role: "Student", includeOpen: false });
  const workspace = await ask(page, "GET", `${k}/workspace`, null);
  const folder = workspace.folders[0].id;
  await ask(page, "POST", `${k}/notices`, { text: `${script} ${links}` });
  await ask(page, "POST", `${k}/folders/${folder}/links`, { title: short, url: "https://example.org/?q=%3Cscript%3E" });
  await ask(page, "POST", `${k}/folders/${folder}/pages`, { title: "Page of script", text: `${script}\n\n${links}\n\n<script>window.ran='page'</script>`, version: 0 });
  await ask(page, "POST", `${k}/groups`, { name: `Crew ${short}`, members: [person.id], version: 0 });
  await ask(page, "PUT", `${k}/welcome`, { was: "", text: `${script} ${links}`, decided: null });
  await ask(page, "POST", `${k}/assignments`, { title: short, instructions: `${script} ${links}`, points: 20, dueOn: null, dueTime: null, lateDays: null, folders: [folder], students: null, publish: false, publishAt: null });
  await ask(page, "POST", "/api/departments", { name: `Dept ${short}`, mark: "pot", members: [] });
  await ask(page, "POST", "/api/plans", { name: `Plan ${short}`, about: script, lines: [{ key: "", depth: 0, namePattern: `Folder ${short}`, stands: "Once", rule: "ClassViews", entries: [] }], version: 0 });
  const head = await ask(page, "GET", k, null);
  await ask(page, "POST", `${k}/opening`, { version: head.version });
  const shelf = await ask(page, "POST", `${k}/shelves`, { title: short, text: `${script} ${links}`, until: "2027-08-01", folders: [folder], examples: [], named: [] });

  for (const path of ["/", "/plan", "/plan/departments", "/plan/rules", "/enroll/directory", `/classes/${made.id}/set-up`, `/classes/${made.id}/enroll`, `/classes/${made.id}/groups`, `/classes/${made.id}/work`, "/today", `/classes/${made.id}/close`, `/classes/${made.id}/shelf`, `/classes/${made.id}/see-as`, `/classes/${made.id}/slips`, "/close", "/audit"]) {
    await page.goto(path);
    await expect(page.getByRole("main")).toBeVisible();
    await nothingRan(page);
  }
  await page.goto(`/classes/${made.id}/set-up`);
  await page.getByText("Page of script").first().click();
  await expect(page.getByText("window.ran='page'").or(page.getByText("press")).first()).toBeVisible();
  await nothingRan(page);
  await page.goto(`${baseURL}${shelf.address}`);
  await expect(page.getByRole("heading", { level: 1 })).toContainText("<img src=x");
  await nothingRan(page);

  // And if some text did become an element: the page's own policy runs no script that it does not ship.
  await page.goto("/");
  const stopped = await page.evaluate(async () => {
    const said = new Promise<string>((done) => document.addEventListener("securitypolicyviolation", (e) => done(e.effectiveDirective), { once: true }));
    const element = document.createElement("script");
    element.textContent = "window.ran = 'put in'";
    document.body.append(element);
    return said;
  });
  expect(stopped).toMatch(/^script-src/);
  await nothingRan(page);
  await page.context().close();
});
