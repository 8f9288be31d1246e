import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useEffect, useState, type ReactNode } from "react";
import { createPortal } from "react-dom";
import type { Schemas } from "../../api/client";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, dayOf, sayDate } from "../../parts/words";

const short = (iso: string) => dayOf(iso).toLocaleDateString(undefined, { day: "numeric", month: "short" });
const weekSaid = (w: Schemas["WeekLabel"] | null) =>
  w ? `week ${w.number}${w.letter ?? ""}, ${short(w.first)} – ${short(w.last)}` : "no school";

/** What the calendar gives and what the change does: weeks, folders, dates. */
export function YearEffects({
  preview,
  error,
  changed,
}: {
  preview?: Schemas["YearPreview"];
  error: unknown;
  changed: boolean;
}) {
  const [place, setPlace] = useState<HTMLElement | null>(null);
  useEffect(() => setPlace(document.getElementById("year-effects")), []);
  if (!place) return null;
  const e = preview?.effects;
  return createPortal(
    <>
      <Problem error={error} />
      {preview && preview.refusals.length > 0 && (
        <Typography>
          <StateMark mark="blocked" strong>
            This can&rsquo;t be saved yet.
          </StateMark>{" "}
          {preview.refusals[0]!.what}
        </Typography>
      )}
      {e && (
        <>
          <Typography variant="h2" sx={{ mb: 1 }}>
            {changed ? "What this calendar will give" : "What this calendar gives"}
          </Typography>
          <Box sx={{ display: "flex", gap: 3.5, borderBottom: 1, borderColor: "divider", pb: 1, mb: 1.5 }}>
            <Figure now={e.weeksAfter} before={changed ? e.weeksBefore : e.weeksAfter} what="school weeks" />
            <Figure
              now={e.schoolDaysAfter}
              before={changed ? e.schoolDaysBefore : e.schoolDaysAfter}
              what="school days"
            />
            {changed && (
              <Figure
                now={e.stranded.length}
                before={e.stranded.length}
                what="due dates without school"
                warn={e.stranded.length > 0}
              />
            )}
          </Box>
          <Weeks weeks={preview.weeks} />
          {changed && <Changes preview={preview} effects={e} />}
        </>
      )}
    </>,
    place,
  );
}

function Figure({ now, before, what, warn }: { now: number; before: number; what: string; warn?: boolean }) {
  return (
    <Box>
      <Typography variant="h2" component="div" sx={{ color: warn ? "warning.main" : "text.primary" }}>
        {now}
        {before !== now && before > 0 && (
          <Typography component="span" variant="body2" sx={{ color: "text.secondary", ml: 0.75 }}>
            was {before}
          </Typography>
        )}
      </Typography>
      <Typography variant="caption" sx={{ color: "text.secondary" }}>
        {what}
      </Typography>
    </Box>
  );
}

function Weeks({ weeks }: { weeks: Schemas["StripWeek"][] }) {
  return (
    <Box
      component="ol"
      aria-label="Weeks of the year"
      sx={{
        listStyle: "none",
        p: 0,
        m: 0,
        display: "grid",
        gridTemplateColumns: "repeat(auto-fill, minmax(62px, 1fr))",
        gap: "3px",
      }}
    >
      {weeks.map((w) => (
        <Box
          component="li"
          key={w.starts}
          title={w.number ? `${count(w.schoolDays, "school day", "school days")}` : "no school"}
          sx={{
            border: 1,
            borderColor: "divider",
            borderStyle: w.number ? "solid" : "dotted",
            px: 0.75,
            py: 0.25,
            minHeight: 40,
            bgcolor: w.number ? "action.hover" : "transparent",
          }}
        >
          <Box
            sx={{ fontWeight: 650, fontSize: "0.85rem", color: w.number ? "text.primary" : "text.secondary" }}
          >
            {w.number ? `${w.number}${w.letter ?? ""}` : "–"}
            {w.number != null && w.schoolDays < 5 && (
              <Box
                component="span"
                sx={{ fontWeight: 400, color: "warning.main", fontSize: "0.72rem", ml: 0.5 }}
              >
                {w.schoolDays} d
              </Box>
            )}
          </Box>
          <Box sx={{ fontSize: "0.72rem", color: "text.secondary", whiteSpace: "nowrap" }}>
            {short(w.starts)}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

function Changes({
  preview,
  effects: e,
}: {
  preview: Schemas["YearPreview"];
  effects: Schemas["CalendarEffects"];
}) {
  const nothing =
    e.weeks.length === 0 && e.stranded.length === 0 && preview.folders.length === 0 && preview.feeds === 0;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h2">What changes</Typography>
      {nothing && <Typography sx={{ color: "text.secondary" }}>No week, no date and no folder.</Typography>}
      {preview.folders.length > 0 && (
        <Part title="Folders">
          {preview.folders.map((f) => (
            <Typography key={f.plan} variant="body2">
              <strong>{f.plan}</strong>, {count(f.classes, "class", "classes")}:{" "}
              {[
                f.adds > 0 && `${f.adds} unfold by themselves when you save`,
                f.renames > 0 && `${f.renames} with another date or number in the name`,
                f.stay > 0 && `${f.stay} for weeks that are gone, which stay`,
              ]
                .filter(Boolean)
                .join("; ")}
              .{f.renames > 0 && " Put the plan again to bring the names up to date."}
            </Typography>
          ))}
        </Part>
      )}
      {preview.feeds > 0 && (
        <Part title="Class calendars">
          <Typography variant="body2">
            {count(preview.feeds, "calendar shows", "calendars show")} other days to those who subscribe, at
            their next look.
          </Typography>
        </Part>
      )}
      {e.stranded.length > 0 && (
        <Part title="Due on a day without school">
          {e.stranded.slice(0, 12).map((s, i) => (
            <Typography key={i} variant="body2">
              <StateMark mark="attention">
                {s.what}, {sayDate(s.on)}: {s.why}
              </StateMark>
            </Typography>
          ))}
          {e.stranded.length > 12 && (
            <Typography variant="body2">and {e.stranded.length - 12} more</Typography>
          )}
        </Part>
      )}
      {e.weeks.length > 0 && e.weeksBefore > 0 && (
        <PlainTable
          label="Weeks that change"
          rows={e.weeks.slice(0, 15)}
          id={(w) => w.starts}
          space={{ mt: 1 }}
          columns={[
            { head: "Calendar week from", cell: (w) => sayDate(w.starts) },
            { head: "Was", cell: (w) => weekSaid(w.was) },
            { head: "Will be", cell: (w) => weekSaid(w.will) },
          ]}
        />
      )}
      {e.weeks.length > 15 && e.weeksBefore > 0 && (
        <Typography variant="body2">and {e.weeks.length - 15} more weeks</Typography>
      )}
    </Box>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box sx={{ mt: 1 }}>
      <Typography variant="h3">{title}</Typography>
      {children}
    </Box>
  );
}
