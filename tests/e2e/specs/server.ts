import { spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { test as base } from "@playwright/test";

const program = resolve(import.meta.dirname, "../../../build/SpringLoft.Server");

/** The real program on a folder and a port of its own: `end` ends it, `stop` takes its folder away too. */
export type RunningServer = { url: string; data: string; said: () => string; end: () => Promise<void>; stop: () => Promise<void> };

/** Starts the program and waits until it says where it answers; its end before that is an error. */
export async function startServer(args: string[], env: Record<string, string> = {}, data = mkdtempSync(join(tmpdir(), "spring-loft-e2e-")), at = "http://127.0.0.1:0"): Promise<RunningServer> {
  const child = spawn(program, [...args, "--urls", at], { env: { ...process.env, ...env, SPRING_LOFT_DATA: data } });
  let said = "";
  const ended = new Promise<void>((done) => child.once("exit", () => done()));
  const url = await new Promise<string>((answers, fails) => {
    const heard = (part: Buffer) => {
      said += part.toString();
      const found = /^Spring Loft answers on (\S+)$/m.exec(said);
      if (found) answers(found[1]!.replace(/\/$/, ""));
    };
    child.stdout.on("data", heard);
    child.stderr.on("data", heard);
    child.once("exit", () => fails(new Error(`The program ended before it answered: ${said}`)));
  });
  const end = async () => {
    child.kill();
    await ended;
  };
  const stop = async () => {
    await end();
    rmSync(data, { recursive: true, force: true });
  };
  return { url, data, said: () => said, end, stop };
}

/** The folder with the demo school as it was made, once for all; see global-setup.ts. */
export const demoSchool = resolve(import.meta.dirname, "../results/demo");

/** The demo school in June on a copy of its own. */
export function startDemo(env: Record<string, string> = {}, at?: string): Promise<RunningServer> {
  const data = mkdtempSync(join(tmpdir(), "spring-loft-e2e-"));
  cpSync(demoSchool, data, { recursive: true });
  return startServer(["--demo", "--today", "2027-06-07"], env, data, at);
}

/** Each file of tests has a school of its own: it tells one story, and starts anew when it is run once more. */
export const test = base.extend<object, { school: RunningServer }>({
  school: [
    async ({}, use) => {
      const server = await startDemo();
      await use(server);
      await server.stop();
    },
    { scope: "worker", timeout: 0 },
  ],
  baseURL: async ({ school }, use) => use(school.url),
});
