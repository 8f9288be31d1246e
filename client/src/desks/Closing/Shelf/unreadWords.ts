import type { Schemas } from "../../../api/client";

/** Why something in a thing was not searched for the names of students. */
export const unreadWords: Record<Schemas["Unread"], string> = {
  Kind: "not searched for names: no text is read from this kind of file",
  Shut: "not searched for names: it opens with a password only",
  Damaged: "not searched for names: the file is damaged",
  Long: "not searched to its end for names: it is too long",
  Pictures: "its words were searched for names, the pictures or files in it were not",
};
