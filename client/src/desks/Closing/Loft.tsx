import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { CourseMark } from "../../parts/CourseMark";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { PlainTable } from "../../parts/table/PlainTable";
import { GiveOut } from "../Workspaces/GiveOut";
import { StateMark } from "../../parts/StateMark";
import { count, sayBytes, sayDate } from "../../parts/words";
import { ClosePlaces } from "./ClosePlaces";
import { DeleteClass, LoftBin } from "./LoftBin";
import { PackageSeen } from "./PackageSeen";
import { ReadPackage } from "./ReadPackage";
import { SchoolKeys } from "./SchoolKeys";

/** Where archived classes stand, by school year. */
export function Loft({ me }: { me: Schemas["Me"] }) {
  const coordinator = me.role === "Coordinator";
  const [deleting, setDeleting] = useState<Schemas["LoftClass"] | null>(null);
  const [using, setUsing] = useState<Schemas["LoftFound"] | null>(null);
  const loft = useQuery({ queryKey: ["loft"], queryFn: () => take(api.GET("/api/loft")) });
  const [typed, setTyped] = useState("");
  const [restoring, setRestoring] = useState<Schemas["LoftClass"] | null>(null);
  const restore = useAct(
    async (k: Schemas["LoftClass"]) => {
      const path = { params: { path: { classId: k.id } } };
      const head = await take(api.GET("/api/classes/{classId}", path));
      return take(api.POST("/api/classes/{classId}/restoring", { ...path, body: { version: head.version } }));
    },
    () => setRestoring(null),
  );
  const years = (loft.data ?? [])
    .map((y) => ({
      ...y,
      classes: y.classes.filter((k) => k.name.toLowerCase().includes(typed.trim().toLowerCase())),
    }))
    .filter((y) => y.classes.length > 0);
  const part = typed.trim();
  const found = useQuery({
    queryKey: ["loft-search", part],
    enabled: part.length > 1,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.GET("/api/loft/search", { params: { query: { find: part } } })),
  });
  const hits = part.length > 1 ? (found.data ?? []) : [];
  const total = (loft.data ?? []).reduce((n, y) => n + y.classes.length, 0);
  return (
    <Desk
      title="Loft"
      wide
      lead={
        loft.data && (
          <>
            {count(total, "archived class", "archived classes")}, read-only, nothing lost. Nothing here can be
            deleted by accident.
          </>
        )
      }
    >
      <ClosePlaces me={me} />
      <Problem error={loft.error} />
      {loft.data && total === 0 && (
        <Empty title="The loft is empty.">A class comes here when it is closed at the end of its year.</Empty>
      )}
      <TextField
        label="Find in the loft, over all years"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        helperText="A class, a folder, a file, an assignment"
        sx={{ mb: 1, width: 320 }}
      />
      {part.length > 1 && total > 0 && years.length === 0 && hits.length === 0 && !found.isFetching && (
        <Empty title="Nothing of that name in the loft." />
      )}
      {hits.length > 0 && <Hits hits={hits} onUse={setUsing} />}
      {years.map((y) => (
        <PlainTable
          label={`School year ${y.label}`}
          rows={y.classes}
          id={(k) => k.id}
          key={y.label}
          heading={y.label}
          space={{ mb: 3 }}
          columns={[
            {
              head: "Class",
              cell: (k) => (
                <>
                  <CourseMark mark={k.mark} />{" "}
                  <Link component={RouterLink} to={`/classes/${k.id}/set-up`} sx={{ ml: 0.75 }}>
                    {k.name}
                  </Link>
                </>
              ),
              width: "30%",
            },
            { head: "Lead teacher", cell: (k) => k.lead },
            {
              head: "Archived",
              says: "worth",
              by: (k) => k.archived,
              cell: (k) => k.archived && sayDate(k.archived),
            },
            {
              head: "Package",
              by: (k) => k.size,
              cell: (k) =>
                k.package && k.mayRestore ? (
                  <StateMark mark="done">
                    <a
                      href={`/api/classes/${k.id}/package`}
                      download
                      title={`SHA-256 ${k.sha256}`}
                      style={{ color: "inherit" }}
                      aria-label={`Download the package of ${k.name}`}
                    >
                      {count(k.files ?? 0, "file", "files")}, {sayBytes(k.size ?? 0)}
                    </a>
                  </StateMark>
                ) : k.package ? (
                  "checked"
                ) : (
                  "–"
                ),
            },
            {
              head: "Last read",
              says: "worth",
              by: (k) => `${k.fault ? 0 : 1} ${k.lastRead}`,
              cell: (k) => <PackageSeen k={k} />,
            },
            {
              head: "Next year",
              cell: (k) =>
                k.nextYear != null ? (
                  <Link component={RouterLink} to={`/classes/${k.nextYear}/set-up`}>
                    made
                  </Link>
                ) : k.mayRestore ? (
                  <Link component={RouterLink} to={`/classes/${k.id}/roll-over`}>
                    roll over
                  </Link>
                ) : (
                  "–"
                ),
            },
            {
              head: "",
              cell: (k) => (
                <>
                  {k.mayRestore && (
                    <Button onClick={() => setRestoring(k)} aria-label={`Restore ${k.name}`}>
                      Restore…
                    </Button>
                  )}
                  {coordinator && (
                    <Button onClick={() => setDeleting(k)} aria-label={`Delete ${k.name}`}>
                      Delete…
                    </Button>
                  )}
                </>
              ),
              align: "right",
            },
          ]}
        />
      ))}
      {coordinator && <LoftBin />}
      {coordinator && <ReadPackage />}
      {coordinator && <SchoolKeys />}
      {deleting && <DeleteClass k={deleting} onClose={() => setDeleting(null)} />}
      {using && (
        <GiveOut
          workspace={{ head: { id: using.class, kind: "Class", name: using.className } }}
          items={
            ["File", "Link", "Page"].includes(using.kind) ? [{ id: using.id, name: using.name }] : undefined
          }
          folders={using.kind === "Folder" ? [{ id: using.id, name: using.name }] : undefined}
          assignments={using.kind === "Assignment" ? [{ id: using.id, title: using.name }] : undefined}
          onClose={() => setUsing(null)}
        />
      )}
      <Ask
        open={restoring !== null}
        title={`Restore ${restoring?.name}?`}
        act="Restore the class"
        busy={restore.isPending}
        error={restore.error}
        onAct={() => restoring && restore.mutate(restoring)}
        onClose={() => setRestoring(null)}
      >
        <Typography>
          It is open again for its roster, as it was when it was closed. Its package stays in the loft; close
          it again to make a new one.
        </Typography>
      </Ask>
    </Desk>
  );
}

function Hits({ hits, onUse }: { hits: Schemas["LoftFound"][]; onUse: (h: Schemas["LoftFound"]) => void }) {
  return (
    <PlainTable
      label="Found in the loft"
      heading={`${count(hits.length, "thing", "things")} found`}
      rows={hits}
      id={(h) => `${h.kind}${h.id}`}
      space={{ mb: 3 }}
      columns={[
        {
          head: "Thing",
          cell: (h) => (
            <>
              <strong>{h.name}</strong>
              {h.folder && (
                <Typography variant="caption" component="div" sx={{ color: "text.secondary" }}>
                  in {h.folder}
                </Typography>
              )}
            </>
          ),
        },
        { head: "What", cell: (h) => h.kind.toLowerCase() },
        {
          head: "Class",
          cell: (h) => (
            <Link component={RouterLink} to={`/classes/${h.class}/set-up`}>
              {h.className}
            </Link>
          ),
        },
        { head: "Year", cell: (h) => h.yearLabel },
        {
          head: "",
          cell: (h) => (
            <Button onClick={() => onUse(h)} aria-label={`Use ${h.name} in a class`}>
              Use in a class…
            </Button>
          ),
          align: "right",
        },
      ]}
    />
  );
}
