import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

/** What students should see and cannot, found by the program, each with its mend. */
export function BlindSpots({ classId }: { classId: number }) {
  const path = { params: { path: { classId } } };
  const spots = useQuery({
    queryKey: ["blind-spots", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/blind-spots", path)),
  });
  const mend = useAct((i: number, headers) => {
    const { kind, folder, assignment } = spots.data![i]!;
    return take(
      api.POST("/api/classes/{classId}/blind-spots/mending", {
        ...path,
        body: { kind, folder, assignment },
        headers,
      }),
    );
  });
  if (spots.error) return <Problem error={spots.error} />;
  if (!spots.data) return null;
  if (spots.data.length === 0)
    return (
      <Typography variant="body2">
        <StateMark mark="done">no blind spots</StateMark>
      </Typography>
    );
  return (
    <Box component="section" aria-label="Blind spots">
      <Typography variant="h3" component="h2">
        <StateMark mark="attention" strong>
          {count(spots.data.length, "blind spot", "blind spots")}
        </StateMark>
      </Typography>
      <Problem error={mend.error} />
      {spots.data.slice(0, 6).map((s, i) => (
        <Box
          key={`${s.kind}-${s.folder}-${s.assignment}-${s.students[0]}`}
          sx={{ borderTop: 1, borderColor: "divider", py: 0.75 }}
        >
          <Typography variant="body2">{s.text}</Typography>
          {s.mend && (
            <Button sx={{ ml: -1.75 }} disabled={mend.isPending} onClick={() => mend.mutate(i)}>
              {s.mend}
            </Button>
          )}
        </Box>
      ))}
      {spots.data.length > 6 && <Typography variant="body2">and {spots.data.length - 6} more</Typography>}
    </Box>
  );
}
