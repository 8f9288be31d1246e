import type { Schemas } from "../../api/client";
import type { Mark } from "../../parts/StateMark";

/** The steps of closing, as people call them. */
export const stepNames: Record<Schemas["ClosingStep"], string> = {
  TakeHomes: "Take-homes",
  ArchivePackage: "Archive package",
  Check: "Check of the package",
  Archive: "Archived",
};

/** How a step or a class of a run stands, as a shape. */
export const stepMarks: Record<Schemas["StepState"], Mark> = {
  Waiting: "notYet",
  Working: "underway",
  Done: "done",
  Failed: "blocked",
  Skipped: "none",
};

/** How a step of a run stands, as a word. */
export const stepWords: Record<Schemas["StepState"], string> = {
  Waiting: "waits",
  Working: "at work",
  Done: "done",
  Failed: "failed",
  Skipped: "skipped",
};

/** What became of a class: it is verified only once its package was read back. */
export const outcomeWords: Record<Schemas["StepState"], string> = { ...stepWords, Done: "verified" };

/** How ready a class is. */
export const levels: Record<Schemas["FindingLevel"], { mark: Mark; word: string }> = {
  Blocks: { mark: "blocked", word: "blocked" },
  Attention: { mark: "attention", word: "wants attention" },
  Ready: { mark: "done", word: "ready" },
};

/** Where each finding is mended, within the desks of its class. */
export const mends: Record<Schemas["Mend"], { to: string; act: string } | null> = {
  None: null,
  ReturnWork: { to: "work", act: "Return it" },
  MarkWork: { to: "work", act: "Mark and return it" },
  FileThings: { to: "tidy", act: "Go through them" },
  PublishOrBin: { to: "work", act: "Publish or bin" },
  OpenClass: { to: "set-up", act: "Open it" },
  SeeRoster: { to: "enroll", act: "See the roster" },
  RollOver: { to: "roll-over", act: "Make it" },
  SeeRun: null,
  WithdrawInvitations: { to: "invitations", act: "See them" },
  SeeDeliveries: null,
  RetireCalendar: { to: "set-up", act: "See it" },
  SetShelf: { to: "shelf", act: "Set it" },
};
