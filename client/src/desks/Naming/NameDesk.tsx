import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Desk, Empty } from "../../parts/Desk";
import { PatternField } from "../../parts/PatternField";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { TickTable } from "../../parts/table/TickTable";
import { useVersioned } from "../../parts/useVersioned";
import { count } from "../../parts/words";
import { Behind } from "../../parts/Behind";

/** How classes are named: the pattern, and what it makes of every class of the year before anything is renamed. */
export function NameDesk({ me }: { me: Schemas["Me"] }) {
  const naming = useQuery({ queryKey: ["naming"], queryFn: () => take(api.GET("/api/naming")) });
  return naming.data ? <Names naming={naming.data} me={me} /> : <Problem error={naming.error} />;
}

function Names({ naming, me }: { naming: Schemas["NamingView"]; me: Schemas["Me"] }) {
  const school = useSchool();
  const { draft, begun, change, changed, drop, behind, keep } = useVersioned("naming", naming.version, {
    pattern: naming.pattern,
    byPattern: naming.byPattern,
  });
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const year = school.data?.current;
  const preview = useQuery({
    queryKey: ["naming-preview", year, draft.pattern],
    enabled: year !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => take(api.POST("/api/naming/preview", { body: { year: year!, pattern: draft.pattern } })),
  });
  const set = useAct(() => take(api.PUT("/api/naming", { body: { ...draft, version: begun } })), drop);
  const rows = preview.data?.classes ?? [];
  const going = rows.filter((r) => r.differs && !r.refusal && !left.has(r.id));
  const rename = useAct((_: void, headers) =>
    take(
      api.POST("/api/naming/renaming", {
        body: { year: year!, pattern: draft.pattern, classes: going.map((r) => r.id) },
        headers,
      }),
    ),
  );
  const wrong = preview.error instanceof ProblemError;
  return (
    <Desk
      title="Class names"
      wide
      lead="A name says course, section or period, and school year, so that a class is known in any list, in an archive three years on, and never collides with next year's."
      slip={
        <>
          <Typography variant="h2">{count(going.length, "class differs", "classes differ")}</Typography>
          <Typography>
            {preview.data?.clashes
              ? `${preview.data.clashes} would clash and keep their names.`
              : "No two would have the same name."}
          </Typography>
          {preview.data?.advice && (
            <Typography>
              <StateMark mark="attention">{preview.data.advice}</StateMark>
            </Typography>
          )}
          <Button
            variant="contained"
            disabled={!changed || set.isPending || wrong}
            onClick={() => set.mutate(undefined)}
          >
            Save the pattern
          </Button>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            It names classes made from now on, and those rolled over.
          </Typography>
          <Button
            variant="outlined"
            disabled={going.length === 0 || rename.isPending || wrong}
            onClick={() => rename.mutate()}
          >
            Rename {count(going.length, "class", "classes")}
          </Button>
          <Problem error={set.error ?? rename.error} />
          {rename.data && (
            <Typography role="status">
              <StateMark mark="done">{count(rename.data.classes, "class", "classes")} renamed</StateMark>
            </Typography>
          )}
        </>
      }
    >
      <PlanPlaces me={me} />
      <Box sx={{ maxWidth: 640 }}>
        <PatternField
          value={draft.pattern}
          placeholders={naming.placeholders}
          error={wrong}
          onChange={(pattern) => change({ ...draft, pattern })}
        />
        <FormControlLabel
          control={
            <Checkbox
              checked={draft.byPattern}
              onChange={(e) => change({ ...draft, byPattern: e.target.checked })}
            />
          }
          label="Names come from the pattern alone: teachers do not change them"
        />
      </Box>
      <Behind behind={behind} theirs={`Theirs is “${naming.pattern}”.`} onTheirs={drop} onMine={keep} />
      <Problem error={preview.error} />
      {preview.data && rows.length === 0 && (
        <Empty title="No class in this school year yet.">The pattern is waiting for the first.</Empty>
      )}
      {rows.length > 0 && (
        <TickTable
          label="Names as they will be"
          rows={rows}
          id={(r) => r.id}
          ticks={{
            ticked: new Set(rows.filter((r) => !left.has(r.id)).map((r) => r.id)),
            set: (next) => setLeft(new Set(rows.filter((r) => !next.has(r.id)).map((r) => r.id))),
            may: (r) => r.differs === true && !r.refusal,
            label: (r) => `Rename ${r.name}`,
            all: "Rename all that differ",
          }}
          columns={[
            { head: "Is called", cell: (r) => r.name },
            {
              head: "Will be called",
              cell: (r) =>
                r.differs ? <strong>{r.will}</strong> : <StateMark mark="none">the same</StateMark>,
            },
            {
              head: "",
              cell: (r) =>
                r.refusal ? (
                  <StateMark mark="blocked">{r.refusal.what}</StateMark>
                ) : (
                  r.changes.map((c) => (
                    <StateMark key={c.was} mark="attention">
                      “{c.was}” replaced
                    </StateMark>
                  ))
                ),
            },
          ]}
        />
      )}
    </Desk>
  );
}
