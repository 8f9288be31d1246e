import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { sayDay, sayMoment } from "../../parts/words";
import { useGoOn } from "../../parts/typed";
import { later } from "../../parts/later";
import "./feed.css";

const FeedForm = later(() => import("./FeedForm"), "FeedForm");

/** The roster feed: when it runs, what it last did, and how it is set up. */
export function FeedLine() {
  const feed = useQuery({ queryKey: ["feed"], queryFn: () => take(api.GET("/api/feed")) });
  const [setting, setSetting] = useState(false);
  const go = useGoOn();
  const run = useAct(
    (_: void, headers) => take(api.POST("/api/feed/run", { headers })),
    (out) => {
      if (out.delivery != null) go(`/enroll/deliveries/${out.delivery}`);
    },
  );
  const f = feed.data?.feed;
  if (!feed.data) return null;
  return (
    <section aria-label="Roster feed" className="feed-line">
      <div className="feed-says">
        <Typography variant="h3" component="h2">
          Roster feed
        </Typography>
        {f ? (
          <>
            <StateMark mark={f.quiet ? "notYet" : "done"}>
              {f.nextOn && !f.quiet
                ? `runs next on ${sayDay(f.nextOn)} at ${f.hour}:00`
                : `quiet: ${f.quiet ?? ""}`}
            </StateMark>
            {f.lastAt && (
              <Typography variant="body2">
                <StateMark mark={f.lastOk ? "done" : "blocked"}>
                  {f.lastOk ? "last run" : "last run failed"}
                </StateMark>{" "}
                {sayMoment(f.lastAt)}: {f.lastResult}
              </Typography>
            )}
          </>
        ) : (
          <Typography variant="body2">
            The school’s records can send rosters by themselves, once a day, inside the dates you set.
          </Typography>
        )}
      </div>
      <Button variant="outlined" onClick={() => setSetting(true)}>
        {f ? "Dates and address…" : "Set up the feed…"}
      </Button>
      {f && (
        <Button variant="outlined" disabled={run.isPending} onClick={() => run.mutate()}>
          {run.isPending ? "Asking the records …" : "Run it now"}
        </Button>
      )}
      <Problem error={feed.error ?? run.error} />
      {setting && (
        <FeedForm feed={f ?? undefined} offer={feed.data.offer} onClose={() => setSetting(false)} />
      )}
    </section>
  );
}
