import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";
import { ClosePlaces } from "./ClosePlaces";

/** A teacher's own space: kept copies by school year, and papers that were kept when tidying. */
export function KeptCopies({ me }: { me: Schemas["Me"] }) {
  const kept = useQuery({ queryKey: ["kept"], queryFn: () => take(api.GET("/api/kept-copies")) });
  const [dropping, setDropping] = useState<Schemas["KeptCopy"] | null>(null);
  const drop = useAct(
    (k: Schemas["KeptCopy"], headers) =>
      take(api.DELETE("/api/classes/{classId}/kept-copy", { params: { path: { classId: k.id } }, headers })),
    () => setDropping(null),
  );
  const years = [...new Set((kept.data ?? []).map((k) => k.yearLabel))];
  return (
    <Desk
      title="Kept copies"
      wide
      lead="Your own space: set-ups and papers to draw on later, whatever becomes of the class. Nobody's work is in them."
    >
      <ClosePlaces me={me} />
      <Problem error={kept.error} />
      {kept.data && kept.data.length === 0 && (
        <Empty title="You keep no copy yet.">
          Keep one of a class at its closing desk or of a folder at its set-up desk; or tick it in the plan of
          a closing run.
        </Empty>
      )}
      {years.map((y) => (
        <PlainTable
          label={`Kept from ${y}`}
          rows={kept.data!.filter((k) => k.yearLabel === y)}
          id={(k) => k.id}
          key={y}
          heading={y}
          space={{ mb: 3 }}
          columns={[
            {
              head: "Copy",
              cell: (k) => (
                <Link component={RouterLink} to={`/classes/${k.id}/set-up`}>
                  {k.name}
                </Link>
              ),
              width: "32%",
            },
            {
              head: "Made of",
              cell: (k) => k.fromName ?? (k.from == null ? "your own papers" : "a class that is gone"),
            },
            {
              head: "Holds",
              cell: (k) => (
                <>
                  {count(k.folders, "folder", "folders")}, {count(k.things, "thing", "things")},{" "}
                  {count(k.assignments, "draft", "drafts")}
                </>
              ),
            },
            { head: "Kept", says: "worth", by: (k) => k.keptAt, cell: (k) => sayMoment(k.keptAt) },
            {
              head: "",
              cell: (k) => (
                <>
                  <Button
                    component={RouterLink}
                    to={`/classes/${k.id}/set-up`}
                    aria-label={`Use from it: ${k.name}`}
                  >
                    Use from it
                  </Button>
                  <Button onClick={() => setDropping(k)} aria-label={`Throw away ${k.name}`}>
                    Throw away…
                  </Button>
                </>
              ),
              align: "right",
              look: "line",
            },
          ]}
        />
      ))}
      <Ask
        open={dropping !== null}
        title={`Throw away “${dropping?.name}”?`}
        act="Throw the copy away"
        busy={drop.isPending}
        error={drop.error}
        onAct={() => dropping && drop.mutate(dropping)}
        onClose={() => setDropping(null)}
      >
        <Typography>
          It goes from your space. The class it was made of stays as it is. This can&rsquo;t be undone by you.
        </Typography>
      </Ask>
    </Desk>
  );
}
