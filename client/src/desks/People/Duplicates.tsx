import Box from "@mui/material/Box";
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
import { EnrollPlaces } from "../../parts/EnrollPlaces";
import { Problem } from "../../parts/Problem";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";

type Row = Schemas["DirectoryRow"];

/** People who may be one, side by side: a person says whether they are. */
export function Duplicates({ me }: { me: Schemas["Me"] }) {
  const pairs = useQuery({
    queryKey: ["duplicates"],
    queryFn: () => take(api.GET("/api/people/duplicates")),
  });
  const joins = useQuery({ queryKey: ["joins"], queryFn: () => take(api.GET("/api/people/joins")) });
  const [asking, setAsking] = useState<{ kept: Row; gone: Row } | null>(null);
  const apart = useAct((p: { kept: number; gone: number }, headers) =>
    take(api.POST("/api/people/apart", { body: p, headers })),
  );
  const join = useAct(
    (p: { kept: number; gone: number }, headers) => take(api.POST("/api/people/joins", { body: p, headers })),
    () => setAsking(null),
  );
  const undo = useAct((joinId: number, headers) =>
    take(api.POST("/api/people/joins/{joinId}/undo", { params: { path: { joinId } }, headers })),
  );
  const all = pairs.data ?? [];
  return (
    <Desk
      title="Possible duplicates"
      wide
      lead={
        <>
          Close names that nothing tells apart. The program never joins anybody by itself.{" "}
          <Link component={RouterLink} to="/enroll/directory" variant="body2" color="text.secondary">
            directory
          </Link>
        </>
      }
    >
      <EnrollPlaces me={me} />
      <Problem error={pairs.error ?? apart.error ?? undo.error} />
      {pairs.data && all.length === 0 && (
        <Empty title="No two people look like one.">Each student has one account, as it should be.</Empty>
      )}
      {all.map((p) => (
        <Box
          key={`${p.a.id}-${p.b.id}`}
          component="section"
          aria-label={`${p.a.sortName} and ${p.b.sortName}`}
          sx={{ borderTop: 1, borderColor: "divider", py: 1.25 }}
        >
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            {p.why}, {p.near} of 100 alike
          </Typography>
          <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr auto" }, gap: 2 }}>
            {(
              [
                [p.a, p.b],
                [p.b, p.a],
              ] as const
            ).map(([x, other]) => (
              <Box key={x.id} sx={{ minWidth: 0 }}>
                <Typography variant="h3" component="h2">
                  {x.sortName}
                </Typography>
                <Typography variant="body2">
                  {[
                    x.grade && `grade ${x.grade}`,
                    x.studentNumber ? `number ${x.studentNumber}` : "no student number",
                    x.email,
                    x.byRecords ? "known to the school’s records" : "made by hand",
                  ]
                    .filter(Boolean)
                    .join(", ")}
                </Typography>
                <Typography variant="body2">signs in as {x.userName}</Typography>
                <Typography variant="body2" sx={{ color: "text.secondary" }}>
                  {x.classes.length > 0 ? x.classes.join(", ") : "in no class"}
                </Typography>
                <Button
                  variant="outlined"
                  sx={{ mt: 0.5 }}
                  onClick={() => setAsking({ kept: x, gone: other })}
                  aria-label={`They are one: keep ${x.sortName}, ${x.userName}`}
                >
                  They are one: keep this one…
                </Button>
              </Box>
            ))}
            <Button
              color="inherit"
              sx={{ alignSelf: "start" }}
              disabled={apart.isPending}
              onClick={() => apart.mutate({ kept: p.a.id, gone: p.b.id })}
            >
              They are two people
            </Button>
          </Box>
        </Box>
      ))}
      {(joins.data?.length ?? 0) > 0 && (
        <PlainTable
          label="Joined"
          rows={joins.data!}
          id={(j) => j.id}
          space={{ mt: 3 }}
          columns={[
            { head: "Kept", cell: (j) => j.kept },
            { head: "Joined into it", cell: (j) => j.gone },
            {
              head: "When",
              by: (j) => j.at,
              cell: (j) => (
                <>
                  {sayMoment(j.at)}, {j.by}
                </>
              ),
            },
            {
              head: "",
              cell: (j) =>
                j.undone ? (
                  "taken apart again"
                ) : (
                  <Button color="inherit" disabled={undo.isPending} onClick={() => undo.mutate(j.id)}>
                    Take apart again
                  </Button>
                ),
              align: "right",
            },
          ]}
        />
      )}
      <Ask
        open={asking !== null}
        title={`Join into ${asking?.kept.sortName}?`}
        act="Join the two"
        busy={join.isPending}
        error={join.error}
        onAct={() => asking && join.mutate({ kept: asking.kept.id, gone: asking.gone.id })}
        onClose={() => setAsking(null)}
      >
        {asking && (
          <Typography>
            {asking.kept.userName} is kept and gets everything of {asking.gone.userName}:{" "}
            {count(asking.gone.classes.length, "class", "classes")}, own folders, work, comments and marks.
            Where both have work for one assignment, it stands together. {asking.gone.userName} can no longer
            sign in. It can be taken apart again.
          </Typography>
        )}
      </Ask>
    </Desk>
  );
}
