import { execFileSync } from "node:child_process";
import { createHmac } from "node:crypto";
import { createServer } from "node:net";
import { join } from "node:path";
import { expect, test, type Browser, type Page } from "@playwright/test";
import { isAccessible, staffPassword } from "./people";
import { startDemo, type RunningServer } from "./server";

// A second step at sign-in, tried as its users would: on a server that has a name, for passkeys are for names.
let school: RunningServer;
let home: string;
let recovery: string[];
test.describe.configure({ mode: "serial" });

test.beforeAll(async () => {
  const port = await freePort();
  home = `http://localhost:${port}`;
  school = await startDemo({ SPRING_LOFT_ADDRESS: home }, `http://127.0.0.1:${port}`);
});
test.afterAll(async () => school.stop());

function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });
}

/** A code of RFC 6238, worked out here by itself: HMAC-SHA1, 30 seconds, 6 digits. `ahead` steps from now. */
function codeOf(secret: string, ahead = 0): string {
  const signs = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";
  const bits = [...secret.replaceAll(" ", "")].map((c) => signs.indexOf(c).toString(2).padStart(5, "0")).join("");
  const key = Buffer.from(bits.match(/.{8}/g)!.map((b) => parseInt(b, 2)));
  const step = Buffer.alloc(8);
  step.writeBigUInt64BE(BigInt(Math.floor(Date.now() / 30_000) + ahead));
  const mac = createHmac("sha1", key).update(step).digest();
  const at = mac[19]! & 15;
  return ((mac.readUInt32BE(at) & 0x7fffffff) % 1_000_000).toString().padStart(6, "0");
}

async function enter(browser: Browser, userName: string): Promise<Page> {
  const page = await (await browser.newContext({ reducedMotion: "reduce", baseURL: home })).newPage();
  page.on("pageerror", (e) => {
    throw new Error(`On ${page.url()}: ${e.message}`);
  });
  await page.goto("/");
  await type(page, userName);
  return page;
}

async function type(page: Page, userName: string) {
  await page.getByLabel("User name").fill(userName);
  await page.getByLabel("Password").fill(staffPassword);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Sign in to Spring Loft" })).toBeHidden();
}

const board = (page: Page) => page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: "Year board" });

test("the school asks a second step of coordinators: one is set up at the next sign-in, asked at the one after, and a lost phone is no end", async ({ browser }) => {
  const wren = await enter(browser, "wren");
  await wren.goto("/plan/rules");
  await wren.getByLabel("Required of").click();
  await wren.getByRole("option", { name: "coordinators" }).click();
  await expect(wren.getByText(/asked to set up a second step when they sign in next/)).toBeVisible();
  await isAccessible(wren, "the school's rules");
  await wren.getByRole("button", { name: "Lay down these rules" }).click();

  // From now on Wren has to, here too.
  await expect(wren.getByText("Your school asks a second step of you")).toBeVisible();
  await isAccessible(wren, "a second step that is to be set up");
  await wren.getByRole("button", { name: "Set up an app…" }).click();
  const dialog = wren.getByRole("dialog", { name: "Set up an app" });
  await expect(dialog.getByRole("img", { name: "QR code with the secret for your app" })).toBeVisible();
  const secret = await dialog.locator("strong").innerText();
  await isAccessible(wren, "setting up an app");
  await dialog.getByLabel("The code that the app shows").fill("123456");
  await dialog.getByRole("button", { name: "Set it up" }).click();
  await expect(dialog.getByRole("alert")).toContainText("That code is not right");
  await dialog.getByLabel("The code that the app shows").fill(codeOf(secret));
  await dialog.getByRole("button", { name: "Set it up" }).click();
  const codes = wren.getByRole("list", { name: "Recovery codes" }).getByRole("listitem");
  await expect(codes).toHaveCount(10);
  recovery = await codes.allInnerTexts();
  await isAccessible(wren, "recovery codes");
  await wren.getByRole("button", { name: "I have kept them" }).click();
  await expect(board(wren)).toBeVisible();

  // At the next sign-in the password alone opens nothing.
  const later = await enter(browser, "wren");
  await expect(later.getByRole("heading", { name: "One more step, Wren" })).toBeVisible();
  expect((await later.request.get("/api/board")).status()).toBe(403);
  await isAccessible(later, "the second step at the door");
  await later.getByLabel("Code of your app, or a recovery code").fill(codeOf(secret, 1));
  await later.getByRole("button", { name: "Go on" }).click();
  await expect(board(later)).toBeVisible();

  // The phone is lost: a recovery code, once.
  const lost = await enter(browser, "wren");
  await lost.getByLabel("Code of your app, or a recovery code").fill(recovery[0]!);
  await lost.getByRole("button", { name: "Go on" }).click();
  await expect(board(lost)).toBeVisible();
  await lost.goto("/audit");
  await expect(lost.getByRole("table", { name: "Audit trail" }).getByText("recovery code; 9 left")).toBeVisible();
  for (const page of [wren, later, lost]) await page.context().close();
});

