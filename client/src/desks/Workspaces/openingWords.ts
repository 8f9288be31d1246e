import type { Schemas } from "../../api/client";
import { count } from "../../parts/words";

/** What is said of a class before it is opened, in a few words. */
export function noteWords(note: Schemas["OpeningNote"], c: Schemas["OpeningCheck"]): string {
  switch (note) {
    case "NoStudents":
      return "nobody on the roster";
    case "NobodyLeads":
      return "nobody leads it";
    case "SeesNothing":
      return "students would see no folder";
    case "BlindSpots":
      return count(c.blindSpots, "blind spot", "blind spots");
    case "AlsoElsewhere":
      return `${count(c.also.length, "student is", "students are")} in another class of the course too`;
    case "NoSignIn":
      return `${c.noSignIn} of ${c.students} have no way to sign in yet`;
    case "NoWelcome":
      return "no welcome note";
    case "NothingPublished":
      return "nothing published yet";
  }
}
