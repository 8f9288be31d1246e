import { chromium } from "@playwright/test";
const [,, who, out, ...paths] = process.argv;
const pw = who.startsWith("s1") ? "tide-pool-lantern" : "harbour-kiln-seven";
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox","--disable-gpu"] });
const dark = process.env.DARK === "1";
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: dark ? "dark" : "light" });
page.on("pageerror", e => console.log("PAGEERROR", e.message));
page.on("console", m => m.type() === "error" && console.log("CONSOLE", m.text().slice(0,200)));
await page.goto("http://127.0.0.1:5080/");
await page.getByLabel("User name").fill(who.split(":")[0]);
await page.getByLabel("Password").fill(who.split(":")[1] ?? pw);
await page.getByRole("button", { name: "Sign in" }).click();
await page.waitForTimeout(700);
let n = 0;
for (const p of paths) {
  if (p.startsWith("click:")) { await page.getByRole("button", { name: p.slice(6) }).first().click(); }
  else if (p.startsWith("text:")) { await page.getByText(p.slice(5), { exact: false }).first().click(); }
  else if (p.startsWith("menu:")) { await page.getByRole("menuitem", { name: p.slice(5) }).first().click(); }
  else if (p.startsWith("check:")) { await page.getByRole("checkbox", { name: p.slice(6) }).first().click(); }
  else if (p.startsWith("paste:")) { const [sel, text] = p.slice(6).split("=>"); await page.getByLabel(sel).first().focus(); await page.evaluate((t) => { const dt = new DataTransfer(); dt.setData("text", t); document.activeElement.dispatchEvent(new ClipboardEvent("paste", { clipboardData: dt, bubbles: true, cancelable: true })); }, text.replaceAll("\\t","\t").replaceAll("\\n","\n")); }
  else if (p === "shot") { await page.waitForTimeout(700); await page.screenshot({ path: `${out}-${++n}.png` }); }
  else { await page.goto("http://127.0.0.1:5080" + p); await page.waitForTimeout(900); }
}
await browser.close();
