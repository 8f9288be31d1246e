import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { CourseMark } from "../../parts/CourseMark";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { useGoOn, useTyped } from "../../parts/typed";
import { CarryTicks, everything } from "./CarryTicks";
import { NewClass, NewClassSeen, type Line } from "./NewClass";
import { TickTable } from "../../parts/table/TickTable";

/** The roll-over desk: last year beside next year, each class to one, several or none. */
export function RollMany() {
  const [address] = useSearchParams();
  const desk = useQuery({ queryKey: ["roll-desk"], queryFn: () => take(api.GET("/api/rollover")) });
  if (!desk.data)
    return (
      <Desk title="Roll over" wide>
        <Problem error={desk.error} />
      </Desk>
    );
  const asked = (address.get("classes") ?? "").split(",").filter(Boolean).map(Number);
  return <Decide key={desk.data.year} d={desk.data} asked={asked} />;
}

function Decide({ d, asked }: { d: Schemas["RollDesk"]; asked: number[] }) {
  const go = useGoOn();
  const [choice, setChoice] = useState(everything);
  const [lines, setLines] = useState<Line[]>(() =>
    d.classes.filter((k) => asked.includes(k.id)).map((k) => ({ key: `${k.id}`, from: [k.id] })),
  );
  const [open, setOpen] = useState<string | null>(null);
  const body = {
    year: d.next,
    choice,
    lines: lines.map((l) => ({
      from: l.from,
      section: l.section ?? null,
      period: l.period ?? null,
      lead: l.lead ?? null,
    })),
  };
  const preview = useQuery({
    queryKey: ["roll-preview", body],
    enabled: lines.length > 0 && d.next != null,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/rollover/preview", { body })),
  });
  const roll = useAct(
    (_: void, headers) => take(api.POST("/api/rollover/runs", { body, headers })),
    (made) => go(`/roll-over/runs/${made.id}`),
  );
  const by = new Map(
    lines.map((l, i) => [l.key, preview.data?.length === lines.length ? preview.data[i] : undefined]),
  );
  const [typed, setTyped] = useState(false);
  useTyped(typed);
  const change = (key: string, to: Partial<Line>) => {
    setTyped(true);
    setLines((all) => all.map((l) => (l.key === key ? { ...l, ...to } : l)));
  };
  const drop = (key: string) => setLines((all) => all.filter((l) => l.key !== key));
  const tick = (k: Schemas["LastYearClass"]) =>
    setLines((all) =>
      all.some((l) => l.from.includes(k.id))
        ? all.map((l) => ({ ...l, from: l.from.filter((f) => f !== k.id) })).filter((l) => l.from.length > 0)
        : [...all, { key: `${k.id}`, from: [k.id] }],
    );
  const another = (k: Schemas["LastYearClass"]) =>
    setLines((all) => {
      const n = all.filter((l) => l.from[0] === k.id).length;
      const at = all.findLastIndex((l) => l.from.includes(k.id));
      const line = { key: `${k.id}-${n}-${Date.now()}`, from: [k.id], section: `${k.section ?? ""}${n + 1}` };
      return [...all.slice(0, at + 1), line, ...all.slice(at + 1)];
    });
  const merge = () =>
    setLines((all) => {
      const [first, ...rest] = all;
      return first ? [{ ...first, from: [...first.from, ...rest.flatMap((l) => l.from)] }] : all;
    });
  const clashes = [...by.values()].filter((p) => p?.refused).length;
  const unmade = d.classes.filter((k) => k.made.length === 0);
  // What is made of it, or will be.
  const saidOf = (k: Schemas["LastYearClass"]) =>
    [
      ...k.made.map((m) => m.name),
      ...lines.filter((l) => l.from[0] === k.id).map((l) => by.get(l.key)?.name ?? ""),
    ].join("; ");
  const withinOf = (k: Schemas["LastYearClass"]) =>
    lines.find((l) => l.from.includes(k.id) && l.from[0] !== k.id);
  const course = new Set(lines.flatMap((l) => l.from.map((f) => d.classes.find((k) => k.id === f)?.course)));
  const flagged = [...by.values()].flatMap((p) => p?.dates ?? []).filter((x) => x.moved.flagged).length;
  return (
    <Desk
      title="Roll over"
      wide
      lead={
        <>
          <strong>{d.yearLabel}</strong> beside <strong>{d.nextLabel ?? "no next year yet"}</strong>:{" "}
          {d.classes.length - unmade.length} of {count(d.classes.length, "class", "classes")} made again.
        </>
      }
      slip={
        <>
          <Typography variant="h2">
            {lines.length === 0 ? "Nothing ticked" : `${count(lines.length, "class", "classes")} to make`}
          </Typography>
          {d.next == null ? (
            <Typography role="alert">
              <StateMark mark="blocked" wrap>
                No calendar for next year.
              </StateMark>{" "}
              The coordinator lays down its terms first.{" "}
              <Link component={RouterLink} to="/plan/years">
                School years
              </Link>
            </Typography>
          ) : (
            <CarryTicks value={choice} onChange={setChoice} />
          )}
          {clashes > 0 && (
            <StateMark mark="blocked">{count(clashes, "can't be made", "can't be made")}</StateMark>
          )}
          {flagged > 0 && (
            <StateMark mark="attention">{count(flagged, "date gave way", "dates gave way")}</StateMark>
          )}
          {lines.length > 1 && course.size === 1 && (
            <Button variant="outlined" onClick={merge}>
              Make one class of these {lines.length}
            </Button>
          )}
          <Button
            variant="contained"
            disabled={
              lines.length === 0 || clashes > 0 || roll.isPending || preview.isFetching || d.next == null
            }
            onClick={() => roll.mutate()}
          >
            Roll over {count(lines.length, "class", "classes")}
          </Button>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            Students, co-teachers, notices and work stay behind. The new classes are in preparation; each can
            be undone while nothing has been added to it.
          </Typography>
          {d.run != null && (
            <Link component={RouterLink} to={`/roll-over/runs/${d.run}`} variant="body2">
              See the last run
            </Link>
          )}
          <Problem error={roll.error ?? preview.error} />
        </>
      }
    >
      {preview.isFetching && <LinearProgress aria-label="Working out next year" />}
      {d.classes.length === 0 ? (
        <Empty title={`No class of yours in ${d.yearLabel}.`}>
          Classes of the year that is ending stand here, to be made again for the next.
        </Empty>
      ) : (
        <TickTable
          label="Last year beside next year"
          rows={d.classes}
          id={(k) => k.id}
          ticks={{
            ticked: new Set(lines.flatMap((l) => l.from)),
            set: (next) => {
              for (const k of d.classes)
                if (next.has(k.id) !== lines.some((l) => l.from.includes(k.id))) tick(k);
            },
            wanted: (k) => k.made.length === 0,
            label: (k) => `Roll over ${k.name}`,
            all: "Tick all that are not made yet",
          }}
          below={(k) =>
            lines
              .filter((l) => l.from[0] === k.id && l.key === open)
              .map((l) => <NewClassSeen key={`see-${l.key}`} p={by.get(l.key)} />)
          }
          columns={[
            {
              head: d.yearLabel,
              width: "36%",
              by: (k) => k.name,
              cell: (k) => (
                <>
                  <CourseMark mark={k.mark} />{" "}
                  <Link component={RouterLink} to={`/classes/${k.id}/roll-over`}>
                    {k.name}
                  </Link>
                  <Typography variant="caption" component="div" className="soft">
                    {k.lead}
                  </Typography>
                </>
              ),
            },
            {
              head: d.nextLabel ?? "Next year",
              by: saidOf,
              says: saidOf,
              cell: (k) => {
                const mine = lines.filter((l) => l.from[0] === k.id);
                const within = withinOf(k);
                return (
                  <div>
                    {k.made.map((m) => (
                      <div key={m.id}>
                        <StateMark mark="done">made:</StateMark>{" "}
                        <Link component={RouterLink} to={`/classes/${m.id}/set-up`}>
                          {m.name}
                        </Link>
                      </div>
                    ))}
                    {within && (
                      <StateMark mark="underway">
                        goes into {by.get(within.key)?.name ?? "the one above"}
                      </StateMark>
                    )}
                    {mine.map((l) => (
                      <NewClass
                        key={l.key}
                        l={l}
                        k={k}
                        d={d}
                        p={by.get(l.key)}
                        change={(to) => change(l.key, to)}
                        drop={mine.length > 1 ? () => drop(l.key) : undefined}
                        open={open === l.key}
                        onOpen={() => setOpen(open === l.key ? null : l.key)}
                      />
                    ))}
                    {k.made.length === 0 && mine.length === 0 && !within && (
                      <StateMark mark="notYet">none</StateMark>
                    )}
                  </div>
                );
              },
            },
            {
              head: "",
              align: "right",
              width: 130,
              cell: (k) =>
                lines.some((l) => l.from[0] === k.id) && (
                  <Button onClick={() => another(k)} aria-label={`One more class from ${k.name}`}>
                    One more
                  </Button>
                ),
            },
          ]}
        />
      )}
    </Desk>
  );
}
