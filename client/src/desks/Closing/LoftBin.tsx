import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayBytes, sayMoment } from "../../parts/words";

/** Classes that were deleted from the loft and wait in the bin. */
export function LoftBin() {
  const bin = useQuery({ queryKey: ["loft-bin"], queryFn: () => take(api.GET("/api/loft/bin")) });
  const back = useAct((archivedId: number, headers) =>
    take(api.POST("/api/loft/{archivedId}/bring-back", { params: { path: { archivedId } }, headers })),
  );
  if (!bin.data || bin.data.length === 0) return <Problem error={bin.error} />;
  return (
    <Box component="section" aria-label="Bin" sx={{ mb: 3 }}>
      <PlainTable
        label="Bin of the loft"
        rows={bin.data}
        id={(b) => b.id}
        columns={[
          { head: "In the bin", cell: (b) => b.name },
          { head: "Since", says: "worth", by: (b) => b.binnedAt, cell: (b) => sayMoment(b.binnedAt) },
          {
            head: "Gone for good",
            by: (b) => b.goneAt,
            cell: (b) => (
              <>
                {sayMoment(b.goneAt)}
                {b.waits.map((w) => (
                  <StateMark key={w} mark="attention" wrap>
                    not then: {w}
                  </StateMark>
                ))}
              </>
            ),
          },
          {
            head: "",
            cell: (b) => (
              <Button
                disabled={back.isPending}
                onClick={() => back.mutate(b.id)}
                aria-label={`Bring back ${b.name}`}
              >
                Bring back
              </Button>
            ),
            align: "right",
          },
        ]}
      />
      <Problem error={back.error} />
    </Box>
  );
}

/** Asks before an archived class is deleted: what it takes away, what stands against it, its name typed out. */
export function DeleteClass({ k, onClose }: { k: Schemas["LoftClass"]; onClose: () => void }) {
  const path = { params: { path: { archivedId: k.id } } };
  const check = useQuery({
    queryKey: ["deleting", k.id],
    queryFn: () => take(api.GET("/api/loft/{archivedId}/deleting", path)),
  });
  const [typed, setTyped] = useState("");
  const act = useAct(
    (_: void, headers) =>
      take(api.POST("/api/loft/{archivedId}/deleting", { ...path, body: { name: typed }, headers })),
    onClose,
  );
  const c = check.data;
  return (
    <Ask
      open
      title={`Delete ${k.name}?`}
      act="Put it in the bin"
      disabled={!c || c.against.length > 0 || typed.trim() !== k.name}
      busy={act.isPending}
      error={act.error}
      onAct={() => act.mutate()}
      onClose={onClose}
    >
      <Problem error={check.error} />
      <Typography>
        Leaving it in the loft is the advice: it is out of the way and costs nothing. Deleted, it waits 30
        days in the bin and is then gone for good.
      </Typography>
      {c && (
        <Typography sx={{ mt: 1 }}>
          It holds {count(c.files, "file", "files")} ({sayBytes(c.bytes)}),{" "}
          {count(c.work, "piece of work", "pieces of work")} of {count(c.students, "student", "students")}.
        </Typography>
      )}
      {c?.against.map((a) => (
        <Typography key={a} sx={{ mt: 1 }}>
          <StateMark mark="blocked" wrap>
            {a}
          </StateMark>
        </Typography>
      ))}
      {c && c.against.length === 0 && (
        <TextField
          label="Type the name of the class"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          fullWidth
          autoComplete="off"
          sx={{ mt: 2 }}
        />
      )}
    </Ask>
  );
}
