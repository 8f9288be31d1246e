import type { Schemas } from "../../../api/client";
import { asksOf, asksTyped, type AsksTyped } from "../Acknowledged/asking";

/** A notice as it is typed. */
export interface Typed extends AsksTyped {
  text: string;
  /** To everybody of the school, and then to no class. */
  school: boolean;
  classes: number[];
  /** Empty for all of the class. */
  group: string;
  /** Empty for at once. */
  postOn: string;
  postAt: string;
  pinnedUntil: string;
  files: TypedFile[];
}

/** A file with it: one that is kept already, or one that was sent and waits for the notice. */
export interface TypedFile {
  id?: number;
  upload?: number;
  name: string;
  size: number;
}

export const blank: Typed = {
  text: "",
  school: false,
  classes: [],
  group: "",
  postOn: "",
  postAt: "07:00",
  pinnedUntil: "",
  files: [],
  ...asksTyped(),
};

/** One that is there, to be changed. */
export const typedOf = (n: Schemas["NoticeLine"]): Typed => ({
  text: n.text,
  school: n.school,
  classes: n.places.map((p) => p.class),
  group: "",
  postOn: n.postAt?.slice(0, 10) ?? "",
  postAt: n.postAt?.slice(11, 16) ?? blank.postAt,
  pinnedUntil: n.pinnedUntil ?? "",
  files: n.files.map((f) => ({ id: f.id, name: f.name, size: f.size })),
  ...asksTyped(n.asks),
});

/** As the server takes it. */
export const bodyOf = (t: Typed): Schemas["NewNotice"] => ({
  text: t.text,
  classes: t.school ? [] : t.classes,
  group: t.school || t.classes.length !== 1 || t.group === "" ? null : Number(t.group),
  school: t.school,
  postAt: t.postOn === "" ? null : `${t.postOn}T${t.postAt || blank.postAt}:00`,
  pinnedUntil: t.pinnedUntil || null,
  asks: t.school ? null : asksOf(t),
  files: t.files.map((f) => ({ id: f.id ?? null, upload: f.upload ?? null })),
});

/** The classes that an address names, as "3,7,12"; those that are none of these are passed over. */
export const namedIn = (address: string | null, classes: readonly { id: number }[]): number[] =>
  [...new Set((address ?? "").split(",").map(Number))].filter((id) => classes.some((k) => k.id === id));
