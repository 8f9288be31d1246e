import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBoard, usePlans } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { useRun } from "../../api/useRun";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { RunAgain } from "../../parts/RunAgain";
import { RunDesk } from "../../parts/RunDesk";
import { StateMark, type Mark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { TickAll, TickRow, useTicks } from "../../parts/ticks";

const kinds: Record<Schemas["PutKind"], [Mark, string]> = {
  Add: ["done", "added"],
  Adopt: ["done", "there already"],
  Change: ["underway", "changed"],
  Remove: ["notYet", "goes"],
  KeepTeachers: ["attention", "teacher's, stays"],
  KeepFull: ["attention", "not empty, stays"],
};

/** Puts a plan to classes: the list of changes class by class, then the run, then the report, which can be taken back. */
export function PlanPut() {
  const [address, setAddress] = useSearchParams();
  const plans = usePlans();
  const planId = Number(address.get("plan"));
  const plan = plans.data?.find((p) => p.id === planId);
  const run = Number(address.get("run")) || undefined;
  if (plans.data && !plan)
    return (
      <Desk title="Put a plan">
        <Empty title="There is no such plan.">Choose one at the plan desk.</Empty>
      </Desk>
    );
  if (!plan) return null;
  return run ? (
    <Report key={run} run={run} onAgain={() => setAddress({ plan: String(planId) })} />
  ) : (
    <Choose
      plan={plan}
      ticked={(address.get("classes") ?? "").split(",").filter(Boolean).map(Number)}
      onRun={(id) => setAddress({ plan: String(planId), run: String(id) })}
    />
  );
}

function Choose({
  plan,
  ticked,
  onRun,
}: {
  plan: Schemas["PlanView"];
  ticked: number[];
  onRun: (id: number) => void;
}) {
  const board = useBoard();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set(ticked));
  const [open, setOpen] = useState<number | null>(null);
  const rows = (board.data?.rows ?? []).filter((r) => r.state !== "Archived");
  const ids = rows.filter((r) => chosen.has(r.id)).map((r) => r.id);
  const preview = useQuery({
    queryKey: ["put-preview", plan.id, plan.version, ids],
    enabled: ids.length > 0,
    queryFn: () =>
      take(
        api.POST("/api/plans/{planId}/put-preview", {
          params: { path: { planId: plan.id } },
          body: { classes: ids },
        }),
      ),
  });
  const put = useAct(
    (classes: number[], headers) =>
      take(
        api.POST("/api/plans/{planId}/puts", {
          params: { path: { planId: plan.id } },
          body: { classes },
          headers,
        }),
      ),
    (made) => onRun(made.id),
  );
  const by = new Map((preview.data ?? []).map((p) => [p.class, p]));
  const can = (preview.data ?? []).filter((p) => !p.refused);
  const sum = (of: (p: Schemas["ClassPutPreview"]) => number) => can.reduce((n, p) => n + of(p), 0);
  const anew = (preview.data ?? []).filter((p) => p.anew).length;
  const ticks = useTicks(
    rows.map((r) => r.id),
    chosen,
    setChosen,
  );
  return (
    <Desk
      title={`Put “${plan.name}”`}
      wide
      lead={
        <>
          Version {plan.version}. Tick classes to see what it will do to each.{" "}
          <Link component={RouterLink} to={`/plan?plan=${plan.id}`}>
            Back to the plan
          </Link>
        </>
      }
      slip={
        <>
          <Typography variant="h2">{count(ids.length, "class", "classes")} ticked</Typography>
          {ids.length === 0 && (
            <Typography sx={{ color: "text.secondary" }}>
              Nothing is written until you have seen the list of changes.
            </Typography>
          )}
          {preview.data && ids.length > 0 && (
            <Typography>
              <strong>
                {count(
                  sum((p) => p.adds),
                  "folder",
                  "folders",
                )}
              </strong>{" "}
              to add, {sum((p) => p.changes)} to change, {sum((p) => p.removes)} empty ones to go, in{" "}
              {count(can.length, "class", "classes")}.{" "}
              {sum((p) => p.keeps) > 0 && `${sum((p) => p.keeps)} stay against the plan.`}
            </Typography>
          )}
          {anew > 0 && (
            <Typography>
              <StateMark mark="attention">
                {count(anew, "class follows", "classes follow")} another plan.
              </StateMark>{" "}
              What stands there under the same name is taken for this plan&rsquo;s own; everything else stays.
            </Typography>
          )}
          <Button
            variant="contained"
            disabled={can.length === 0 || put.isPending || preview.isFetching}
            onClick={() => put.mutate(can.map((p) => p.class))}
          >
            Put it to {count(can.length, "class", "classes")}
          </Button>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            What a teacher changed stays theirs. A folder with anything in it is never removed. It can be
            taken back afterwards.
          </Typography>
          <Problem error={put.error ?? preview.error} />
        </>
      }
    >
      {preview.isFetching && <LinearProgress aria-label="Working out the changes" />}
      <Table aria-label="Classes to put the plan to" stickyHeader>
        <TableHead>
          <TableRow>
            <TableCell padding="none" sx={{ width: 34 }}>
              <TickAll ticks={ticks} label="Tick all classes" />
            </TableCell>
            <TableCell>Class</TableCell>
            <TableCell>Folders now</TableCell>
            <TableCell align="right">To add</TableCell>
            <TableCell align="right">To change</TableCell>
            <TableCell align="right">To go</TableCell>
            <TableCell align="right">Stay</TableCell>
            <TableCell />
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((r) => {
            const p = by.get(r.id);
            return (
              <Fragment key={r.id}>
                <TableRow hover selected={chosen.has(r.id)}>
                  <TableCell padding="none">
                    <TickRow ticks={ticks} of={r.id} label={`Tick ${r.name}`} />
                  </TableCell>
                  <TableCell>{r.name}</TableCell>
                  <TableCell>{r.cells.folders.text}</TableCell>
                  {p?.refused ? (
                    <TableCell colSpan={5}>
                      <StateMark mark="blocked" wrap>
                        {p.refused}
                      </StateMark>
                    </TableCell>
                  ) : (
                    <>
                      {(["adds", "changes", "removes", "keeps"] as const).map((k) => (
                        <TableCell key={k} align="right">
                          {chosen.has(r.id) && p ? p[k] || "–" : ""}
                        </TableCell>
                      ))}
                      <TableCell align="right">
                        {chosen.has(r.id) && p && p.lines.length > 0 && (
                          <Button
                            onClick={() => setOpen(open === r.id ? null : r.id)}
                            aria-expanded={open === r.id}
                            aria-label={`Changes of ${r.name}`}
                          >
                            {open === r.id ? "Less" : "See"}
                          </Button>
                        )}
                        {chosen.has(r.id) && p && p.lines.length === 0 && (
                          <StateMark mark="done">as it should be</StateMark>
                        )}
                      </TableCell>
                    </>
                  )}
                </TableRow>
                {open === r.id && p && chosen.has(r.id) && (
                  <TableRow>
                    <TableCell />
                    <TableCell colSpan={7} sx={{ py: 1 }}>
                      <Lines lines={p.lines} />
                    </TableCell>
                  </TableRow>
                )}
              </Fragment>
            );
          })}
        </TableBody>
      </Table>
      {board.data && rows.length === 0 && (
        <Empty title="No class to put it to.">Make a class first; it can begin with this plan.</Empty>
      )}
    </Desk>
  );
}

