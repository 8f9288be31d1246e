import AxeBuilder from "@axe-core/playwright";
import { readFileSync } from "node:fs";
import { resolve } from "node:path";
import { expect, type Browser, type Page } from "@playwright/test";
import { chooseOwn, counted, quiet, signedIn } from "./people";
import { test } from "./server";

/** Addresses of every view, by the name of a class that has something of everything. */
const staffViews = (id: string, assignment: number) => [
  "/", "/today", "/news", "/plan", "/plan/put?plan=2", "/plan/years", "/plan/names", "/plan/user-names", "/plan/first-passwords", "/plan/shared", "/plan/scales", "/plan/rules", "/plan/departments", "/set-up", "/set-up/many",
  "/enroll", "/enroll/directory", "/enroll/directory/duplicates", "/enroll/families", "/enroll/combined", "/enroll/deliveries", "/work", "/work/notices", "/close", "/close/gate", "/close/take-homes", "/close/kept", "/roll-over", "/loft", "/audit", "/outbox", "/sign-ins",
  "/password", "/join", "/close/plan", "/enroll/directory/slips",
  ...["set-up", "see-as", "enroll", "groups", "join-code", "invitations", "slips", "work", "work/new", `work/${assignment}`, `marking?assignment=${assignment}`, "scores", "activity", "acknowledged", "close", "bin", "tidy", "past?find=kiln+rules", "shelf", "roll-over"].map((d) => `/classes/${id}/${d}`),
];

// Of other people or other moments: a student's, an invitation, a run, one combined roster, one delivery, a page that sends elsewhere.
const notWalked = ["/classes/:id", "/close/runs/:id", "/enroll/combined/:id", "/enroll/combined/:id/marking", "/enroll/combined/:id/scores", "/enroll/deliveries/:id", "/invitation", "/roll-over/runs/:id", "/signed-on"];

/** The page is as wide as the screen: nothing is moved sideways but what scrolls in its own place. */
async function fits(page: Page, view: string, width: number) {
  await page.setViewportSize({ width, height: 800 });
  const over = await page.evaluate(() => {
    const root = document.scrollingElement!;
    if (root.scrollWidth <= window.innerWidth) return [];
    return [...document.querySelectorAll("body *")].filter((e) => e.getBoundingClientRect().right > window.innerWidth + 1 && !e.closest("table"))
      .slice(-4).map((e) => `${e.tagName} ${e.className.toString().slice(0, 60)} “${(e.textContent ?? "").slice(0, 40)}” ${Math.round(e.getBoundingClientRect().right)}`);
  });
  expect.soft(over, `${view} at ${width}`).toEqual([]);
}

/** Of each kind of control that is on the screen, one: moving the focus to it changes what is seen in it or around it. */
async function focusIsSeen(page: Page, look: string, view: string) {
  const kinds = await page.evaluate(() => {
    const kind = (e: Element) => [e.tagName, e.getAttribute("role"), e.getAttribute("type"), [...e.classList].filter((c) => c.startsWith("Mui")).sort().join(".")].join(" ");
    const seen = new Set<string>();
    let n = 0;
    for (const e of document.querySelectorAll<HTMLElement>("a[href], button, input, select, textarea, [tabindex='0']")) {
      const r = e.getBoundingClientRect();
      // What shows itself only under the pointer cannot be focused.
      if (e.hasAttribute("disabled") || getComputedStyle(e).visibility === "hidden" || r.width === 0 || r.bottom > window.innerHeight || r.top < 90 || r.right > window.innerWidth || r.left < 0 || seen.has(kind(e)) || e.closest("[aria-hidden=true], [inert]")) continue;
      seen.add(kind(e));
      e.setAttribute("data-kind", `${n++}`);
    }
    return [...seen];
  });
  const unseen: string[] = [];
  const room = page.viewportSize()!;
  for (let n = 0; n < kinds.length; n++) {
    const at = page.locator(`[data-kind="${n}"]`);
    if ((await at.count()) !== 1) continue;
    const box = await at.evaluate((e) => {
      (document.activeElement as HTMLElement | null)?.blur();
      const whole = e.closest<HTMLElement>(".MuiFormControl-root, .MuiFormControlLabel-root, label") ?? e;
      // What came late may have moved it down since it was found.
      whole.scrollIntoView({ block: "nearest", inline: "nearest", behavior: "instant" });
      const r = whole.getBoundingClientRect();
      return { x: Math.max(0, r.x - 6), y: Math.max(0, r.y - 6), width: Math.min(r.width, 600) + 12, height: Math.min(r.height, 200) + 12 };
    });
    if (box.width <= 12) continue;
    expect(box.x < room.width && box.y < room.height, `${kinds[n]} of ${view} is on the screen: ${JSON.stringify(box)}`).toBe(true);
    const before = await page.screenshot({ clip: box, animations: "disabled", caret: "hide" });
    // As by the keyboard: a control that was clicked need not show it.
    await at.evaluate((e) => (e as HTMLElement).focus({ focusVisible: true, preventScroll: true } as FocusOptions));
    const after = await page.screenshot({ clip: box, animations: "disabled", caret: "hide" });
    if (before.equals(after)) unseen.push(kinds[n]!);
    await at.evaluate((e) => (e as HTMLElement).blur());
  }
  expect.soft(unseen, `${view}, ${look}`).toEqual([]);
  return kinds.length;
}

