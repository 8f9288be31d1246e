import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { tmpdir } from "node:os";
import { expect, type Page } from "@playwright/test";
import { startOther } from "./otherProvider";
import { isAccessible, signedIn, staffPassword } from "./people";
import { startDemo, test } from "./server";

async function account(page: Page, name: string) {
  await page.getByLabel("Account").fill(name);
  await page.getByRole("button", { name: "Go on" }).click();
}

test("a student comes in with the district's account, is asked for no first password, and signs out there too", async ({ page }) => {
  await page.goto("/");
  await isAccessible(page, "the door with a provider");
  await page.getByRole("link", { name: "Sign in with Island District" }).click();
  await account(page, "s1001");
  await expect(page.getByRole("navigation", { name: "Places" })).toContainText("Today");
  await page.goto("/sign-ins");
  await expect(page.getByRole("table", { name: "Places where you are signed in" })).toContainText("with Island District");
  await expect(page.getByText(/You are known at Island District since/)).toBeVisible();
  await isAccessible(page, "sign-ins with a provider");

  await page.getByRole("button", { name: /▾$/ }).click();
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  await expect(page.getByRole("heading", { name: "Sign in to Spring Loft" })).toBeVisible();
  // Signed out there: the next one at this computer is asked who they are.
  await page.getByRole("link", { name: "Sign in with Island District" }).click();
  await expect(page.getByLabel("Account")).toBeVisible();
});

test("whom the school does not know is turned away in words, once, and an address that was asked for is where one arrives", async ({ page }) => {
  await page.goto("/sign-ins");
  await page.getByRole("link", { name: "Sign in with Island District" }).click();
  await account(page, "visitor");
  await expect(page.getByRole("alert")).toContainText("Island District says who you are, but nobody of this school is known by that.");
  await isAccessible(page, "the door after a refusal");
  expect(new URL(page.url()).search).toBe("");
  await page.reload();
  await expect(page.getByRole("alert")).toBeHidden();

  await page.context().clearCookies();
  await page.goto("/sign-ins");
  await page.getByRole("link", { name: "Sign in with Island District" }).click();
  await account(page, "yusuf");
  await expect(page.getByRole("heading", { name: "Where you are signed in" })).toBeVisible();
});

test("a screen whose sign-in ended goes on in place with the provider, with what was typed", async ({ browser }) => {
  const page = await signedIn(browser, "wren");
  await page.goto("/plan/rules");
  const letters = page.getByLabel("Letters that were sent, days");
  await letters.fill("60");
  // Elsewhere they end all their sign-ins.
  const elsewhere = await signedIn(browser, "wren");
  await elsewhere.request.post("/api/me/sign-ins/end-others");
  await page.getByRole("button", { name: "Lay down these rules" }).click();
  const ended = page.getByRole("dialog", { name: "Your sign-in has ended" });
  const opened = page.waitForEvent("popup");
  await ended.getByRole("button", { name: "Sign in with Island District" }).click();
  const window = await opened;
  await account(window, "wren");
  await expect(ended).toBeHidden();
  await expect(page.getByText("Laid down as you see it")).toBeVisible();
  await expect(letters).toHaveValue("60");
});

test("a coordinator forgets a lost account", async ({ browser }) => {
  const theirs = await (await browser.newContext()).newPage();
  await theirs.goto("/");
  await theirs.getByRole("link", { name: "Sign in with Island District" }).click();
  await account(theirs, "yusuf");
  await expect(theirs.getByRole("navigation", { name: "Seasons" })).toBeVisible();

  const wren = await signedIn(browser, "wren");
  await wren.goto("/enroll/directory");
  await wren.getByLabel("Name, number, e-mail").fill("yusuf");
  await wren.getByRole("checkbox", { name: "Tick Dahlquist, Yusuf" }).check();
  await wren.getByRole("button", { name: "Forget accounts…" }).click();
  const asked = wren.getByRole("dialog", { name: /^Forget the accounts of Yusuf/ });
  await expect(asked).toContainText("Known at Island District since");
  await isAccessible(wren, "forgetting accounts");
  await asked.getByRole("button", { name: "Forget them" }).click();
  await expect(asked).toBeHidden();

  await theirs.reload();
  await expect(theirs.getByRole("heading", { name: "Sign in to Spring Loft" })).toBeVisible();
});

test("with a provider that is not ours: in, out from here, out from there, and a password that is switched off", async ({ browser }) => {
  const other = await startOther();
  const file = join(tmpdir(), `spring-loft-providers-${process.pid}.json`);
  writeFileSync(file, JSON.stringify([
    { key: "other", name: "Other Provider", issuer: other.issuer, clientId: "loft", clientSecret: "a-secret-of-the-test", scopes: ["profile"], knownBy: { userName: "preferred_username" }, passwordsOff: "staff" },
  ]));
  const server = await startDemo({ SPRING_LOFT_PROVIDERS: file });
  other.serve(server.url);
  try {
    const page = await (await browser.newContext({ baseURL: server.url })).newPage();
    const come = async () => {
      await page.goto("/");
      await page.getByRole("link", { name: "Sign in with Other Provider" }).click();
      await page.locator("input[name=login]").fill("account-of-yusuf");
      await page.locator("input[name=password]").fill("any");
      await page.getByRole("button", { name: "Sign-in" }).click();
      await page.getByRole("button", { name: "Continue" }).click();
      await expect(page.getByRole("navigation", { name: "Seasons" })).toBeVisible();
    };
    await come();
    const tried = await page.request.post("/api/sign-in", { data: { userName: "yusuf", password: staffPassword } });
    expect(((await tried.json()) as { code: string }).code).toBe("password-off");

    // Out from here: the provider asks whether there too.
    await page.getByRole("button", { name: /▾$/ }).click();
    await page.getByRole("menuitem", { name: "Sign out" }).click();
    await page.getByRole("button", { name: "Yes, sign me out" }).click();
    await expect(page.getByRole("heading", { name: "Sign in to Spring Loft" })).toBeVisible();

    // Out from there: it tells us, behind the browser's back.
    await come();
    const away = await page.context().newPage();
    await away.goto(`${other.issuer}/session/end`);
    await away.getByRole("button", { name: "Yes, sign me out" }).click();
    await expect.poll(async () => (await page.request.get("/api/me")).status()).toBe(401);
  } finally {
    await server.stop();
    await other.end();
  }
});
