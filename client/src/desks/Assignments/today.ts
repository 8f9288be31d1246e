import { useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../api/client";
import { count, dayOf } from "../../parts/words";

/** Somebody's day. */
export const useToday = () => useQuery({ queryKey: ["today"], queryFn: () => take(api.GET("/api/today")) });

/** "Monday 7 June". */
export const sayWholeDay = (iso: string) =>
  dayOf(iso).toLocaleDateString(undefined, { weekday: "long", day: "numeric", month: "long" });

/** "School week 36, 10 school days left."; nothing outside a school year. */
export function sayWeek(t: Schemas["TodayView"]): string {
  const said = [
    t.week != null && `School week ${t.week}`,
    t.daysLeft != null && t.daysLeft > 0 && `${count(t.daysLeft, "school day", "school days")} left`,
  ].filter(Boolean);
  return said.length > 0 ? `${said.join(", ")}.` : "";
}
