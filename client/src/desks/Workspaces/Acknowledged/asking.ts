import type { Schemas } from "../../../api/client";
import { count } from "../../../parts/words";

type Line = Schemas["AskingLine"];

/** Of whom something is asked, in words. */
export const askedWords: Record<Schemas["AskedOf"], string> = {
  Student: "by the student",
  Home: "at home",
  Both: "by the student, and at home",
};

/** What is outstanding: "3 students, 5 homes"; "all have" where nothing is. */
export function sayLeft(l: Pick<Line, "ownLeft" | "homeLeft" | "students">): string {
  if (l.students === 0) return "nobody is asked";
  const left = [
    l.ownLeft > 0 && count(l.ownLeft, "student", "students"),
    l.homeLeft > 0 && count(l.homeLeft, "home", "homes"),
  ].filter(Boolean);
  return left.length > 0 ? left.join(", ") : "all have";
}

/** Why nobody finds it yet; empty where they do. */
export const sayUnreached = (l: Pick<Line, "reached" | "kind">) =>
  l.reached ? "" : l.kind ? "asked once the class is open" : "asked once it is posted and the class is open";

/** By whom, and until when, as it is typed: nothing for by nobody, and for no day. */
export interface AsksTyped {
  asks: Schemas["AskedOf"] | "";
  until: string;
}

/** What is asked, as it stands in a form. */
export const asksTyped = (a?: Schemas["Asks"] | null): AsksTyped => ({
  asks: a?.of ?? "",
  until: a?.until ?? "",
});

/** As the server takes it. */
export const asksOf = (t: AsksTyped): Schemas["Asks"] | null =>
  t.asks === "" ? null : { of: t.asks, until: t.until || null };
