import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBoard } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { PutLines } from "./PutLines";
import { TickTable } from "../../parts/table/TickTable";

/** Classes ticked for a plan, and what it would do to each of them. */
export function PutChoice({
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
  const seen = (r: { id: number }) => (chosen.has(r.id) ? by.get(r.id) : undefined);
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
      <TickTable
        label="Classes to put the plan to"
        rows={rows}
        id={(r) => r.id}
        ticks={{ ticked: chosen, set: setChosen, label: (r) => `Tick ${r.name}`, all: "Tick all classes" }}
        below={(r) => {
          const p = seen(r);
          return open === r.id && p && <PutLines lines={p.lines} />;
        }}
        columns={[
          { head: "Class", cell: (r) => r.name },
          { head: "Folders now", cell: (r) => r.cells.folders.text },
          ...(["adds", "changes", "removes", "keeps"] as const).map((k) => ({
            head: { adds: "To add", changes: "To change", removes: "To go", keeps: "Stay" }[k],
            align: "right" as const,
            cell: (r: (typeof rows)[number]) => {
              const p = seen(r);
              return p && !p.refused && (p[k] || "–");
            },
          })),
          {
            head: "",
            align: "right",
            cell: (r) => {
              const p = by.get(r.id);
              if (p?.refused)
                return (
                  <StateMark mark="blocked" wrap>
                    {p.refused}
                  </StateMark>
                );
              if (!p || !chosen.has(r.id)) return null;
              if (p.lines.length === 0) return <StateMark mark="done">as it should be</StateMark>;
              return (
                <Button
                  onClick={() => setOpen(open === r.id ? null : r.id)}
                  aria-expanded={open === r.id}
                  aria-label={`Changes of ${r.name}`}
                >
                  {open === r.id ? "Less" : "See"}
                </Button>
              );
            },
          },
        ]}
      />
      {board.data && rows.length === 0 && (
        <Empty title="No class to put it to.">Make a class first; it can begin with this plan.</Empty>
      )}
    </Desk>
  );
}

// Like changes of many folders of one name are told once, with their count.
