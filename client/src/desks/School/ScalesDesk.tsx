import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Desk, Empty } from "../../parts/Desk";
import { LevelLines, levelsOf, typedLevels } from "../../parts/LevelLines";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { PlainTable } from "../../parts/table/PlainTable";
import { useDraft } from "../../parts/useDraft";
import "../../parts/handed.css";

type Scale = Schemas["ScaleView"];

const begin = {
  name: "",
  levels: [
    { name: "", points: "", says: "" },
    { name: "", points: "", says: "" },
    { name: "", points: "0", says: "" },
  ],
};

/** The scales on which work can be marked at this school, beside points, criteria and complete / not yet. */
export function ScalesDesk({ me }: { me: Schemas["Me"] }) {
  const scales = useQuery({ queryKey: ["scales"], queryFn: () => take(api.GET("/api/school/scales")) });
  const [editing, setEditing] = useState<Scale | "new" | null>(null);
  const [removing, setRemoving] = useState<Scale | null>(null);
  const remove = useAct(
    (id: number, headers) =>
      take(api.DELETE("/api/school/scales/{scaleId}", { params: { path: { scaleId: id } }, headers })),
    () => setRemoving(null),
  );
  return (
    <Desk
      title="Scales"
      lead="Letters or words on which work is marked. Each level counts some points, so that marks are sorted, averaged and sent like any other. An assignment keeps the scale it was given with."
    >
      <PlanPlaces me={me} />
      <Problem error={scales.error} />
      {scales.data?.length === 0 && editing === null && (
        <Empty title="There is no scale yet.">
          Work can be marked in points, as complete or not yet, and by criteria without one.
        </Empty>
      )}
      {scales.data && scales.data.length > 0 && (
        <PlainTable
          label="Scales"
          rows={scales.data}
          id={(s) => s.id}
          columns={[
            { head: "Scale", main: true, cell: (s) => s.name },
            { head: "Levels", cell: (s) => s.levels.map((l) => `${l.name} (${l.points})`).join(", ") },
            {
              head: "Change",
              cell: (s) => (
                <>
                  <Button color="inherit" aria-label={`Change ${s.name}`} onClick={() => setEditing(s)}>
                    Change
                  </Button>
                  <Button color="inherit" aria-label={`Remove ${s.name}`} onClick={() => setRemoving(s)}>
                    Remove
                  </Button>
                </>
              ),
            },
          ]}
        />
      )}
      {editing === null ? (
        <Button variant="contained" className="under" onClick={() => setEditing("new")}>
          Lay down a scale
        </Button>
      ) : (
        <ScaleForm
          key={editing === "new" ? "new" : editing.id}
          scale={editing === "new" ? null : editing}
          onDone={() => setEditing(null)}
        />
      )}
      {removing && (
        <Ask
          open
          title={`Remove “${removing.name}”?`}
          act="Remove it"
          busy={remove.isPending}
          error={remove.error}
          onAct={() => remove.mutate(removing.id)}
          onClose={() => setRemoving(null)}
        >
          <Typography>
            Nobody gives work with it any more. What was given with it keeps it, marks and all.
          </Typography>
        </Ask>
      )}
    </Desk>
  );
}

function ScaleForm({ scale, onDone }: { scale: Scale | null; onDone: () => void }) {
  const { draft, change, drop } = useDraft(
    `scale:${scale ? `${scale.id}:${scale.version}` : "new"}`,
    scale ? { name: scale.name, levels: typedLevels(scale.levels) } : begin,
  );
  const body = { name: draft.name, levels: levelsOf(draft.levels) };
  const save = useAct(
    (_: void, headers) =>
      scale
        ? take(
            api.PUT("/api/school/scales/{scaleId}", {
              params: { path: { scaleId: scale.id }, query: { version: scale.version } },
              body,
              headers,
            }),
          )
        : take(api.POST("/api/school/scales", { body, headers })),
    () => {
      drop();
      onDone();
    },
  );
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  return (
    <form
      className="scale-form"
      aria-label={scale ? `Change ${scale.name}` : "A new scale"}
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <TextField
        autoFocus
        label="Name of the scale"
        value={draft.name}
        error={wrong === "name"}
        onChange={(e) => change({ ...draft, name: e.target.value })}
      />
      <LevelLines of="the scale" levels={draft.levels} onLevels={(levels) => change({ ...draft, levels })} />
      <Problem error={save.error} />
      <div className="handed-adding">
        <Button type="submit" variant="contained" disabled={save.isPending}>
          {scale ? "Change it" : "Lay it down"}
        </Button>
        <Button
          variant="outlined"
          onClick={() => {
            drop();
            onDone();
          }}
        >
          Not now
        </Button>
      </div>
    </form>
  );
}
