import { mkdirSync, rmSync } from "node:fs";
import { demoSchool, startServer } from "./specs/server";

/** Makes the demo school once; every file of tests gets a copy of it. */
export default async function make() {
  rmSync(demoSchool, { recursive: true, force: true });
  mkdirSync(demoSchool, { recursive: true });
  const server = await startServer(["--demo", "--today", "2027-06-07"], {}, demoSchool);
  await server.end();
}
