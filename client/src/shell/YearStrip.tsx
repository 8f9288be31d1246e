import Box from "@mui/material/Box";
import type { Schemas } from "../api/client";
import { dayOf, sayDay } from "../parts/words";

const WEEK = 7 * 24 * 3600 * 1000;
// Weeks shown before and after the year, where planning and rolling over happen.
const BEFORE = 4;
const AFTER = 4;
const tints = ["#e3ecd9", "#dbe7ec", "#f3e5ce"];
const tintsDark = ["#2b3a24", "#22343c", "#43361f"];

/** The school year drawn as a strip: weeks, terms tinted, days off left open, today marked. */
export function YearStrip({
  year,
  today,
  another,
}: {
  year: Schemas["YearView"];
  today: string;
  /** It is not the school's current year: of a class that is looked at. */
  another?: boolean;
}) {
  const total = BEFORE + year.weeks.length + AFTER;
  const start = dayOf(year.weeks[0]!.starts).getTime() - BEFORE * WEEK;
  const at = (dayOf(today).getTime() - start) / (total * WEEK);
  const where = Math.min(1, Math.max(0, at));
  const x = (week: number) => `${((BEFORE + week) / total) * 100}%`;
  const width = `${(1 / total) * 100}%`;
  const said = another
    ? `School year ${year.label}, the year of this class and not the current one.`
    : `School year ${year.label}. Today is ${sayDay(today)}${year.weekNow ? `, school week ${year.weekNow}` : ""}.`;
  return (
    <Box sx={{ position: "relative", height: 38 }} role="img" aria-label={said}>
      {year.weeks.map((w, i) => (
        <Box
          key={w.starts}
          title={w.number ? `School week ${w.number}, ${w.schoolDays} school days` : "No school"}
          sx={(t) => ({
            position: "absolute",
            left: x(i),
            width,
            top: 4,
            height: 14,
            borderLeft: w.number ? "1px solid" : "none",
            borderColor: "text.secondary",
            bgcolor: w.term == null ? "transparent" : tints[w.term % 3],
            ...t.applyStyles("dark", {
              backgroundColor: w.term == null ? "transparent" : tintsDark[w.term % 3],
            }),
            ...(w.number ? {} : { borderBottom: "1px dotted", borderBottomColor: "text.secondary" }),
          })}
        />
      ))}
      {year.weeks.map((w, i) =>
        (w.number === 1 || (w.number ?? 1) % 10 === 0) &&
        w.number &&
        (another ? (BEFORE + i) / total < 0.88 : Math.abs((BEFORE + i) / total - where) > 0.06) ? (
          <Box
            key={w.starts}
            sx={{
              position: "absolute",
              left: x(i),
              top: 20,
              fontSize: 11,
              color: "text.secondary",
              whiteSpace: "nowrap",
            }}
          >
            {w.number === 1 ? "week 1" : w.number}
          </Box>
        ) : null,
      )}
      {another ? (
        <Box
          sx={{
            position: "absolute",
            right: 0,
            top: 19,
            fontSize: "0.74rem",
            fontWeight: 700,
            color: "warning.main",
            whiteSpace: "nowrap",
          }}
        >
          {year.label}, not this year
        </Box>
      ) : (
        <>
          <Box
            sx={{
              position: "absolute",
              left: `${where * 100}%`,
              top: 0,
              height: 20,
              borderLeft: "2px solid",
              borderColor: "error.main",
              ml: "-1px",
            }}
          >
            <Box
              sx={{
                position: "absolute",
                left: -6,
                top: -1,
                borderLeft: "5px solid transparent",
                borderRight: "5px solid transparent",
                borderTop: "6px solid",
                borderTopColor: "error.main",
              }}
            />
          </Box>
          <Box
            sx={{
              position: "absolute",
              left: `${Math.min(0.94, Math.max(0.05, where)) * 100}%`,
              transform: "translateX(-50%)",
              top: 19,
              fontSize: 11.5,
              fontWeight: 700,
              color: "error.main",
              whiteSpace: "nowrap",
            }}
          >
            {sayDay(today)}
          </Box>
        </>
      )}
    </Box>
  );
}
