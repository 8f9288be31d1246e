import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { api, take } from "../../api/client";
import { useRun } from "../../api/useRun";
import { Problem } from "../../parts/Problem";
import { sayMoment } from "../../parts/words";
import { RunAway } from "../../parts/RunAway";
import { StepList } from "./StepList";

/** A closing run, live: what is done, what is at work, and why something failed. */
export function RunProgress({ classId, runId }: { classId: number; runId: number }) {
  const path = { params: { path: { classId, runId } } };
  const run = useRun({
    key: ["run", classId, runId],
    read: () => take(api.GET("/api/classes/{classId}/runs/{runId}", path)),
    stateOf: (v) => v.state,
    events: `/api/classes/${classId}/runs/${runId}/events`,
    then: ["head", "closing", "board", "loft"],
  });
  const mine = run.data?.classes.find((k) => k.id === classId);
  return (
    <Box component="section" aria-label="Closing run" sx={{ maxWidth: 720 }}>
      {run.away ? <RunAway /> : <Problem error={run.error} />}
      {run.data && mine && (
        <>
          <Typography variant="h2">
            {mine.state === "Done"
              ? mine.restored
                ? "Closed once, and restored since"
                : "Closed and verified"
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
