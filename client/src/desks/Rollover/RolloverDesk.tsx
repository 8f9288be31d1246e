import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useHead } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { ClassBar } from "../../parts/ClassBar";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count } from "../../parts/words";
import { useGoOn, useTyped } from "../../parts/typed";
import { CarryTicks, everything, MovedDates } from "./CarryTicks";
import { Staying } from "./Staying";

/** Makes next year's class: what comes along, what does not, and how everything will be called. */
export function RolloverDesk() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const [sectionTyped, setSection] = useState<string>();
  const [periodTyped, setPeriod] = useState<string>();
  const section = sectionTyped ?? head.data?.section ?? "";
  const period = periodTyped ?? head.data?.period ?? "";
  const go = useGoOn();
  const [choice, setChoice] = useState(everything);
  useTyped(sectionTyped !== undefined || periodTyped !== undefined);
  const body = { year: null, section, period, choice };
  const path = { params: { path: { classId: id } } };
  const may = head.data?.may.includes("RollOver") ?? false;
  const preview = useQuery({
    queryKey: ["rollover", id, section, period, choice],
    enabled: head.data !== undefined && may,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/classes/{classId}/rollover-preview", { ...path, body })),
  });
  const roll = useAct(
    (_: void, headers) => take(api.POST("/api/classes/{classId}/rollover", { ...path, body, headers })),
    (made) => go(`/classes/${made.id}/set-up`),
  );
  const p = preview.data;
  const sameAsMade = p?.alreadyMadeName === p?.name.name;
  return (
    <Desk
      title="Roll over"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        p && (
          <>
            <Typography variant="h2">Next year, {p.yearLabel}</Typography>
            <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1 }}>
              <TextField label="Section" value={section} onChange={(e) => setSection(e.target.value)} />
              <TextField label="Period" value={period} onChange={(e) => setPeriod(e.target.value)} />
            </Box>
            <Typography variant="caption" sx={{ color: "text.secondary" }}>
              It will be called
            </Typography>
            <Typography variant="h3" component="p" aria-live="polite">
              {p.name.name}
            </Typography>
            {p.alreadyMade != null && (
              <Typography>
                <StateMark mark="done">made already:</StateMark>{" "}
                <Link component={RouterLink} to={`/classes/${p.alreadyMade}/set-up`}>
                  {p.alreadyMadeName}
                </Link>
                . Another section or period makes a second one.
              </Typography>
            )}
            {p.name.refusal && !sameAsMade && (
              <Typography role="alert" sx={{ color: "error.main" }}>
                {p.name.refusal.what} {p.name.refusal.mend}
              </Typography>
            )}
            <CarryTicks value={choice} onChange={setChoice} />
            <Problem error={roll.error} />
            <Button
              variant="contained"
              disabled={roll.isPending || !!p.name.refusal}
              onClick={() => roll.mutate()}
            >
              Make next year&rsquo;s class
            </Button>
            <Typography variant="body2" sx={{ color: "text.secondary" }}>
              It will be in preparation: students see nothing until it is opened.
            </Typography>
          </>
        )
      }
    >
      <Problem error={head.error ?? preview.error} />
      {head.data && !may && (
        <Typography>The lead teacher or the coordinator rolls this class over.</Typography>
      )}
      {p && (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "1fr", md: "minmax(0, 1fr) minmax(0, 1fr)" },
            gap: 4,
          }}
        >
          <Box>
            <Typography variant="h2">What comes along, and what does not</Typography>
            <PlainTable
              label="What comes along"
              rows={p.lines}
              id={(l) => l.what}
              columns={[
                {
                  head: "What",
                  cell: (l) => (
                    <>
                      <strong>{l.what}</strong>
                      <Box sx={{ color: "text.secondary", fontSize: "0.82rem" }}>{l.why}</Box>
                    </>
                  ),
                },
                {
                  head: "Comes",
                  cell: (l) => (l.comes > 0 ? <StateMark mark="done">{l.comes}</StateMark> : "–"),
                  align: "right",
                },
                { head: "Stays", cell: (l) => (l.stays > 0 ? l.stays : "–"), align: "right" },
              ]}
            />
            {p.staying.length > 0 && <Staying things={p.staying} more={0} />}
          </Box>
          <Box sx={{ minWidth: 0 }}>
            <Typography variant="h2">The new class</Typography>
            <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
              {count(p.folders.length, "folder comes", "folders come")} along
              {p.planAdds > 0 && `, the plan adds ${p.planAdds} for the new calendar`}.{" "}
              {count(p.drafts.length, "assignment", "assignments")}
              {p.dates.length > 0 ? " as drafts, dates moved by school week." : " as drafts without a date."}
            </Typography>
            <Tree folders={p.folders} />
            {p.drafts.length > 0 && (
              <Typography variant="h3" component="h2" sx={{ mt: 2 }}>
                Drafts
              </Typography>
            )}
            {p.drafts
              .filter((t) => p.dates.every((d) => d.title !== t))
              .map((t) => (
                <Typography key={t} variant="body2">
                  {t}
                </Typography>
              ))}
            <MovedDates dates={p.dates} />
          </Box>
        </Box>
      )}
    </Desk>
  );
}

function Tree({ folders }: { folders: Schemas["CarriedFolder"][] }) {
  const [all, setAll] = useState(false);
  const depth = new Map<number, number>();
  const ids = new Map(folders.map((f) => [f.id, f]));
  const depthOf = (f: Schemas["CarriedFolder"]): number => {
    const known = depth.get(f.id);
    if (known !== undefined) return known;
    const above = f.parent != null ? ids.get(f.parent) : undefined;
    const d = above ? depthOf(above) + 1 : 0;
    depth.set(f.id, d);
    return d;
  };
  const ordered: Schemas["CarriedFolder"][] = [];
  const walk = (parent: number | null) => {
    for (const f of folders.filter(
      (x) => (x.parent != null && ids.has(x.parent) ? x.parent : null) === parent,
    )) {
      ordered.push(f);
      walk(f.id);
    }
  };
  walk(null);
  const shown = all ? ordered : ordered.slice(0, 18);
  return (
    <Box>
      {shown.map((f) => (
        <Box
          key={f.id}
          sx={{
            display: "flex",
            gap: 1,
            pl: depthOf(f) * 2,
            minHeight: 25,
            fontSize: "0.88rem",
            alignItems: "baseline",
          }}
        >
          <Box component="span" sx={{ fontWeight: depthOf(f) === 0 ? 650 : 400 }}>
            {f.name}
          </Box>
          {f.was && (
            <Box component="span" sx={{ color: "text.secondary", fontSize: "0.8rem" }}>
              was {f.was}
            </Box>
          )}
          <Box sx={{ flex: 1 }} />
          {f.items > 0 && (
            <Box component="span" sx={{ color: "text.secondary" }}>
              {count(f.items, "thing", "things")}
            </Box>
          )}
        </Box>
      ))}
      {shown.length < ordered.length && (
        <Link component="button" variant="body2" onClick={() => setAll(true)}>
          {ordered.length - shown.length} more
        </Link>
      )}
    </Box>
  );
}
