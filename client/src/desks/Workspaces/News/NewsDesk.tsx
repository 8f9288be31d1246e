import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../../api/client";
import { CourseMark } from "../../../parts/CourseMark";
import { DayPart } from "../../../parts/DayPart";
import { Desk, Empty } from "../../../parts/Desk";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { count, sayMoment } from "../../../parts/words";
import { NewsWish } from "./NewsWish";
import { dayOfMoment, newestOf, tell } from "./telling";

const sayDay = (at: string) =>
  new Date(at).toLocaleDateString(undefined, { weekday: "long", day: "numeric", month: "long" });

/** What concerns one, by day, the newest first; what is new since the last look says so. */
export function NewsDesk() {
  const news = useQuery({
    queryKey: ["news"],
    queryFn: () => take(api.GET("/api/news")),
    // What was new when the list was opened stays marked while one reads it.
    staleTime: Infinity,
  });
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const v = news.data;
  const upTo = v && newestOf(v.lines);
  useEffect(() => {
    if (upTo === undefined) return;
    api
      .POST("/api/news/seen", { body: { upTo } })
      .then(() => queries.invalidateQueries({ queryKey: ["news-count"] }))
      // Where it does not get there, what is new stays new.
      .catch(() => undefined);
  }, [upTo, queries]);
  // Gone from here, the list is read anew when one comes back.
  useEffect(() => () => queries.removeQueries({ queryKey: ["news"] }), [queries]);
  const days = [...new Set(v?.lines.map((l) => dayOfMoment(l.at)))];
  const fresh = v?.lines.filter((l) => l.new).length ?? 0;
  return (
    <Desk
      title="News"
      lead={
        v &&
        v.lines.length > 0 &&
        (fresh > 0 ? `${count(fresh, "thing is", "things are")} new.` : "Nothing new.")
      }
      slip={
        v && (
          <>
            <Typography variant="h2">What you are told</Typography>
            <Typography>
              {v.quiet.length === 0
                ? `Everything of the last ${v.days} days that concerns you.`
                : `Of the last ${v.days} days, but for ${count(v.quiet.length, "kind", "kinds")} that you left out.`}{" "}
              {v.letter && `It comes to ${v.email} too, at most once a day.`}
            </Typography>
            <Button variant="outlined" onClick={() => setAsking(true)}>
              Choose what…
            </Button>
          </>
        )
      }
    >
      <Problem error={news.error} />
      {v?.lines.length === 0 && (
        <Empty title="No news.">What concerns you in the last {v.days} days would stand here.</Empty>
      )}
      {days.map((day) => {
        const lines = v!.lines.filter((l) => dayOfMoment(l.at) === day);
        return (
          <DayPart key={day} name={sayDay(lines[0]!.at)} figure={lines.length}>
            {lines.map((l, i) => (
              <OneLine key={i} line={l} />
            ))}
          </DayPart>
        );
      })}
      {v?.more && <Typography>Older ones are not listed here.</Typography>}
      {asking && v && <NewsWish view={v} onClose={() => setAsking(false)} />}
    </Desk>
  );
}

function OneLine({ line: l }: { line: Schemas["NewsLine"] }) {
  const { about, said } = tell(l);
  return (
    <li>
      {l.mark ? <CourseMark mark={l.mark} /> : <span />}
      <div>
        <Link component={RouterLink} to={l.path} className="alone">
          {about}
        </Link>
        <span>{[l.course, said].filter(Boolean).join(", ")}</span>
      </div>
      {l.new ? (
        <StateMark mark="attention">new, {sayMoment(l.at)}</StateMark>
      ) : (
        <span className="quiet">{sayMoment(l.at)}</span>
      )}
    </li>
  );
}