test("where the keyboard is, is seen on every kind of control, light, dark and in forced colours, and no page is moved sideways", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const id = (await page.locator("tr[data-id]", { hasText: "Boatbuilding 6B" }).getAttribute("data-id"))!;
  const text = await page.context().newCDPSession(page);
  let controls = 0;
  const looked = new Set<string>();
  const { assignments } = (await (await page.request.get(`/api/classes/${id}/returns`)).json()) as { assignments: { id: number }[] };
  for (const view of staffViews(id, assignments[0]!.id)) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.emulateMedia({ colorScheme: "light", forcedColors: "none" });
    await page.goto(view);
    await quiet(page);
    // Parts are the same on all desks: the three looks are gone through where there are the most of them.
    controls += await focusIsSeen(page, "light", view);
    // Headings in order, one of the first rank, everything in a landmark: what good practice asks of each view.
    const { violations } = await new AxeBuilder({ page }).withTags(["best-practice"]).analyze();
    expect.soft(violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 140)}`)), `good practice on ${view}`).toEqual([]);
    if (["/", "/plan/rules", "/enroll/directory", `/classes/${id}/set-up`, `/classes/${id}/work`, `/classes/${id}/enroll`].includes(view)) {
      await page.emulateMedia({ colorScheme: "dark" });
      await focusIsSeen(page, "dark", view);
      await page.emulateMedia({ colorScheme: "light", forcedColors: "active" });
      await focusIsSeen(page, "forced colours", view);
      await page.emulateMedia({ forcedColors: "none" });
    }
    // A table lies in its own place, and not over the slip beside it.
    expect.soft(await page.evaluate(() => [...document.querySelectorAll("main table")].filter((t) => t.getBoundingClientRect().right > t.closest("main")!.getBoundingClientRect().right && !t.parentElement!.closest("[style*=overflow], .scrolls")).map((t) => t.getAttribute("aria-label"))), `tables of ${view}`).toEqual([]);
    // Text alone twice as large: the screen is laid out as the smaller one that it has become.
    await text.send("Page.setFontSizes", { fontSizes: { standard: 32, fixed: 26 } });
    await fits(page, `${view} with its text at 200 %`, 1280);
    await text.send("Page.setFontSizes", { fontSizes: { standard: 16, fixed: 13 } });
    for (const width of [768, 320]) await fits(page, view, width);
    looked.add(view);
  }
  expect(controls).toBeGreaterThan(150);
  // A desk that is added is looked at here, or this says so: but for runs and what has an address of its own only once it is made.
  const routes = [...readFileSync(resolve(import.meta.dirname, "../../../client/src/App.tsx"), "utf8").matchAll(/<Route path="([^"*]+)"/g)].map((m) => m[1]!);
  expect(routes.length).toBeGreaterThan(40);
  const seen = new Set([...looked].map((v) => v.replace(/\?.*/, "").replace(`/classes/${id}`, "/classes/:id").replace(/work\/\d+$/, "work/:assignment")));
  expect([...new Set(routes)].filter((r) => !seen.has(r)).sort()).toEqual(notWalked);
  // On a phone the bar is one line.
  expect(await page.evaluate(() => document.querySelector("header")!.getBoundingClientRect().height)).toBeLessThanOrEqual(56);
});

test("a student’s pages fit a phone, and the door does", async ({ browser, page: door }) => {
  await door.goto("/");
  await expect(door.getByRole("link", { name: /^Sign in with/ })).toBeVisible();
  await focusIsSeen(door, "light", "the door");
  for (const width of [768, 320]) await fits(door, "the door", width);
  const page = await signedIn(browser, "s1001", "tide-pool-lantern");
  await chooseOwn(page, "tide-pool-lantern", "blue-otter-walks-9");
  await quiet(page);
  for (const width of [768, 390, 320]) await fits(page, "my classes", width);
  await page.getByRole("main").getByRole("link").first().click();
  await quiet(page);
  for (const width of [768, 390, 320]) await fits(page, "a student's class", width);
});

const own = "blue-otter-walks-9";

/** The student of these views has a password of their own, whichever test came before. */
async function hasOwn(browser: Browser, school: { url: string }) {
  const context = await browser.newContext({ baseURL: school.url });
  if (!(await context.request.post("/api/sign-in", { data: { userName: "s1001", password: own } })).ok()) await chooseOwn(await signedIn(browser, "s1001", "tide-pool-lantern"), "tide-pool-lantern", own);
  await context.close();
}

/** What is touched and is less than 44 pixels high; a link in running text is as high as its line. */
const tooSmall = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll("a[href], button, label, [role=treeitem] > div, input:not([type=hidden]), [role=combobox]")]
      .filter((e) => {
        const r = e.getBoundingClientRect();
        if (r.width < 2 || r.height >= 43.5 || r.bottom < 0 || e.closest("p, .only-heard, [aria-hidden=true]")) return false;
        // What lies in something that is touched as a whole is not by itself.
        return !e.matches("label") && !e.parentElement!.closest("label, button, .MuiInputBase-root, .MuiCheckbox-root, .MuiSwitch-root, [role=treeitem]") && (e.textContent ?? "") !== "Skip to the desk";
      })
      .map((e) => `${e.tagName} “${(e.textContent ?? "").slice(0, 40)}” ${Math.round(e.getBoundingClientRect().height)}`),
  );

test("what is touched is as large as a finger", async ({ browser, school }) => {
  const touch = async (userName: string, password: string) => {
    const context = await browser.newContext({ baseURL: school.url, hasTouch: true, isMobile: true, viewport: { width: 390, height: 844 } });
    await counted(context);
    await context.request.post("/api/sign-in", { data: { userName, password } });
    const page = await context.newPage();
    await page.goto("/");
    await quiet(page);
    return page;
  };
  await hasOwn(browser, school);
  const page = await touch("s1001", own);
  expect.soft(await tooSmall(page), "my classes").toEqual([]);
  await page.getByRole("region", { name: "Your classes" }).getByRole("link").first().click();
  await expect(page.getByRole("tree")).toBeVisible();
  await quiet(page);
  expect.soft(await tooSmall(page), "a student’s class").toEqual([]);
  // What is chosen in the list of folders is brought into sight below it.
  await page.getByRole("treeitem").last().click();
  await expect(page.getByRole("heading", { level: 2 }).first()).toBeInViewport();
  await page.context().close();
});

test("the focus goes along: to the heading of a new desk, to the next row when its own is gone, back to an act that was shut while it ran", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const focused = () => page.evaluate(() => [document.activeElement!.tagName, (document.activeElement!.getAttribute("aria-label") ?? document.activeElement!.textContent ?? "").slice(0, 60)]);
  await page.getByRole("link", { name: "Loft", exact: true }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Loft" })).toBeFocused();
  // Back goes to where one was.
  await page.goBack();
  await expect(page.getByRole("heading", { level: 1 })).toBeFocused();
  // A field that waits for words has it.
  await page.goto("/loft");
  await page.getByRole("link", { name: "Enroll", exact: true }).click();
  await page.getByRole("link", { name: "Directory" }).click();
  await expect(page.getByLabel("Name, number, e-mail")).toBeFocused();

  // Two other browsers: one is signed out, and the next row's act has the focus.
  for (let i = 0; i < 2; i++) await (await signedIn(browser, "wren")).context().storageState();
  await page.goto("/sign-ins");
  const out = page.getByRole("table", { name: "Places where you are signed in" }).getByRole("button", { name: /^Sign out/ });
  await expect(out.nth(1)).toBeVisible();
  const before = await out.count();
  await out.first().focus();
  await page.keyboard.press("Enter");
  await expect(out).toHaveCount(before - 1);
  await expect.poll(async () => (await focused())[1]).toMatch(/^Sign out/);
  // What is shut while it runs loses the focus in this browser; it has it again when it is open.
  await page.goto("/audit");
  const follow = page.getByRole("button", { name: "Follow the chain" });
  await follow.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status").filter({ hasText: "in an unbroken chain" })).toBeVisible();
  await expect(follow).toBeFocused();
  await page.context().close();
});

test("on paper there is ink and no control, also of a screen that is dark", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const id = (await page.locator("tr[data-id]", { hasText: "Boatbuilding 6B" }).getAttribute("data-id"))!;
  for (const view of [`/classes/${id}/enroll`, "/close/take-homes", "/enroll/directory", "/loft", "/close", "/audit"]) {
    await page.emulateMedia({ colorScheme: "dark", media: "screen" });
    await page.goto(view);
    await quiet(page);
    await expect(page.getByRole("table").first()).toBeVisible();
    const rows = page.locator("tbody tr[data-index]");
    const all = await page.evaluate(() => Number(document.querySelector("table[aria-rowcount]")?.getAttribute("aria-rowcount") ?? 0) - 1);
    const before = await rows.count();
    // As the browser does it when it prints: where not all rows were drawn, all are.
    await page.emulateMedia({ colorScheme: "dark", media: "print" });
    await page.evaluate(() => window.dispatchEvent(new Event("beforeprint")));
    const seen = await page.evaluate(() => {
      const light = (colour: string) => Math.max(...colour.match(/[\d.]+/g)!.slice(0, 3).map(Number)) / 255;
      const shown = (e: Element) => e.getClientRects().length > 0;
      return {
        controls: [...document.querySelectorAll("main button:not(thead *, .MuiLink-root), main input[type=text], header, aside")].filter(shown).map((e) => e.outerHTML.slice(0, 120)),
        pale: [...document.querySelectorAll("main td, main th, main h1, main td *, main th *")].filter((e) => shown(e) && !(e instanceof SVGElement) && light(getComputedStyle(e).color) > 0.55).map((e) => `${getComputedStyle(e).color} ${e.outerHTML.slice(0, 100)}`).slice(0, 4),
        ground: getComputedStyle(document.body).backgroundColor,
      };
    });
    expect.soft(seen, view).toEqual({ controls: [], pale: [], ground: "rgb(255, 255, 255)" });
    await expect(rows.filter({ visible: true }), view).toHaveCount(all > 0 ? all : before);
    if (view === "/close/take-homes") expect(all).toBeGreaterThan(200);
    await page.evaluate(() => window.dispatchEvent(new Event("afterprint")));
  }
  await page.context().close();
});

test("a class of another year says so in the year line", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  const line = page.locator("header").getByRole("img");
  await expect(line).toHaveAccessibleName(/^School year 2026–27\. Today is/);
  await page.goto("/loft");
  await page.getByRole("table").first().getByRole("link").first().click();
  await expect(line).toHaveAccessibleName("School year 2025–26, the year of this class and not the current one.");
  await page.getByRole("link", { name: "Year board", exact: true }).click();
  await expect(line).toHaveAccessibleName(/^School year 2026–27\. Today is/);
  await page.context().close();
});

test("the first screen asks for little: so many bytes of script over the wire", async ({ browser, school }) => {
  async function bytes(userName: string, password: string) {
    const context = await browser.newContext({ baseURL: school.url });
    await context.request.post("/api/sign-in", { data: { userName, password } });
    const page = await context.newPage();
    await counted(context);
    // What is fetched when all stands and nobody waits is not counted.
    await page.addInitScript(() => { window.requestIdleCallback = () => 0; });
    const wire = await context.newCDPSession(page);
    await wire.send("Network.enable");
    const names = new Map<string, string>();
    let sum = 0;
    wire.on("Network.responseReceived", (e) => names.set(e.requestId, e.response.url));
    wire.on("Network.loadingFinished", (e) => { if (names.get(e.requestId)?.endsWith(".js")) sum += e.encodedDataLength; });
    await page.goto("/");
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await quiet(page);
    await page.waitForLoadState("networkidle");
    await context.close();
    return sum;
  }
  await hasOwn(browser, school);
  expect(await bytes("s1001", own)).toBeLessThanOrEqual(150_000);
  expect(await bytes("wren", "harbour-kiln-seven")).toBeLessThan(220_000);
});
