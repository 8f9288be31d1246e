import { count, sayDay } from "./words";

/** A time of the contract, "15:30:00", as this browser's people say it. */
export const sayTime = (iso: string) => {
  const [h, m] = iso.split(":").map(Number);
  return new Date(2000, 0, 1, h, m).toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" });
};

/** "due Fri 4 June, by 15:30"; nothing where there is no date. */
export const sayDue = (a: { dueOn?: string | null; dueTime?: string | null }) =>
  a.dueOn ? `due ${sayDay(a.dueOn)}${a.dueTime ? `, by ${sayTime(a.dueTime)}` : ""}` : "";

/** By how much something came late: "20 minutes late", "5 hours late", "3 days late". */
export function sayLate(minutes: number): string {
  if (minutes < 60) return `${count(Math.max(1, minutes), "minute", "minutes")} late`;
  if (minutes < 48 * 60) return `${count(Math.floor(minutes / 60), "hour", "hours")} late`;
  return `${count(Math.floor(minutes / (24 * 60)), "day", "days")} late`;
}
