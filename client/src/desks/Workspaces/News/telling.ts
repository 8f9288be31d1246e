import type { Schemas } from "../../../api/client";
import { plainWords } from "../../../parts/plainWords";
import { count } from "../../../parts/words";

type Line = Schemas["NewsLine"];

/** The kinds of news, as they are offered to be told or not. */
export const newsWords: Record<Schemas["NewsKind"], string> = {
  Returned: "work that came back",
  Published: "new assignments",
  Notice: "notices",
  Asked: "what is to be acknowledged",
  Comment: "what somebody wrote about work",
  Answer: "answers in places to talk",
  Question: "what students write in places to talk",
  Hold: "deliveries that wait for a yes",
  RunEnded: "runs at their end",
};

const runs: Record<Schemas["RunKind"], string> = {
  Closing: "Closing",
  PutPlan: "Putting a plan",
  RollOver: "Rolling over",
  TakeHomes: "Making take-homes",
};

/** What happened, in two parts: what it is about, which leads there, and what happened to it. */
export function tell(l: Line): { about: string; said: string } {
  switch (l.kind) {
    case "Returned":
      return { about: l.title, said: "came back" };
    case "Published":
      return { about: l.title, said: "is to be worked on" };
    case "Asked":
      return { about: l.title, said: "is to be acknowledged" };
    case "Comment":
      return { about: l.title, said: `${l.by} wrote about it` };
    case "Answer":
      return { about: l.title, said: `${l.by} answered you` };
    case "Question":
      return { about: l.title, said: `${l.by}${l.others > 0 ? ` and ${l.others} more` : ""} wrote` };
    case "Hold":
      return { about: l.title, said: `${count(l.onHold ?? 0, "change waits", "changes wait")} for a yes` };
    case "RunEnded":
      return {
        about: `${runs[l.run!.kind]}, ${count(l.run!.classes, "class", "classes")}`,
        said: `ended, ${l.run!.done} done${l.run!.failed ? ", not all" : ""}`,
      };
    case "Notice":
      return { about: short(plainWords(l.title)), said: `told by ${l.by}` };
  }
}

const short = (words: string) => (words.length > 140 ? `${words.slice(0, 140)}…` : words);

/** The day of a moment, by the clock here: news are listed by day. */
export const dayOfMoment = (at: string) => new Date(at).toDateString();

/** The moment of the newest; undefined where there is none. */
export const newestOf = (lines: readonly Line[]) =>
  lines
    .map((l) => l.at)
    .sort()
    .at(-1);
