import { useState } from "react";
import { ProblemError } from "./client";

/** Somebody else saved since: what was sent is held against a version that has passed. */
export const savedMeanwhile = (e: unknown) => e instanceof ProblemError && e.code === "changed-meanwhile";

/**
 * The version that a form was begun on, whatever is read anew beneath it, so that nobody's change is written over unsaid. Once
 * the server has said that there is a newer one, saving again is meant for that one.
 */
export function useBegun(version: number) {
  const [begun] = useState(version);
  return (refusal: unknown) => (savedMeanwhile(refusal) ? version : begun);
}
