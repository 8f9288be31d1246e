import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { Gauge, StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";
import { ClosePlaces } from "./ClosePlaces";
import { GateBegun } from "./GateBegun";
import { GateMissing } from "./GateMissing";
import "./gate.css";

/** The gate between two school years: what is missing before the new one may begin, and what beginning does. */
export function GateDesk({ me }: { me: Schemas["Me"] }) {
  const gate = useQuery({ queryKey: ["gate"], queryFn: () => take(api.GET("/api/gate")) });
  const [asking, setAsking] = useState(false);
  const [goUp, setGoUp] = useState(true);
  const [leave, setLeave] = useState(true);
  const g = gate.data;
  const begin = useAct(
    (old: number, headers) =>
      take(api.POST("/api/gate/beginning", { body: { old, goUp, leaversLeave: leave }, headers })),
    () => setAsking(false),
  );
  const up = g?.grades.filter((s) => s.to != null) ?? [];
  const leavers = g?.grades.flatMap((s) => s.leavers) ?? [];
  return (
    <Desk
      title="The gate"
      wide
      lead={
        g && (
          <>
            <strong>{g.verified}</strong> of {count(g.classes, "class", "classes")} of {g.oldLabel} verified,{" "}
            <strong>{g.signedOff}</strong> signed off, <strong>{g.missing.length}</strong> missing.
          </>
        )
      }
      slip={
        g && (
          <>
            <Typography variant="h2">
              {g.begunAt != null
                ? `${g.newLabel} has begun`
                : g.open
                  ? `${g.newLabel} may begin`
                  : "The gate is shut"}
            </Typography>
            <Gauge done={g.verified + g.signedOff} of={g.classes} mark={g.open ? "done" : "blocked"} />
            {g.begunAt != null ? (
              <>
                <Typography>
                  Begun {sayMoment(g.begunAt)}.{" "}
                  {g.feedSet ? "The roster feed brings it." : "The roster feed may be given its new dates."}
                </Typography>
                {!g.feedSet && (
                  <Button variant="contained" component={RouterLink} to="/enroll">
                    Set the roster feed…
                  </Button>
                )}
              </>
            ) : (
              <>
                <Typography>
                  {g.newLabel == null
                    ? "No calendar is laid down for the next school year yet."
                    : "The new year begins when every class of the old one is verified, or signed off by name with a reason. Until then the feed stays quiet: between years it would deliver empty classes."}
                </Typography>
                <Button variant="contained" disabled={!g.open} onClick={() => setAsking(true)}>
                  Begin {g.newLabel ?? "the new year"}…
                </Button>
              </>
            )}
          </>
        )
      }
    >
      <ClosePlaces me={me} />
      <Problem error={gate.error} />
      {g?.begunAt != null && <GateBegun gate={g} />}
      {g && g.missing.length === 0 && (
        <Typography>
          <StateMark mark="done">Nothing is missing of {g.oldLabel}.</StateMark>
        </Typography>
      )}
      {g && <GateMissing missing={g.missing} exceptions={g.exceptions} />}
      {g && g.begunAt == null && (
        <section aria-label="What beginning does" className="gate-part">
          <Typography variant="h2">When {g.newLabel ?? "the new year"} begins</Typography>
          {g.grades.length > 0 && (
            <PlainTable
              label="Grades"
              rows={g.grades}
              id={(s) => s.from}
              columns={[
                { head: "Grade now", cell: (s) => s.from },
                {
                  head: "Grade then",
                  cell: (s) =>
                    s.to ?? (
                      <>
                        <StateMark mark="none">leave</StateMark>{" "}
                        <Typography variant="caption" component="span" className="gate-soft">
                          {s.leavers.slice(0, 3).join("; ")}
                          {s.leavers.length > 3 && ` and ${s.leavers.length - 3} more`}
                        </Typography>
                      </>
                    ),
                },
                { head: "Students", cell: (s) => s.students, align: "right", look: "line" },
              ]}
            />
          )}
          <Typography variant="body2" className="gate-soft">
            {count(g.entrants, "active student is", "active students are")} in no class of {g.oldLabel}: new
            entrants, or left out. {count(g.nextClasses, "class stands", "classes stand")} ready for{" "}
            {g.newLabel ?? "the next year"}.
          </Typography>
        </section>
      )}
      <Ask
        open={asking}
        title={`Begin ${g?.newLabel}?`}
        act={`Begin ${g?.newLabel}`}
        busy={begin.isPending}
        error={begin.error}
        onAct={() => g && begin.mutate(g.old)}
        onClose={() => setAsking(false)}
      >
        <Typography>
          {g?.verified} classes are verified, {g?.signedOff} signed off. This can&rsquo;t be undone in one
          step; grades can be changed by hand or by the next delivery.
        </Typography>
        <FormControlLabel
          control={<Checkbox checked={goUp} onChange={(e) => setGoUp(e.target.checked)} />}
          label={`${up.reduce((n, s) => n + s.students, 0)} students go up a grade`}
        />
        <br />
        <FormControlLabel
          control={
            <Checkbox checked={leave && goUp} disabled={!goUp} onChange={(e) => setLeave(e.target.checked)} />
          }
          label={`${leavers.length} students of the highest grade become inactive; their take-homes stay`}
        />
      </Ask>
    </Desk>
  );
}
