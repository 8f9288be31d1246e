import type { Schemas } from "../../../api/client";
import type { Mark } from "../../../parts/StateMark";

/** Why no letter goes to somebody, and how that stands. */
export const noLetterWords: Record<Schemas["NoLetter"], [mark: Mark, word: string]> = {
  NotLetYet: ["notYet", "not let yet"],
  NoAddress: ["attention", "no e-mail address"],
  Stopped: ["none", "stopped by the family"],
  Gone: ["none", "not in the records any more"],
};

/** Days of the week in order, in this browser's words. 2024-01-01 was a Monday. */
export const weekdays = (
  ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const
).map(
  (day, i) => [day, new Date(2024, 0, 1 + i).toLocaleDateString(undefined, { weekday: "long" })] as const,
);