test("a passkey is made, shown at sign-in, asked once more before an act that hurts, and ended by a coordinator when it is lost", async ({ browser }) => {
  const page = await enter(browser, "yusuf");
  const devtools = await page.context().newCDPSession(page);
  await devtools.send("WebAuthn.enable");
  await devtools.send("WebAuthn.addVirtualAuthenticator", { options: { protocol: "ctap2", transport: "internal", hasResidentKey: true, hasUserVerification: true, isUserVerified: true, automaticPresenceSimulation: true } });
  await page.goto("/sign-ins");
  await page.getByRole("button", { name: "Add a passkey…" }).click();
  const dialog = page.getByRole("dialog", { name: "Add a passkey" });
  await dialog.getByLabel(/What you call it/).fill("the desk in room 4");
  await isAccessible(page, "adding a passkey");
  await dialog.getByRole("button", { name: "Make it" }).click();
  await expect(page.getByText("Passkey “the desk in room 4”")).toBeVisible();
  await expect(page.getByText("You have no recovery code.")).toBeVisible();
  await isAccessible(page, "one's second step");

  await page.getByRole("button", { name: /^Yusuf/ }).click();
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  await type(page, "yusuf");
  await expect(page.getByRole("heading", { name: "One more step, Yusuf" })).toBeVisible();
  await page.getByRole("button", { name: "Use a passkey" }).click();
  await expect(board(page)).toBeVisible();

  // Somebody else's browser has no such key: nothing is shown, nothing opens.
  const other = await enter(browser, "yusuf");
  const elsewhere = await other.context().newCDPSession(other);
  await elsewhere.send("WebAuthn.enable");
  await elsewhere.send("WebAuthn.addVirtualAuthenticator", { options: { protocol: "ctap2", transport: "internal", hasResidentKey: true, hasUserVerification: true, isUserVerified: true, automaticPresenceSimulation: true } });
  await other.getByRole("button", { name: "Use a passkey" }).click();
  await expect(other.getByRole("status")).toContainText("No passkey was shown.");
  await expect(other.getByRole("heading", { name: "One more step, Yusuf" })).toBeVisible();

  // Lost: a coordinator ends it, and shows their own once more before that: theirs was an hour ago.
  const wren = await enter(browser, "wren");
  await wren.getByLabel("Code of your app, or a recovery code").fill(recovery[1]!);
  await wren.getByRole("button", { name: "Go on" }).click();
  await expect(board(wren)).toBeVisible();
  execFileSync("sqlite3", [join(school.data, "spring-loft.db"), ".timeout 20000", "UPDATE session SET step_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now', '-1 hour') WHERE step_at IS NOT NULL"]);
  await wren.goto("/enroll/directory");
  await wren.getByLabel("Name, number, e-mail").fill("yusuf");
  await wren.getByRole("checkbox", { name: "Tick Dahlquist, Yusuf" }).check();
  await wren.getByRole("button", { name: "End second step…" }).click();
  await wren.getByRole("dialog", { name: /^End the second step of Yusuf/ }).getByRole("button", { name: "End it" }).click();
  const again = wren.getByRole("dialog", { name: "Once more: is it you?" });
  await expect(again).toBeVisible();
  await isAccessible(wren, "a second step that is asked once more");
  await again.getByLabel("Code of your app, or a recovery code").fill(recovery[2]!);
  await again.getByRole("button", { name: "Go on" }).click();
  await expect(wren.getByRole("dialog")).toHaveCount(0);
  const back = await enter(browser, "yusuf");
  await expect(board(back)).toBeVisible();
  for (const p of [page, other, wren, back]) await p.context().close();
});
