import Link from "@mui/material/Link";
import { useEffect, useRef } from "react";
import { Link as RouterLink } from "react-router";
import { api, type Schemas } from "../../api/client";
import { CourseMark } from "../../parts/CourseMark";
import { DayPart } from "../../parts/DayPart";
import { sayTime } from "../../parts/due";
import { later } from "../../parts/later";
import { plainWords } from "../../parts/plainWords";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { sayDay, sayMark } from "../../parts/words";

const heads: [Schemas["When"], string][] = [
  ["Late", "Late"],
  ["Today", "Today"],
  ["ThisWeek", "This week"],
  ["Later", "Later"],
  ["NoDate", "No date"],
];

const NoticeFiles = later(() => import("../../parts/NoticeFiles"), "NoticeFiles");

/** A student's day over all classes: what is late, what is due, what came back. */
export function TodayList({ today: t, error }: { today?: Schemas["TodayView"]; error: unknown }) {
  // What was shown is not new at the next visit.
  const told = useRef(false);
  useEffect(() => {
    if (!t || told.current) return;
    told.current = true;
    // Where it does not get there, what is new stays new.
    api.POST("/api/today/seen").catch(() => undefined);
  }, [t]);
  if (!t) return <Problem error={error} />;
  const back = [...t.back].sort((a, b) => Number(b.isNew) - Number(a.isNew));
  return (
    <>
      {t.pieces.length === 0 && <p className="day-none">Nothing waits for you to hand in.</p>}
      {t.asked.length > 0 && (
        <DayPart name="To acknowledge" figure={t.asked.length}>
          {t.asked.map((a) => (
            <li key={a.asking}>
              <CourseMark mark={a.mark} />
              <div>
                <Link component={RouterLink} to={`/classes/${a.class}`} className="alone">
                  {a.title}
                </Link>
                <span>
                  {a.course}
                  {!a.own && ", at home"}
                  {a.reminded && ", asked again"}
                </span>
              </div>
              {a.until && <StateMark mark={a.late ? "blocked" : "attention"}>by {sayDay(a.until)}</StateMark>}
            </li>
          ))}
        </DayPart>
      )}
      {heads.map(([when, name]) => {
        const pieces = t.pieces.filter((p) => p.when === when);
        return (
          pieces.length > 0 && (
            <DayPart key={when} name={name} figure={pieces.length}>
              {pieces.map((p) => (
                <li key={`${p.class}-${p.assignment}`}>
                  <CourseMark mark={p.mark} />
                  <div>
                    <Link
                      component={RouterLink}
                      to={`/classes/${p.class}?folder=${p.folder}`}
                      className="alone"
                    >
                      {p.title}
                    </Link>
                    <span>
                      {p.course}
                      {p.cameBack ? ", came back to be worked on" : p.begun ? ", begun" : ""}
                    </span>
                  </div>
                  <Due piece={p} />
                </li>
              ))}
            </DayPart>
          )
        );
      })}
      {(back.length > 0 || t.notices.length > 0) && (
        <DayPart name="Came back, and told" figure={back.length + t.notices.length}>
          {back.map((b) => (
            <li key={`${b.class}-${b.assignment}`}>
              <CourseMark mark={b.mark} />
              <div>
                <Link component={RouterLink} to={`/classes/${b.class}?folder=${b.folder}`} className="alone">
                  {b.title}
                </Link>
                <span>
                  {b.course}
                  {b.said && `: “${b.said.length > 90 ? `${b.said.slice(0, 90)}…` : b.said}”`}
                </span>
              </div>
              <StateMark mark={b.isNew ? "done" : "none"} strong={b.isNew}>
                {b.score != null ? sayMark(b.score, b.points, null, b.level) : "returned"}
                {b.isNew && ", new"}
              </StateMark>
            </li>
          ))}
          {t.notices.map((n) => (
            <li key={n.id}>
              {n.mark ? <CourseMark mark={n.mark} /> : <span />}
              <div>
                {n.class == null ? (
                  <strong>{plainWords(n.text)}</strong>
                ) : (
                  <Link component={RouterLink} to={`/classes/${n.class}`} className="alone">
                    {short(n.text)}
                  </Link>
                )}
                {n.files.length > 0 && <NoticeFiles notice={n.id} files={n.files} />}
                <span>{n.course ?? `the whole school, ${n.author}`}</span>
              </div>
              <span className="quiet">
                notice{n.pinned && ", on top"}
                {n.isNew && ", new"}
              </span>
            </li>
          ))}
        </DayPart>
      )}
    </>
  );
}

function short(text: string) {
  const words = plainWords(text);
  return words.length > 110 ? `${words.slice(0, 110)}…` : words;
}

function Due({ piece: p }: { piece: Schemas["TodayPiece"] }) {
  switch (p.when) {
    case "Late":
      return (
        <StateMark mark="blocked" strong wrap>
          since {sayDay(p.dueOn!)}
          {p.lateUntil && `, taken to ${sayDay(p.lateUntil)}`}
        </StateMark>
      );
    case "Today":
      return <StateMark mark="attention">{p.dueTime ? `by ${sayTime(p.dueTime)}` : "today"}</StateMark>;
    case "NoDate":
      return null;
    default:
      return (
        <span className="quiet">
          {sayDay(p.dueOn!)}
          {p.dueTime && `, ${sayTime(p.dueTime)}`}
        </span>
      );
  }
}
