import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { useRun } from "../../api/useRun";
import { Desk, Empty } from "../../parts/Desk";
import { ChooseInList, FindInList, ListBar } from "../../parts/ListBar";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayBytes, sayMoment } from "../../parts/words";
import { useGoOn } from "../../parts/typed";
import { outcomeWords, stepMarks } from "./closingWords";
import { RunAway } from "../../parts/RunAway";
import { StepList } from "./StepList";

type Show = "all" | Schemas["StepState"];

/** A closing run: live while it is at work, and its report, which can be filtered, fetched and printed. */
export function ClosingRun() {
  const id = Number(useParams().id);
  const path = { params: { path: { runId: id } } };
  const go = useGoOn();
  const run = useRun({
    key: ["closing-run", id],
    read: () => take(api.GET("/api/closing/runs/{runId}", path)),
    stateOf: (v) => v.state,
    events: `/api/closing/runs/${id}/events`,
  });
  const r = run.data;
  const going = r?.state === "Working";
  const over = r ? r.verified + r.failed + r.skipped : 0;
  const report = useQuery({
    queryKey: ["closing-report", id, over, r?.state],
    enabled: r !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.GET("/api/closing/runs/{runId}/report", path)),
  });
  const wish = useAct((w: Schemas["RunWish"], headers) =>
    take(api.POST("/api/closing/runs/{runId}/wish", { ...path, body: { wish: w }, headers })),
  );
  const again = useAct(
    (_: void, headers) => take(api.POST("/api/closing/runs/{runId}/again", { ...path, headers })),
    (made) => go(`/close/runs/${made.id}`),
  );
  const paused = going && r.wish === "Pause";
  return (
    <Desk
      title={going ? "Closing run" : "Report of the closing run"}
      wide
      lead={
        r && (
          <>
            Begun by {r.startedBy}, {sayMoment(r.startedAt)}. <strong>{r.verified}</strong> of{" "}
            {count(r.classes, "class", "classes")} verified, <strong>{r.skipped}</strong> skipped,{" "}
            <strong>{r.failed}</strong> failed.
          </>
        )
      }
      slip={
        r && (
          <>
            <Typography variant="h2">
              {paused
                ? "Paused"
                : going
                  ? r.wish === "StopAfterClass"
                    ? "Stops after this class"
                    : "At work"
                  : r.failed > 0
                    ? "Ended, with failures"
                    : r.skipped > 0
                      ? "Ended, some skipped"
                      : "All verified"}
            </Typography>
            {going ? (
              <>
                <Typography>
                  You can leave this page: the run goes on by itself, also after a restart of the server.
                </Typography>
                {paused || r.wish === "StopAfterClass" ? (
                  <Button variant="contained" onClick={() => wish.mutate("GoOn")} disabled={wish.isPending}>
                    Go on
                  </Button>
                ) : (
                  <Button variant="outlined" onClick={() => wish.mutate("Pause")} disabled={wish.isPending}>
                    Pause
                  </Button>
                )}
                {r.wish !== "StopAfterClass" && (
                  <Button
                    variant="outlined"
                    onClick={() => wish.mutate("StopAfterClass")}
                    disabled={wish.isPending}
                  >
                    Stop after this class
                  </Button>
                )}
              </>
            ) : (
              <>
                <Typography>
                  Verified means: the package was read back, and every file and row compared with the class.
                </Typography>
                {r.failed > 0 && (
                  <Button variant="contained" onClick={() => again.mutate()} disabled={again.isPending}>
                    Try the {count(r.failed, "failed class", "failed classes")} again
                  </Button>
                )}
                <Button variant="outlined" href={`/api/closing/runs/${id}/report.csv`}>
                  Download the report as CSV
                </Button>
                <Button variant="outlined" href={`/api/closing/runs/${id}/report/signed`}>
                  Download it signed
                </Button>
                <Button variant="outlined" onClick={() => window.print()}>
                  Print the report
                </Button>
                <Button variant="outlined" component={RouterLink} to="/close">
                  To the closing desk
                </Button>
              </>
            )}
            {r.reason && <Alert severity="error">{r.reason}</Alert>}
            <Problem error={wish.error ?? again.error} />
          </>
        )
      }
    >
      {!run.away && <Problem error={run.error ?? report.error} />}
      {going && (
        <Box role="status" sx={{ mb: 2 }}>
          {run.away && <RunAway />}
          <LinearProgress
            variant="determinate"
            value={(100 * over) / Math.max(1, r.classes)}
            aria-label="Closing run"
          />
          {r.now ? (
            <Box sx={{ mt: 1.5, maxWidth: 720 }}>
              <Typography variant="h3">{r.now.name}</Typography>
              <StepList steps={r.now.steps} />
            </Box>
          ) : (
            <Typography sx={{ mt: 1 }}>{paused ? "It waits for you." : "It waits for its turn."}</Typography>
          )}
        </Box>
      )}
      {report.data && <Report rows={report.data} />}
    </Desk>
  );
}

function Report({ rows }: { rows: Schemas["ClosingOutcome"][] }) {
  const [address, setAddress] = useSearchParams();
  const show = (address.get("show") ?? "all") as Show;
  const find = (address.get("find") ?? "").toLowerCase();
  const department = address.get("department") ?? "";
  const departments = [...new Set(rows.flatMap((k) => k.department ?? []))].sort();
  const set = (name: string, value: string) =>
    setAddress((a) => {
      a.set(name, value);
      return a;
    });
  const shown = rows.filter(
    (k) =>
      (show === "all" || k.state === show) &&
      (department === "" || k.department === department) &&
      `${k.name} ${k.lead}`.toLowerCase().includes(find),
  );
  return (
    <>
      <ListBar
        label="Outcome"
        show={show}
        kinds={[
          ["all", "All", rows.length],
          ...(["Done", "Skipped", "Failed", "Waiting"] as const).map(
            (v) => [v, outcomeWords[v], rows.filter((k) => k.state === v).length] as const,
          ),
        ]}
        onShow={(v) => set("show", v)}
      >
        {departments.length > 0 && (
          <ChooseInList
            label="Department"
            value={department}
            choices={departments.map((d) => [d, d])}
            all="all"
            minWidth={160}
            onChange={(v) => set("department", v)}
          />
        )}
        <FindInList
          label="Class or teacher"
          value={address.get("find") ?? ""}
          onChange={(v) => set("find", v)}
        />
      </ListBar>
      {shown.length === 0 ? (
        <Empty title="No class of that kind in this run." />
      ) : (
        <PlainTable
          label="Report by class"
          rows={shown}
          id={(k) => k.id}
          columns={[
            {
              head: "Class",
              cell: (k) => (
                <Link component={RouterLink} to={`/classes/${k.id}/close`}>
                  {k.name}
                </Link>
              ),
            },
            { head: "Lead teacher", cell: (k) => k.lead },
            {
              head: "Outcome",
              cell: (k) => (
                <>
                  <StateMark mark={stepMarks[k.state]} strong={k.state === "Failed"}>
                    {outcomeWords[k.state]}
                  </StateMark>
                  {k.reason && (
                    <Typography variant="caption" component="div" sx={{ color: "text.secondary" }}>
                      {k.reason}
                    </Typography>
                  )}
                </>
              ),
            },
            { head: "Take-homes", cell: (k) => k.takeHomes || "–", align: "right" },
            { head: "Files", cell: (k) => k.files || "–", align: "right" },
            {
              head: "Package",
              says: "worth",
              by: (k) => k.bytes,
              cell: (k) => (k.bytes ? sayBytes(k.bytes) : "–"),
              align: "right",
            },
          ]}
        />
      )}
    </>
  );
}
