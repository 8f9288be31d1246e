import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { count } from "../../parts/words";

/** Sites and shared materials that a class uses, each leading to its place. */
export function UsedThings({ things }: { things: Schemas["UsedThing"][] }) {
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {things.map((t) => (
        <Typography component="li" variant="body2" key={t.id}>
          {t.url ? (
            <a href={t.url} target="_blank" rel="noreferrer noopener">
              {t.title}
            </a>
          ) : t.fileName ? (
            <a href={`/api/shared-things/${t.id}/content`} download>
              {t.title}
            </a>
          ) : (
            t.title
          )}
          {t.forWhom === "StaffOnly" && " (staff only)"}
        </Typography>
      ))}
    </Box>
  );
}

/** Ticks what of the school's list this class uses. */
export function ChooseThings({ classId, onClose }: { classId: number; onClose: () => void }) {
  const path = { params: { path: { classId } } };
  const offered = useQuery({
    queryKey: ["offered-things", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/shared-things", path)),
  });
  const [ticked, setTicked] = useState<ReadonlySet<number> | null>(null);
  const all = offered.data ?? [];
  const now = ticked ?? new Set(all.filter((o) => o.used).map((o) => o.id));
  const save = useAct(
    () => take(api.PUT("/api/classes/{classId}/shared-things", { ...path, body: { things: [...now] } })),
    onClose,
  );
  return (
    <Ask
      open
      title="What this class uses"
      act={`Use ${count(now.size, "thing", "things")}`}
      busy={save.isPending}
      disabled={!offered.data}
      error={save.error ?? offered.error}
      onAct={() => save.mutate(undefined)}
      onClose={onClose}
    >
      <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
        From the school&rsquo;s list. What is ticked stands in the class for its students.
      </Typography>
      {offered.data?.length === 0 && (
        <Typography>The school&rsquo;s list is empty. The coordinator keeps it, in Plan.</Typography>
      )}
      {all.map((o) => (
        <Box key={o.id} sx={{ borderTop: 1, borderColor: "divider" }}>
          <FormControlLabel
            control={
              <Checkbox
                checked={now.has(o.id)}
                disabled={o.whyNot != null && !o.used}
                onChange={() => {
                  const next = new Set(now);
                  if (!next.delete(o.id)) next.add(o.id);
                  setTicked(next);
                }}
              />
            }
            label={
              <>
                {o.title}{" "}
                <Typography component="span" variant="body2" sx={{ color: "text.secondary" }}>
                  {o.whyNot ?? (o.forWhom === "StaffOnly" ? "staff only" : (o.url ?? o.fileName ?? ""))}
                </Typography>
              </>
            }
          />
        </Box>
      ))}
    </Ask>
  );
}
