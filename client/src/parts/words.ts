import type { Schemas } from "../api/client";

/** "1 class", "3 classes": a number with its noun. */
export const count = (n: number, one: string, many: string) =>
  `${n.toLocaleString()} ${n === 1 ? one : many}`;

/** Who may do what in a folder, in our words. */
export const ruleWords: Record<Schemas["FolderRule"], string> = {
  StaffOnly: "staff only",
  ClassViews: "class views",
  ClassAdds: "class adds",
  ClassEdits: "class edits",
  OneEach: "one each",
  OnePerGroup: "one per group",
  AsAbove: "as above",
};

/** A person's right, in our words. */
export const rightWords: Record<Schemas["Right"], string> = {
  None: "none",
  View: "you may look",
  Add: "you may add",
  Edit: "you may change",
  Manage: "you manage",
};

/** Whom a site or shared material is for. */
export const forWhomWords: Record<Schemas["ForWhom"], string> = {
  Everybody: "everybody",
  StaffOnly: "staff only",
  SomeGrades: "some grades",
  SomeCourses: "some courses",
};

/** How often a line of a plan stands. */
export const standsWords: Record<Schemas["Stands"], string> = {
  Once: "once",
  EachTerm: "each term",
  EachSchoolWeek: "each school week",
  EachSchoolDay: "each school day",
  EachEntry: "each entry",
  EachGroup: "each group",
  EachStudent: "each student",
};

/** The states of a class. */
export const stateWords: Record<Schemas["ClassState"], string> = {
  InPreparation: "in preparation",
  Open: "open",
  Archived: "archived",
};

/** A calendar day of the contract as a date of this browser; no time zone is involved. */
export function dayOf(iso: string): Date {
  const [y, m, d] = iso.split("-").map(Number);
  return new Date(y!, m! - 1, d);
}

/** "Mon 7 June", as people of this browser's language say it. */
export const sayDay = (iso: string) =>
  dayOf(iso).toLocaleDateString(undefined, { weekday: "short", day: "numeric", month: "long" });

/** "7 Jun 2027". */
export const sayDate = (iso: string) =>
  dayOf(iso).toLocaleDateString(undefined, { day: "numeric", month: "short", year: "numeric" });

/** A moment as date and time. */
export const sayMoment = (iso: string) =>
  new Date(iso).toLocaleString(undefined, {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });

/** "1.4 MB". */
export function sayBytes(n: number): string {
  const units = ["bytes", "kB", "MB", "GB"];
  let at = 0;
  let value = n;
  while (value >= 1000 && at < units.length - 1) {
    value /= 1000;
    at += 1;
  }
  return `${at === 0 ? value : value.toFixed(value < 10 ? 1 : 0)} ${units[at]}`;
}

/** The scale of work that is complete or not yet. */
export const doneScale = "complete / not yet";

export const isDone = (scheme: Schemas["MarkScheme"]) => scheme.scale === doneScale;

/** What a mark is called: by the level that it is, where it is on a scale, and in figures. */
export function sayMark(
  score: number,
  points: number | null | undefined,
  scheme?: Schemas["MarkScheme"] | null,
  level?: string | null,
) {
  const figures = points == null ? String(score) : `${score} of ${points}`;
  const name = level ?? scheme?.levels.find((l) => l.points === score)?.name;
  if (name === undefined) return figures;
  // Complete or not yet says all there is to say.
  return scheme && isDone(scheme) ? name : `${name} (${figures})`;
}
