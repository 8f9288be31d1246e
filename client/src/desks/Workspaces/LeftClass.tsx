import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { Desk, Empty } from "../../parts/Desk";
import { sayMark } from "../../parts/marks";
import { HandedThing } from "../../parts/HandedThing";
import { Problem } from "../../parts/Problem";
import { sayMoment } from "../../parts/words";

/** A class that one has left: one's own returned work, and nothing else. */
export function LeftClass({ id }: { id: number }) {
  const mine = useQuery({ queryKey: ["my-classes"], queryFn: () => take(api.GET("/api/my-classes")) });
  const own = useQuery({
    queryKey: ["returned", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/returned", { params: { path: { classId: id } } })),
  });
  const k = mine.data?.find((x) => x.id === id);
  return (
    <Desk
      title={k ? k.name : "Class"}
      lead="You are no longer in this class. What was returned to you stays yours."
    >
      <Problem error={own.error} />
      {own.data?.length === 0 && (
        <Empty title="Nothing has been returned to you here.">
          What your teacher still holds appears as soon as it is returned.
        </Empty>
      )}
      {(own.data ?? []).map((w, i) => (
        <Box key={i} component="section" sx={{ borderTop: 1, borderColor: "divider", py: 1.25 }}>
          <Typography variant="h3" component="h2">
            {w.assignment}
          </Typography>
          <Typography>
            {w.work.score != null && `${sayMark(w.work.score, w.points, w.scheme)}, `}
            {w.work.returnedAt && `returned ${sayMoment(w.work.returnedAt)}`}
          </Typography>
          {w.work.files.map((f) => (
            <HandedThing key={f.id} thing={f} at={`/api/classes/${id}/returned/${f.id}`} />
          ))}
          {w.work.comments.map((c, n) => (
            <Typography key={n} variant="body2">
              {c.author}: {c.text}
            </Typography>
          ))}
        </Box>
      ))}
    </Desk>
  );
}
