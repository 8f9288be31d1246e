import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { sayDue } from "../../parts/due";
import { StateMark } from "../../parts/StateMark";
import { TickTable } from "../../parts/table/TickTable";
import { count, sayDate } from "../../parts/words";
import "./drafts.css";

type Line = Schemas["DraftLine"];

/** Publishes drafts of many classes in one act: ticked by school week, at once or each when its week begins. */
export function PublishByWeek(props: { classes: number[]; onClose: () => void }) {
  const drafts = useQuery({
    queryKey: ["drafts-of", props.classes],
    gcTime: 0,
    queryFn: () => take(api.POST("/api/drafts", { body: { classes: props.classes } })),
  });
  const rows = drafts.data ?? [];
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [byWeek, setByWeek] = useState(true);
  const [done, setDone] = useState<Schemas["PublishedMany"] | null>(null);
  const picked = rows.filter((r) => ticked.has(r.assignment));
  const act = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/drafts/publishing", {
          body: { drafts: picked.map((r) => ({ class: r.class, assignment: r.assignment })), byWeek },
          headers,
        }),
      ),
    setDone,
  );
  if (done) return <Published done={done} onClose={props.onClose} />;
  const weeks = weeksOf(rows);
  const full = (w: number | null) =>
    rows.filter((r) => (r.week ?? null) === w && !r.unseen).every((r) => ticked.has(r.assignment));
  const toggle = (w: number | null) => {
    const of = rows.filter((r) => (r.week ?? null) === w && !r.unseen).map((r) => r.assignment);
    setTicked(full(w) ? new Set([...ticked].filter((id) => !of.includes(id))) : new Set([...ticked, ...of]));
  };
  return (
    <Ask
      open
      wide
      title="Publish drafts by school week"
      act={
        byWeek
          ? `Publish ${count(picked.length, "assignment", "assignments")} by week`
          : `Publish ${count(picked.length, "assignment", "assignments")} now`
      }
      disabled={picked.length === 0}
      busy={act.isPending}
      error={act.error ?? drafts.error}
      onAct={() => act.mutate()}
      onClose={props.onClose}
    >
      {drafts.data && rows.length === 0 && (
        <Typography>There is no draft in the ticked classes that is yours to publish.</Typography>
      )}
      {rows.length > 0 && (
        <>
          <Typography>
            {count(rows.length, "draft", "drafts")} in{" "}
            {count(new Set(rows.map((r) => r.class)).size, "class", "classes")}. Tick the school weeks in
            which they are due, or single ones below.
          </Typography>
          <ToggleButtonGroup size="small" aria-label="School weeks" className="draft-weeks">
            {weeks.map((w) => (
              <ToggleButton
                key={w ?? "none"}
                value={w ?? "none"}
                selected={full(w)}
                onClick={() => toggle(w)}
                aria-label={w === null ? "In no school week" : `School week ${w}`}
              >
                {w === null ? "no week" : w}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <RadioGroup
            aria-label="When"
            value={byWeek ? "week" : "now"}
            onChange={(_, v) => setByWeek(v === "week")}
          >
            <FormControlLabel
              value="week"
              control={<Radio size="small" />}
              label="Each when its school week begins; at once where that has begun, or where it is due in none"
            />
            <FormControlLabel value="now" control={<Radio size="small" />} label="All at once, now" />
          </RadioGroup>
          <TickTable
            label="Drafts"
            rows={rows}
            id={(r) => r.assignment}
            ticks={{
              ticked,
              set: setTicked,
              may: (r) => !r.unseen,
              all: "Tick all drafts",
              label: (r) => `Tick ${r.title} of ${r.className}`,
            }}
            columns={[
              {
                head: "Assignment",
                main: true,
                by: (r) => r.title,
                cell: (r) => (
                  <>
                    <strong>{r.title}</strong>
                    {r.unseen && (
                      <StateMark mark="attention" wrap>
                        none of its students could find it: it stays a draft
                      </StateMark>
                    )}
                  </>
                ),
              },
              { head: "Class", by: (r) => r.className, cell: (r) => r.className },
              {
                head: "School week",
                align: "right",
                by: (r) => r.week ?? 1000,
                cell: (r) => r.week ?? "–",
              },
              { head: "Due", by: (r) => r.dueOn, cell: (r) => sayDue(r).replace(/^due /, "") || "no date" },
              {
                head: "Comes out",
                by: (r) => r.publishAt,
                cell: (r) => (r.publishAt ? `set for ${sayDate(r.publishAt)}` : "when published"),
              },
            ]}
          />
        </>
      )}
    </Ask>
  );
}

/** The school weeks of drafts, in order; null for what is due in none. */
export function weeksOf(rows: readonly Pick<Line, "week">[]): (number | null)[] {
  const weeks = [...new Set(rows.map((r) => r.week ?? null))];
  return weeks.sort((a, b) => (a ?? Infinity) - (b ?? Infinity));
}

function Published({ done, onClose }: { done: Schemas["PublishedMany"]; onClose: () => void }) {
  return (
    <Ask open looks title="Drafts published" act="Done" onAct={onClose} onClose={onClose}>
      <Typography role="status">
        {count(done.published, "assignment is", "assignments are")} published
        {done.set > 0 && `, ${count(done.set, "comes", "come")} out when the school week begins`}.
      </Typography>
      {done.unseen.length > 0 && (
        <Typography>
          Still drafts, since none of their students could find them: {done.unseen.join(", ")}.
        </Typography>
      )}
    </Ask>
  );
}