// Like changes of many folders of one name are told once, with their count.
function Lines({ lines }: { lines: Schemas["PutLine"][] }) {
  const told = new Map<string, { line: Schemas["PutLine"]; n: number }>();
  for (const line of lines) {
    const key = `${line.kind}|${line.folder}|${line.why}`;
    told.set(key, { line, n: (told.get(key)?.n ?? 0) + 1 });
  }
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, columns: { md: 2 }, columnGap: 3 }}>
      {[...told].map(([key, { line: l, n }]) => (
        <Box component="li" key={key} sx={{ breakInside: "avoid" }}>
          <StateMark mark={kinds[l.kind][0]}>{kinds[l.kind][1]}</StateMark> <strong>{l.folder}</strong>
          {n > 1 && ` × ${n}`}
          {l.kind !== "Add" && (
            <Box component="span" sx={{ color: "text.secondary" }}>
              : {l.why}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}

function Report({ run, onAgain }: { run: number; onAgain: () => void }) {
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
        <Table aria-label="Report by class">
          <TableHead>
            <TableRow>
              <TableCell>Class</TableCell>
              <TableCell>Outcome</TableCell>
              <TableCell align="right">Added</TableCell>
              <TableCell align="right">Changed</TableCell>
              <TableCell align="right">Gone</TableCell>
              <TableCell>Stays against the plan</TableCell>
              <TableCell />
            </TableRow>
          </TableHead>
          <TableBody>
            {r.classes.map((k) => (
              <TableRow key={k.class} hover>
                <TableCell>
                  <Link component={RouterLink} to={`/classes/${k.class}/set-up`}>
                    {k.name}
                  </Link>
                </TableCell>
                <TableCell>
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
                </TableCell>
                <TableCell align="right">{k.adds}</TableCell>
                <TableCell align="right">{k.changes}</TableCell>
                <TableCell align="right">{k.removes}</TableCell>
                <TableCell>{k.kept.length > 0 ? <Lines lines={k.kept} /> : "–"}</TableCell>
                <TableCell align="right">
                  {k.state === "Done" && !k.takenBack && k.adds + k.changes + k.removes > 0 && (
                    <Button
                      disabled={back.isPending}
                      onClick={() => back.mutate(k.class)}
                      aria-label={`Take back for ${k.name}`}
                    >
                      Take back
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </RunDesk>
  );
}
