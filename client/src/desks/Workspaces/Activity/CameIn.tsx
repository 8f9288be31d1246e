import Typography from "@mui/material/Typography";
import type { Schemas } from "../../../api/client";
import { dayOf, sayDay } from "../../../parts/words";

const day = (iso: string) => dayOf(iso).getTime() / 86_400_000;

/** When the pieces of an assignment came in, against the day on which they were due. */
export function CameIn({ assignment: a }: { assignment: Schemas["ActivityAssignment"] }) {
  const due = day(a.dueOn);
  const from = Math.min(due - 3, ...a.came.map((c) => day(c.day)));
  const to = Math.max(due + 3, ...a.came.map((c) => day(c.day)));
  const at = (d: number) => 4 + (92 * (d - from)) / (to - from);
  const high = new Map<number, number>();
  return (
    <section className="came-in">
      <Typography variant="h3">{a.title}</Typography>
      <Typography variant="body2" sx={{ color: "text.secondary" }}>
        when it came in, against {sayDay(a.dueOn)}
      </Typography>
      {a.came.length > 0 && (
        <svg aria-hidden="true" height="64">
          <line x1={`${at(due + 0.5)}%`} x2={`${at(due + 0.5)}%`} y1="0" y2="58" className="due" />
          {a.came.map((c, n) => {
            const d = day(c.day);
            const up = high.get(d) ?? 0;
            high.set(d, up + 1);
            // Where many came on one day they stand in further columns beside the first.
            return (
              <circle
                key={n}
                cx={`${at(d) + 1.6 * Math.floor(up / 9)}%`}
                cy={54 - 6 * (up % 9)}
                r="2.6"
                className={c.lateMinutes == null ? "" : "late"}
              />
            );
          })}
          <line x1="0" x2="100%" y1="58" y2="58" className="ground" />
        </svg>
      )}
      <Typography variant="body2">
        {a.inTime} in time, {a.late} late, {a.notYet} not yet
      </Typography>
    </section>
  );
}
