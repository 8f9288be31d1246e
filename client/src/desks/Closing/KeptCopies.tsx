import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
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
        <Table key={y} aria-label={`Kept from ${y}`} sx={{ mb: 3 }}>
          <TableHead>
            <TableRow>
              <TableCell sx={{ width: "32%" }}>
                <Typography component="h2" variant="h2" sx={{ color: "text.primary" }}>
                  {y}
                </Typography>
              </TableCell>
              <TableCell>Made of</TableCell>
              <TableCell>Holds</TableCell>
              <TableCell>Kept</TableCell>
              <TableCell />
            </TableRow>
          </TableHead>
          <TableBody>
            {kept
              .data!.filter((k) => k.yearLabel === y)
              .map((k) => (
                <TableRow key={k.id} hover>
                  <TableCell>
                    <Link component={RouterLink} to={`/classes/${k.id}/set-up`}>
                      {k.name}
                    </Link>
                  </TableCell>
                  <TableCell>
                    {k.fromName ?? (k.from == null ? "your own papers" : "a class that is gone")}
                  </TableCell>
                  <TableCell>
                    {count(k.folders, "folder", "folders")}, {count(k.things, "thing", "things")},{" "}
                    {count(k.assignments, "draft", "drafts")}
                  </TableCell>
                  <TableCell>{sayMoment(k.keptAt)}</TableCell>
                  <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
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
                  </TableCell>
                </TableRow>
              ))}
          </TableBody>
        </Table>
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
