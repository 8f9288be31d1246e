import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";
import "./gate.css";

/** The new year has begun: what was done then, and what is to do now. */
export function GateBegun({ gate: g }: { gate: Schemas["GateView"] }) {
  const grades = g.did?.grades ?? [];
  return (
    <section aria-label={`Since ${g.newLabel} began`} className="gate-part">
      <Typography variant="h2">What was done</Typography>
      <Typography>
        {g.newLabel} began {g.begunAt != null && sayMoment(g.begunAt)}
        {g.did &&
          `, by ${g.did.by}: ${count(g.did.verified, "class", "classes")} of ${g.oldLabel} verified, ${g.did.signedOff} signed off`}
        .
      </Typography>
      {g.did && grades.length === 0 && <Typography>No grade was changed.</Typography>}
      {grades.length > 0 && (
        <PlainTable
          label="What became of the grades"
          rows={grades}
          id={(s) => s.from}
          columns={[
            { head: "Grade before", cell: (s) => s.from },
            { head: "Grade since", cell: (s) => s.to ?? <StateMark mark="none">left</StateMark> },
            { head: "Students", cell: (s) => s.students, align: "right", look: "line" },
          ]}
        />
      )}
      <Typography variant="h2" className="gate-next">
        What is to do now
      </Typography>
      <ul className="gate-list">
        <li>
          <StateMark mark={g.feedSet ? "done" : "attention"} wrap>
            {g.feedSet
              ? `The roster feed brings ${g.newLabel}.`
              : `The roster feed does not bring ${g.newLabel} yet; its form offers the year with its days.`}
          </StateMark>{" "}
          <Link component={RouterLink} to="/enroll">
            To the feed
          </Link>
        </li>
        <li>
          <StateMark mark={g.nextClasses === 0 ? "attention" : g.nextClosed > 0 ? "notYet" : "done"} wrap>
            {g.nextClasses === 0
              ? `No class of ${g.newLabel} is made yet.`
              : g.nextClosed > 0
                ? `${g.nextClosed} of ${count(g.nextClasses, "class", "classes")} of ${g.newLabel} are in preparation: students do not see them.`
                : `${count(g.nextClasses, "class", "classes")} of ${g.newLabel} are open.`}
          </StateMark>{" "}
          <Link component={RouterLink} to={`/?year=${g.new}`}>
            To the year board
          </Link>
        </li>
        <li>
          <StateMark mark={g.missing.length > 0 ? "attention" : "done"} wrap>
            {g.missing.length > 0
              ? `${count(g.missing.length, "class", "classes")} of ${g.oldLabel} came open again since: restored, or its sign-off was taken back.`
              : g.exceptions.length > 0
                ? `${count(g.exceptions.length, "class", "classes")} of ${g.oldLabel} stand signed off, not closed.`
                : `Every class of ${g.oldLabel} is in the loft.`}
          </StateMark>
        </li>
        <li>
          <StateMark mark={g.entrants > 0 ? "attention" : "done"} wrap>
            {count(g.entrants, "active student was", "active students were")} in no class of {g.oldLabel}: new
            entrants, or left out.
          </StateMark>
        </li>
      </ul>
    </section>
  );
}
