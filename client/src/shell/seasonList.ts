/** The seasons of the year, in their order: the way through the program. */
export const seasons = [
  { path: "plan", name: "Plan" },
  { path: "set-up", name: "Set up" },
  { path: "enroll", name: "Enroll" },
  { path: "work", name: "Work" },
  { path: "close", name: "Close" },
  { path: "roll-over", name: "Roll over" },
] as const;
