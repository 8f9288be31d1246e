import type { Schemas } from "../../../api/client";
import { levelsOf, typedLevels, type TypedLevel } from "../../../parts/LevelLines";
import { typedNumber } from "../../../parts/typedNumber";

/** How late work is treated, as one chooses it. */
export type Late = "always" | "days" | "none";

/** Something that is attached, or is about to be: exactly one of `id`, `upload`, `item` and `url` without them says what. */
export interface TypedThing {
  id?: number;
  upload?: number;
  item?: number;
  name: string;
  kind: Schemas["ItemKind"];
  url?: string;
  size?: number;
}

/** An assignment as it is typed. */
export interface Typed {
  title: string;
  instructions: string;
  points: string;
  dueOn: string;
  dueTime: string;
  late: Late;
  lateDays: string;
  folders: number[];
  /** Students by name; with no groups either, everybody. */
  to: number[];
  groups: number[];
  /** Other classes that get it in the same act. */
  alsoIn: number[];
  /** The day on which it is published by itself; empty for by hand. */
  publishOn: string;
  publishTime: string;
  things: TypedThing[];
  /** In points, on a scale, or by criteria; what is not chosen is kept as it was typed. */
  marked: "points" | "scale" | "criteria";
  scale: Schemas["MarkScheme"] | null;
  criteria: { name: string; levels: TypedLevel[] }[];
}

/** A criterion to begin with. */
export const blankCriterion = (): Typed["criteria"][number] => ({
  name: "",
  levels: [
    { name: "not yet", points: "0", says: "" },
    { name: "reached", points: "2", says: "" },
    { name: "well reached", points: "3", says: "" },
  ],
});

/** The scheme by which it is marked; null for points. What is no number yet counts nothing until its field says so. */
export function schemeOf(t: Pick<Typed, "marked" | "scale" | "criteria">): Schemas["MarkScheme"] | null {
  if (t.marked === "scale") return t.scale;
  if (t.marked !== "criteria") return null;
  return {
    scale: null,
    levels: [],
    criteria: t.criteria.map((c) => ({
      name: c.name.trim(),
      levels: levelsOf(c.levels),
    })),
  };
}

/** What one begins with. */
export function blank(w: Schemas["WorkspaceView"]): Typed {
  const bank = w.head.kind === "Department" ? w.folders.filter((f) => f.name === "Bank") : [];
  return {
    title: "",
    instructions: "",
    points: "20",
    dueOn: "",
    dueTime: "",
    late: "always",
    lateDays: "7",
    folders: bank.map((f) => f.id),
    to: [],
    groups: [],
    alsoIn: [],
    publishOn: "",
    publishTime: "08:00",
    things: [],
    marked: "points",
    scale: null,
    criteria: [blankCriterion()],
  };
}

/** An assignment that is there, as it would have been typed. */
export function typedOf(a: Schemas["AssignmentView"]): Typed {
  return {
    title: a.title,
    instructions: a.instructions,
    points: String(a.points ?? ""),
    dueOn: a.dueOn ?? "",
    dueTime: a.dueTime?.slice(0, 5) ?? "",
    late: a.lateDays == null ? "always" : a.lateDays === 0 ? "none" : "days",
    lateDays: a.lateDays ? String(a.lateDays) : "7",
    folders: a.folders,
    to: a.givenTo,
    groups: a.groups.map((g) => g.id),
    alsoIn: [],
    publishOn: a.publishAt?.slice(0, 10) ?? "",
    publishTime: a.publishAt?.slice(11, 16) ?? "08:00",
    marked: !a.scheme ? "points" : a.scheme.criteria.length > 0 ? "criteria" : "scale",
    scale: a.scheme && a.scheme.levels.length > 0 ? a.scheme : null,
    criteria:
      a.scheme && a.scheme.criteria.length > 0
        ? a.scheme.criteria.map((c) => ({
            name: c.name,
            levels: typedLevels(c.levels),
          }))
        : [blankCriterion()],
    things: a.things.map((t) => ({
      id: t.id,
      item: t.item ?? undefined,
      name: t.name,
      kind: t.kind,
      url: t.url ?? undefined,
      size: t.size ?? undefined,
    })),
  };
}

/** What is sent of it; what is half typed is left to the check of its field. */
export function bodyOf(t: Typed, publish: boolean): Schemas["NewAssignment"] {
  const points = typedNumber(t.points);
  const days = Number(t.lateDays);
  return {
    title: t.title,
    instructions: t.instructions,
    points: t.marked !== "points" || points === null || Number.isNaN(points) ? null : points,
    scheme: schemeOf(t),
    dueOn: t.dueOn || null,
    dueTime: t.dueTime ? `${t.dueTime.slice(0, 5)}:00` : null,
    lateDays:
      t.late === "always" ? null : t.late === "none" ? 0 : Number.isInteger(days) && days > 0 ? days : null,
    folders: t.folders,
    students: t.to,
    groups: t.groups,
    alsoIn: t.alsoIn,
    things: t.things.map((x) => ({
      id: x.id ?? null,
      upload: x.id == null ? (x.upload ?? null) : null,
      item: x.id == null ? (x.item ?? null) : null,
      name: x.name,
      url: x.url ?? null,
    })),
    publish,
    publishAt: !publish && t.publishOn ? `${t.publishOn}T${t.publishTime || "00:00"}:00` : null,
  };
}
