import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, take, type Schemas } from "../../api/client";
import { Problem } from "../../parts/Problem";
import { sayMoment } from "../../parts/words";
import { StepList } from "./StepList";

/** A closing run, live: what is done, what is at work, and why something failed. */
export function RunProgress({ classId, runId }: { classId: number; runId: number }) {
  const queries = useQueryClient();
  const key = ["run", classId, runId];
  const run = useQuery({
    queryKey: key,
    queryFn: () =>
      take(api.GET("/api/classes/{classId}/runs/{runId}", { params: { path: { classId, runId } } })),
  });
  const going = run.data?.state === "Working";
  useEffect(() => {
    if (!going) return;
    const events = new EventSource(`/api/classes/${classId}/runs/${runId}/events`);
    events.onmessage = (e) => {
      const view = JSON.parse(e.data as string) as Schemas["RunView"];
      queries.setQueryData(["run", classId, runId], view);
      if (view.state !== "Working") events.close();
    };
    return () => events.close();
  }, [going, classId, runId, queries]);
  // A quick run may be over before it is first looked at: what the desk says beside it is read anew either way.
  const over = run.data !== undefined && !going;
  useEffect(() => {
    if (!over) return;
    for (const part of ["head", "closing", "board", "loft"])
      void queries.invalidateQueries({ queryKey: [part] });
  }, [over, queries]);
  const mine = run.data?.classes.find((k) => k.id === classId);
  return (
    <Box component="section" aria-label="Closing run" sx={{ maxWidth: 720 }}>
      <Problem error={run.error} />
      {run.data && mine && (
        <>
          <Typography variant="h2">
            {mine.state === "Done"
              ? "Closed and verified"
              : mine.state === "Failed"
                ? "The last run failed"
                : "Closing run"}
          </Typography>
          <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
            begun {sayMoment(run.data.startedAt)}
          </Typography>
          <StepList steps={mine.steps} />
          {mine.reason && <Typography sx={{ mt: 1, color: "error.main" }}>{mine.reason}</Typography>}
        </>
      )}
    </Box>
  );
}
