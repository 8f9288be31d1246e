import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { Link as RouterLink, useParams } from "react-router";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { useRun } from "../../api/useRun";
import { Problem } from "../../parts/Problem";
import { RunAgain } from "../../parts/RunAgain";
import { RunDesk } from "../../parts/RunDesk";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";

/** What a run rolled over: each new class against what it was made from, differences explained. */
export function RollRun() {
  const id = Number(useParams().id);
  const path = { params: { path: { runId: id } } };
  const run = useRun({
    key: ["roll-run", id],
    read: () => take(api.GET("/api/rollover/runs/{runId}", path)),
    stateOf: (v) => v.state,
    then: ["board"],
  });
  const undo = useAct((position: number, headers) =>
    take(api.POST("/api/rollover/runs/{runId}/undo", { ...path, body: { position }, headers })),
  );
  const r = run.data;
  const done = r?.lines.filter((l) => l.state === "Done").length ?? 0;
  const failed = r?.lines.filter((l) => l.state === "Failed").length ?? 0;
  const uneven = r?.lines.filter((l) => l.parity.some((p) => !p.even)).length ?? 0;
  return (
    <RunDesk
      title={r?.state === "Working" ? "Rolling over" : "Report of the roll-over"}
      run={r ? { state: r.state, done, failed, of: r.lines.length } : null}
      doing="Rolling over"
      away={run.away}
      problem={run.error}
      lead={
        r && (
          <>
            Begun {sayMoment(r.startedAt)}. <strong>{done}</strong> of{" "}
            {count(r.lines.length, "class", "classes")} made{failed > 0 && `, ${failed} failed`}.
          </>
        )
      }
      slip={
        <>
          {r?.state !== "Working" && (
            <StateMark mark={uneven > 0 ? "attention" : "done"} wrap>
              {uneven > 0
                ? `${count(uneven, "class differs", "classes differ")} without a reason`
                : "every difference is explained"}
            </StateMark>
          )}
          <Typography>
            The new classes are in preparation. A class can be undone while nothing has been added to it.
          </Typography>
          {r?.state === "Failed" && (
            <RunAgain run={id} reason={r.reason} what={count(failed, "class", "classes")} />
          )}
          <Button variant="outlined" component={RouterLink} to="/roll-over">
            Back to the roll-over desk
          </Button>
          <Problem error={undo.error} />
        </>
      }
    >
      {r && (
        <PlainTable
          label="Report by class"
          rows={r.lines}
          id={(l) => l.position}
          columns={[
            { head: "Made from", cell: (l) => l.from.join(", ") },
            {
              head: "New class",
              cell: (l) =>
                l.made != null ? (
                  <Link component={RouterLink} to={`/classes/${l.made}/set-up`}>
                    {l.name}
                  </Link>
                ) : l.undone ? (
                  <StateMark mark="notYet">undone</StateMark>
                ) : l.state === "Failed" ? (
                  <StateMark mark="blocked" wrap>
                    {l.reason}
                  </StateMark>
                ) : (
                  <StateMark mark="underway">waits</StateMark>
                ),
            },
            {
              head: "There and here",
              cell: (l) =>
                l.parity.map((p) => (
                  <Box key={p.what} sx={{ fontSize: "0.86rem" }}>
                    <StateMark mark={p.even ? "done" : "attention"}>
                      {p.what}: {p.there} there, {p.here} here
                    </StateMark>
                    {p.explained.length > 0 && (
                      <Box component="span" sx={{ color: "text.secondary" }}>
                        {" "}
                        ({p.explained.join("; ")})
                      </Box>
                    )}
                  </Box>
                )),
            },
            {
              head: "",
              cell: (l) =>
                l.made != null && (
                  <Button
                    disabled={undo.isPending}
                    onClick={() => undo.mutate(l.position)}
                    aria-label={`Undo ${l.name}`}
                  >
                    Undo
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
