import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { useRun } from "../../api/useRun";
import { Problem } from "../../parts/Problem";
import { RunAgain } from "../../parts/RunAgain";
import { RunDesk } from "../../parts/RunDesk";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count } from "../../parts/words";
import { PutLines } from "./PutLines";

/** What a plan did to each class it was put to; each can be taken back. */
export function PutReport({ run, onAgain }: { run: number; onAgain: () => void }) {
  const report = useRun({
    key: ["plan-run", run],
    read: () => take(api.GET("/api/plan-runs/{runId}", { params: { path: { runId: run } } })),
    stateOf: (v) => v.state,
    then: ["board"],
  });
  const [stayed, setStayed] = useState<Record<number, string[]>>({});
  const back = useAct(
    (k: number, headers) =>
      take(
        api.POST("/api/plan-runs/{runId}/classes/{putClassId}/taking-back", {
          params: { path: { runId: run, putClassId: k } },
          headers,
        }),
      ),
    (out, k) => setStayed((s) => ({ ...s, [k]: out.folders })),
  );
  const r = report.data;
  const done = r?.classes.filter((k) => k.state === "Done").length ?? 0;
  const failed = r?.classes.filter((k) => k.state === "Failed").length ?? 0;
  const sum = (of: (k: Schemas["ClassPutReport"]) => number) =>
    (r?.classes ?? []).reduce((n, k) => n + of(k), 0);
  return (
    <RunDesk
      title={r ? `“${r.planName}”, version ${r.version}` : "Report"}
      run={r ? { state: r.state, done, failed, of: r.classes.length } : null}
      doing="Putting the plan"
      away={report.away}
      problem={report.error}
      lead={
        r &&
        `${done} of ${count(r.classes.length, "class", "classes")} done${failed > 0 ? `, ${failed} failed` : ""}.`
      }
      slip={
        <>
          <Typography>
            {sum((k) => k.adds)} folders added, {sum((k) => k.changes)} changed, {sum((k) => k.removes)} empty
            ones gone, {sum((k) => k.keeps)} stay against the plan.
          </Typography>
          {r?.state === "Failed" && (
            <RunAgain run={run} reason={r.reason} what={count(failed, "class", "classes")} />
          )}
          <Button variant="outlined" onClick={onAgain}>
            Put it to other classes
          </Button>
          <Problem error={back.error} />
        </>
      }
    >
      {r && (
        <PlainTable
          label="Report by class"
          rows={r.classes}
          id={(k) => k.class}

          columns={[
            {
              head: "Class",
              cell: (k) => (
                <Link component={RouterLink} to={`/classes/${k.class}/set-up`}>
                  {k.name}
                </Link>
              ),
            },
            {
              head: "Outcome",
              cell: (k) => (
                <>
                  {k.takenBack ? (
                    <StateMark mark="notYet">taken back</StateMark>
                  ) : k.state === "Done" ? (
                    <StateMark mark="done">done</StateMark>
                  ) : k.state === "Failed" ? (
                    <StateMark mark="blocked" wrap>
                      {k.said}
                    </StateMark>
                  ) : (
                    <StateMark mark="underway">waits</StateMark>
                  )}
                  {stayed[k.class]?.length ? (
                    <Typography variant="caption" component="div">
                      stays, filled or changed since: {stayed[k.class]!.join(", ")}
                    </Typography>
                  ) : null}
                </>
              ),
            },
            { head: "Added", cell: (k) => k.adds, align: "right" },
            { head: "Changed", cell: (k) => k.changes, align: "right" },
            { head: "Gone", cell: (k) => k.removes, align: "right" },
            {
              head: "Stays against the plan",
              says: (k) => k.kept.map((l) => `${l.folder}: ${l.why}`).join("; "),
              cell: (k) => (k.kept.length > 0 ? <PutLines lines={k.kept} /> : "–"),
            },
            {
              head: "",
              cell: (k) =>
                k.state === "Done" &&
                !k.takenBack &&
                k.adds + k.changes + k.removes > 0 && (
                  <Button
                    disabled={back.isPending}
                    onClick={() => back.mutate(k.class)}
                    aria-label={`Take back for ${k.name}`}
                  >
                    Take back
                  </Button>
                ),
              align: "right",
            },
          ]}
        />
      )}
    </RunDesk>
  );
}
