import AxeBuilder from "@axe-core/playwright";
import { expect, type Browser, type BrowserContext, type Page } from "@playwright/test";

export const staffPassword = "harbour-kiln-seven";

type Counting = { asked?: number };

/** Counts what pages have asked and not read yet, so that a test waits for it and not for a clock. */
export const counted = (context: BrowserContext) =>
  context.addInitScript(() => {
    const page = window as Counting;
    page.asked = 0;
    const ask = window.fetch.bind(window);
    window.fetch = async (...what) => {
      page.asked!++;
      const read = () => void setTimeout(() => page.asked!--);
      try {
        const answer = await ask(...what);
        void answer.clone().arrayBuffer().then(read, read);
        return answer;
      } catch (e) {
        read();
        throw e;
      }
    };
  });

/** The page stands: its code is there, and all that it asked was read and drawn. What is asked once something is drawn counts too. */
export async function quiet(page: Page) {
  await expect(page.getByRole("main").or(page.locator("h1")).first()).toBeAttached();
  await expect(page.getByRole("status", { name: "Opening" })).toHaveCount(0);
  const waits = () =>
    page.evaluate(async () => {
      for (let i = 0; i < 3; i++) {
        await new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn)));
        if ((window as Counting).asked !== 0 || document.querySelector("[role=status][aria-label=Opening]")) return (window as Counting).asked ?? "not counted";
      }
      return 0;
    });
  await expect.poll(waits, { message: `what is asked and not read at ${page.url()}` }).toBe(0);
}

/** A browser of one's own, signed in. */
export async function signedIn(browser: Browser, userName: string, password = staffPassword): Promise<Page> {
  const context = await browser.newContext({ reducedMotion: "reduce" });
  await counted(context);
  const page = await context.newPage();
  // Nothing may go wrong on the page without a test saying so.
  page.on("pageerror", (e) => {
    throw new Error(`On ${page.url()}: ${e.message}`);
  });
  await page.goto("/");
  await page.getByLabel("User name").fill(userName);
  await page.getByLabel("Password").fill(password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Sign in to Spring Loft" })).toBeHidden();
  return page;
}

/** No violation of WCAG 2.2 AA that axe can find on the view as it stands. */
export async function isAccessible(page: Page, view: string) {
  // A page or a desk whose code is still on its way is not looked at.
  await expect(page.locator("h1").first()).toBeAttached();
  await expect(page.getByRole("status", { name: "Opening" })).toHaveCount(0);
  await page.waitForLoadState("networkidle");
  const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]).analyze();
  const said = violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.failureSummary ?? ""}`));
  expect(said, `accessibility of ${view}`).toEqual([]);
}

/** Whoever signs in with a first password chooses one of their own. */
export async function chooseOwn(page: Page, first: string, own: string) {
  await page.getByLabel("Password from your slip").fill(first);
  await page.getByLabel("New password", { exact: true }).fill(own);
  await page.getByLabel("New password again").fill(own);
  await page.locator("button[type=submit]").click();
  await expect(page.getByLabel("New password again")).toBeHidden();
}
