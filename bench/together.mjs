// Measures; see together.sh. Uses the build, and Yjs and SignalR as the client has them.
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

const need = createRequire(resolve(import.meta.dirname, "../client/package.json"));
const { HubConnectionBuilder, LogLevel } = need("@microsoft/signalr");
const Y = need("yjs");
const writers = 30, seconds = Number(process.env.SECONDS_LONG ?? 20), every = 500;
const data = mkdtempSync(join(tmpdir(), "spring-loft-bench-"));
const said = (child, mark) => new Promise((go) => child.stdout.on("data", (b) => { const m = mark.exec(b.toString()); if (m) go(m[1]); }));
const base64 = (b) => Buffer.from(b).toString("base64");
const bytes = (t) => new Uint8Array(Buffer.from(t, "base64"));
const at = (sorted, share) => sorted[Math.floor((sorted.length - 1) * share)].toFixed(1);

// Each letter carries who wrote it and when; the clocks are one, for all are in this process.
async function measure(join, send) {
  const took = [];
  const all = await Promise.all(Array.from({ length: writers }, (_, n) => join(n, (sentAt) => took.push(performance.now() - sentAt))));
  const until = performance.now() + seconds * 1000;
  await Promise.all(all.map(async (one, n) => {
    await new Promise((go) => setTimeout(go, (n * every) / writers));
    while (performance.now() < until) {
      await Promise.all([send(one), new Promise((go) => setTimeout(go, every))]);
    }
  }));
  await new Promise((go) => setTimeout(go, 500));
  await Promise.all(all.map((one) => one.hub.stop()));
  took.sort((a, b) => a - b);
  return took;
}

const connect = (url, headers) => new HubConnectionBuilder().withUrl(url, { headers }).configureLogging(LogLevel.None).build();

// The bare echo: what one sends, all others have.
const echo = spawn("dotnet", ["bench/out/bench/SpringLoft.Bench.dll", "echo", data]);
const there = await said(echo, /echo on (\S+)/);
const bare = await measure(async (n, came) => {
  const hub = connect(`${there}/echo`);
  hub.on("Said", (text) => came(Number(text.split(" ")[0])));
  await hub.start();
  return { hub, pad: "x".repeat(40) };
}, ({ hub, pad }) => hub.invoke("Say", `${performance.now()} ${pad}`));
echo.kill();

const server = spawn(resolve("build/SpringLoft.Server"), ["--demo", "--today", "2027-06-07", "--urls", "http://127.0.0.1:0"], { env: { ...process.env, SPRING_LOFT_DATA: data } });
const url = (await said(server, /answers on (\S+)/)).replace(/\/$/, "");
const post = async (path, cookie, body) => {
  const r = await fetch(url + path, { method: "POST", headers: { "Content-Type": "application/json", Origin: url, "Idempotency-Key": String(Math.random()), ...(cookie && { Cookie: cookie }) }, body: JSON.stringify(body) });
  if (!r.ok) throw new Error(`${path}: ${await r.text()}`);
  return r;
};
const signIn = async (userName, password) => (await post("/api/sign-in", null, { userName, password })).headers.getSetCookie().find((c) => c.startsWith("spring-loft=")).split(";")[0];
const wren = await signIn("wren", "harbour-kiln-seven");
const board = await (await fetch(`${url}/api/board`, { headers: { Cookie: wren } })).json();
const id = board.rows.find((r) => r.state === "Open").id;
const folder = (await (await post(`/api/classes/${id}/folders`, wren, { name: "Bench", parent: null, rule: "ClassEdits", place: 0, version: 0 })).json()).id;
const page = (await (await post(`/api/classes/${id}/folders/${folder}/pages`, wren, { title: "Thirty", text: "", version: 0 })).json()).id;
// Of one account, as rights are asked of each; 30 browsers.
const letters = await measure(async (n, came) => {
  const hub = connect(`${url}/api/together`, { Cookie: wren });
  const doc = new Y.Doc();
  const text = doc.getText("text");
  hub.on("Wrote", (_, update) => {
    const before = text.length;
    Y.applyUpdate(doc, bytes(update));
    if (text.length > before) came(Number(text.toString().slice(-30).match(/(\d+(?:\.\d+)?);$/)?.[1]));
  });
  await hub.start();
  const { answer } = await hub.invoke("Open", id, page, null);
  Y.applyUpdate(doc, bytes(answer.update));
  return { hub, doc, text };
}, ({ hub, doc, text }) => {
  const before = Y.encodeStateVector(doc);
  text.insert(text.length, ` ${performance.now()};`);
  return hub.invoke("Write", id, page, base64(Y.encodeStateAsUpdate(doc, before)));
});
server.kill();
rmSync(data, { recursive: true, force: true });
const fine = letters.filter((t) => t >= 0).sort((a, b) => a - b);
console.log(`${writers} writers, a word each every ${every} ms for ${seconds} s: on its way ${at(fine, 0.5)} ms (median), ${at(fine, 0.95)} ms (95th percentile) over ${fine.length}; bare SignalR echo ${at(bare, 0.5)} and ${at(bare, 0.95)} ms over ${bare.length}; ratio ${(at(fine, 0.95) / at(bare, 0.95)).toFixed(1)}`);
process.exit(0);
