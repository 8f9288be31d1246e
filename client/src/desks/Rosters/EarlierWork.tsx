import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../api/client";
import { HandedThing } from "../../parts/HandedThing";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";

/** What a student did in the set they came from. */
export function EarlierWork(props: { classId: number; student: Schemas["RosterRow"]; onClose: () => void }) {
  const { classId, student } = props;
  const earlier = useQuery({
    queryKey: ["earlier", classId, student.id],
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/roster/{personId}/earlier", {
          params: { path: { classId, personId: student.id } },
        }),
      ),
  });
  return (
    <Dialog open onClose={props.onClose} maxWidth="md" fullWidth aria-labelledby="earlier">
      <DialogTitle id="earlier">
        {student.sortName} in {student.movedFrom}
      </DialogTitle>
      <DialogContent>
        <Problem error={earlier.error} />
        {earlier.data?.length === 0 && <Typography>Nothing was handed in there.</Typography>}
        {(earlier.data ?? []).map((w, i) => (
          <Box key={i} sx={{ borderTop: 1, borderColor: "divider", py: 1 }}>
            <Typography variant="h3">{w.assignment}</Typography>
            <Typography>
              <StateMark mark={w.state === "Returned" ? "done" : "attention"}>
                {w.state === "Returned" ? "returned" : "still held in the set they left"}
              </StateMark>
              {w.score != null && `, ${w.score}${w.points == null ? "" : ` of ${w.points}`}`}
            </Typography>
            {w.files.map((f) => (
              <HandedThing
                key={f.id}
                thing={f}
                at={`/api/classes/${classId}/roster/${student.id}/earlier/${f.id}`}
              />
            ))}
            {w.comments.map((c, k) => (
              <Typography key={k} variant="body2">
                {c.author}: {c.text}
              </Typography>
            ))}
          </Box>
        ))}
      </DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={props.onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}
