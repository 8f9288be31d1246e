import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { CourseMark } from "../../parts/CourseMark";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayBytes, sayDate } from "../../parts/words";

/** Where archived classes stand, by school year. */
export function Loft() {
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
      <Problem error={loft.error} />
      {loft.data && total === 0 && (
        <Empty title="The loft is empty.">A class comes here when it is closed at the end of its year.</Empty>
      )}
      {total > 0 && (
        <TextField
          label="Find in the loft"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          sx={{ mb: 1, width: 300 }}
        />
      )}
      {total > 0 && years.length === 0 && <Empty title="No archived class of that name." />}
      {years.map((y) => (
        <Table key={y.label} aria-label={`School year ${y.label}`} sx={{ mb: 3 }}>
          <TableHead>
            <TableRow>
              <TableCell sx={{ width: "38%" }}>
                <Typography component="h2" variant="h2" sx={{ color: "text.primary" }}>
                  {y.label}
                </Typography>
              </TableCell>
              <TableCell>Lead teacher</TableCell>
              <TableCell>Archived</TableCell>
              <TableCell>Package</TableCell>
              <TableCell>Next year</TableCell>
              <TableCell />
            </TableRow>
          </TableHead>
          <TableBody>
            {y.classes.map((k) => (
              <TableRow key={k.id} hover>
                <TableCell>
                  <CourseMark mark={k.mark} />{" "}
                  <Link component={RouterLink} to={`/classes/${k.id}/set-up`} sx={{ ml: 0.75 }}>
                    {k.name}
                  </Link>
                </TableCell>
                <TableCell>{k.lead}</TableCell>
                <TableCell>{k.archived && sayDate(k.archived)}</TableCell>
                <TableCell>
                  {k.package && k.mayRestore ? (
                    <StateMark mark="done">
                      <a
                        href={`/api/classes/${k.id}/package`}
                        download
                        title={`SHA-512 ${k.sha512}`}
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
                  )}
                </TableCell>
                <TableCell>
                  {k.nextYear != null ? (
                    <Link component={RouterLink} to={`/classes/${k.nextYear}/set-up`}>
                      made
                    </Link>
                  ) : k.mayRestore ? (
                    <Link component={RouterLink} to={`/classes/${k.id}/roll-over`}>
                      roll over
                    </Link>
                  ) : (
                    "–"
                  )}
                </TableCell>
                <TableCell align="right">
                  {k.mayRestore && (
                    <Button onClick={() => setRestoring(k)} aria-label={`Restore ${k.name}`}>
                      Restore…
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      ))}
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
