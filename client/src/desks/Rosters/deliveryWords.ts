import type { Schemas } from "../../api/client";
import type { Mark } from "../../parts/StateMark";

/** What a delivery would change, in our words: one, many. */
export const changeWords: Record<Schemas["ChangeKind"], [one: string, many: string]> = {
  NewPerson: ["new person", "new people"],
  ChangedPerson: ["changed person", "changed people"],
  PersonGone: ["person gone", "people gone"],
  PersonBack: ["person back", "people back"],
  NewClass: ["new class", "new classes"],
  ChangedClass: ["changed class", "changed classes"],
  ClassGone: ["class gone", "classes gone"],
  Joins: ["joins", "join"],
  Leaves: ["leaves", "leave"],
  Moves: ["moves between sets", "move between sets"],
  ChangesRole: ["changes role", "change role"],
  NewContact: ["new family contact", "new family contacts"],
  ChangedContact: ["changed family contact", "changed family contacts"],
  ContactGone: ["family contact gone", "family contacts gone"],
};

/** The order in which kinds of change are shown. */
export const changeKinds = Object.keys(changeWords) as Schemas["ChangeKind"][];

/** How a delivery stands. */
export const deliveryStates: Record<Schemas["DeliveryState"], [mark: Mark, word: string]> = {
  ColumnsOpen: ["attention", "columns to confirm"],
  Waiting: ["underway", "waits for you"],
  Applied: ["done", "applied"],
  TakenBack: ["none", "taken back"],
  SetAside: ["none", "set aside"],
};

/** What a column of a plain table may say. */
export const columnWords: Record<Schemas["RosterColumn"], string> = {
  Nothing: "not used",
  RecordId: "record id",
  StudentNumber: "student number",
  Given: "given name",
  Family: "family name",
  Name: "whole name",
  Grade: "grade",
  Email: "e-mail",
  UserName: "user name",
  School: "school",
  Role: "role in the school",
  Class: "class, by its name",
  ClassRole: "role in the class",
};
