import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import { Link as RouterLink } from "react-router";
import { sayDue } from "../../parts/due";
import { Desk, Empty } from "../../parts/Desk";
import { CourseMark } from "../../parts/CourseMark";
import { NoticeFiles } from "../../parts/NoticeFiles";
import { plainWords } from "../../parts/plainWords";
import { Problem } from "../../parts/Problem";
import { PlainTable } from "../../parts/table/PlainTable";
import { StateMark } from "../../parts/StateMark";
import { count, sayDay, sayMoment } from "../../parts/words";
import { LeadOffers } from "../Rosters/LeadOffers";
import { sayWeek, sayWholeDay, useToday } from "./today";

/** A teacher's day: what waits to be marked over all classes, what has waited longest first, each straight to its marking desk. */
export function TeacherToday() {
  const today = useToday();
  const t = today.data;
  const waiting = t?.waiting.reduce((n, w) => n + w.waiting, 0) ?? 0;
  const drafts = t?.waiting.reduce((n, w) => n + w.drafts, 0) ?? 0;
  return (
    <Desk
      title={t ? sayWholeDay(t.day) : "Today"}
      lead={
        t && (
          <>
            {sayWeek(t)}
            {t.waiting.length > 0 && (
              <>
                {" "}
                <strong>{count(waiting, "piece waits", "pieces wait")}</strong> to be marked, {drafts} with a
                draft mark to be returned.
              </>
            )}
          </>
        )
      }
    >
      <Problem error={today.error} />
      <LeadOffers />
      {t && (
        <Link component={RouterLink} to="/work/notices">
          Tell your classes something
        </Link>
      )}
      {t && t.notices.length > 0 && (
        <ul className="day-told">
          {t.notices.map((n) => (
            <li key={n.id}>
              <span>{plainWords(n.text)}</span>{" "}
              <span className="soft">
                {n.author}, {n.class == null ? "to the whole school" : n.course}, {sayMoment(n.postedAt)}
              </span>
              <NoticeFiles notice={n.id} files={n.files} />
            </li>
          ))}
        </ul>
      )}
      {t && t.waiting.length === 0 && (
        <Empty title="Nothing waits for you.">
          What your students hand in stands here until you return it.
        </Empty>
      )}
      {t && t.waiting.length > 0 && (
        <PlainTable
          label="What waits to be marked and returned"
          rows={t.waiting}
          id={(w) => w.assignment}
          columns={[
            { head: "Assignment", main: true, cell: (w) => <strong>{w.title}</strong> },
            {
              head: "Class",
              by: (w) => w.className,
              cell: (w) => (
                <>
                  <CourseMark mark={w.mark} /> {w.className}
                </>
              ),
            },
            { head: "To mark", align: "right", cell: (w) => w.waiting },
            { head: "Drafts", align: "right", cell: (w) => w.drafts },
            {
              head: "Waits since",
              by: (w) => w.oldest,
              says: "worth",
              cell: (w) => (w.oldest ? sayMoment(w.oldest) : ""),
            },
            {
              head: "",
              align: "right",
              cell: (w) => (
                <Button
                  variant="outlined"
                  component={RouterLink}
                  to={`/classes/${w.class}/marking?assignment=${w.assignment}`}
                  aria-label={`Mark ${w.title} of ${w.className}`}
                >
                  Mark
                </Button>
              ),
            },
          ]}
        />
      )}
      {t && t.questions.length > 0 && (
        <PlainTable
          label="Questions that wait for an answer"
          rows={t.questions}
          id={(q) => q.folder}
          space={{ mt: 4 }}
          columns={[
            {
              head: "Asked",
              main: true,
              look: "any",
              cell: (q) => (
                <>
                  <Link component={RouterLink} to={`/classes/${q.class}/set-up?folder=${q.folder}`}>
                    {short(plainWords(q.text))}
                  </Link>
                  <span className="day-by">
                    {q.by}
                    {q.waiting > 1 && `, and ${q.waiting - 1} more`} in {q.place}
                  </span>
                </>
              ),
            },
            {
              head: "Class",
              by: (q) => q.className,
              cell: (q) => (
                <>
                  <CourseMark mark={q.mark} /> {q.className}
                </>
              ),
            },
            { head: "Waits since", by: (q) => q.at, says: "worth", cell: (q) => sayMoment(q.at) },
          ]}
        />
      )}
      {t && t.asking.length > 0 && (
        <PlainTable
          label="Acknowledgements outstanding"
          rows={t.asking}
          id={(a) => `${a.class}-${a.asking}`}
          space={{ mt: 4 }}
          columns={[
            {
              head: "To be acknowledged",
              main: true,
              cell: (a) => (
                <Link component={RouterLink} to={`/classes/${a.class}/acknowledged?of=${a.asking}`}>
                  {a.title}
                </Link>
              ),
            },
            {
              head: "Class",
              by: (a) => a.className,
              cell: (a) => (
                <>
                  <CourseMark mark={a.mark} /> {a.className}
                </>
              ),
            },
            {
              head: "Until",
              by: (a) => a.until,
              cell: (a) =>
                a.until && (
                  <StateMark mark={a.late ? "blocked" : "none"}>
                    {sayDay(a.until)}
                    {a.late && ", late"}
                  </StateMark>
                ),
            },
            { head: "Outstanding", by: (a) => a.left, cell: (a) => `${a.left} of ${a.students}` },
          ]}
        />
      )}
      {t && t.quiet.length > 0 && (
        <PlainTable
          label="Who has gone quiet"
          rows={t.quiet}
          id={(q) => q.class}
          space={{ mt: 4 }}
          columns={[
            {
              head: "Gone quiet",
              main: true,
              look: "any",
              cell: (q) => (
                <Link component={RouterLink} to={`/classes/${q.class}/activity`}>
                  {q.students.slice(0, 4).join(", ")}
                  {q.students.length > 4 && ` and ${q.students.length - 4} more`}
                </Link>
              ),
            },
            {
              head: "Class",
              by: (q) => q.className,
              cell: (q) => (
                <>
                  <CourseMark mark={q.mark} /> {q.className}
                </>
              ),
            },
            {
              head: "How many",
              align: "right",
              by: (q) => q.students.length,
              cell: (q) => q.students.length,
            },
          ]}
        />
      )}
      {t && t.due.length > 0 && (
        <PlainTable
          label="Due this week in your classes"
          rows={t.due}
          id={(d) => d.assignment}
          space={{ mt: 4 }}
          columns={[
            {
              head: "Due this week",
              main: true,
              cell: (d) => (
                <Link component={RouterLink} to={`/classes/${d.class}/work?assignment=${d.assignment}`}>
                  {d.title}
                </Link>
              ),
            },
            {
              head: "Class",
              by: (d) => d.className,
              cell: (d) => (
                <>
                  <CourseMark mark={d.mark} /> {d.className}
                </>
              ),
            },
            {
              head: "Day",
              by: (d) => `${d.dueOn} ${d.dueTime ?? ""}`,
              cell: (d) => sayDue(d).replace(/^due /, ""),
            },
            { head: "Handed in", by: (d) => d.in, cell: (d) => `${d.in} of ${d.given}` },
          ]}
        />
      )}
    </Desk>
  );
}

const short = (words: string) => (words.length > 120 ? `${words.slice(0, 120)}…` : words);
