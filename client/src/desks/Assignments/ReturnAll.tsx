import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { count } from "../../parts/words";

/** Returns all that is held: says first how many pieces to how many students, and what of it has no mark. */
export function ReturnAll({
  classId,
  assignment,
  onClose,
}: {
  classId: number;
  assignment?: Schemas["ReturnsColumn"];
  onClose: () => void;
}) {
  const [unmarkedToo, setUnmarked] = useState(false);
  const [comment, setComment] = useState("");
  const preview = useQuery({
    queryKey: ["return-preview", classId, assignment?.id, unmarkedToo],
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/returns/preview", {
          params: {
            path: { classId },
            query: { ...(assignment ? { assignment: assignment.id } : {}), unmarkedToo },
          },
        }),
      ),
  });
  const all = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/returns", {
          params: { path: { classId } },
          body: { assignment: assignment?.id ?? null, unmarkedToo, comment: comment || null },
          headers,
        }),
      ),
    onClose,
  );
  const p = preview.data;
  return (
    <Ask
      open
      title={assignment ? `Return ${assignment.title}` : "Return what is held"}
      act={p ? `Return ${count(p.pieces, "piece", "pieces")} of work` : "Return"}
      busy={all.isPending}
      disabled={!p || p.pieces === 0}
      error={all.error ?? preview.error}
      onAct={() => all.mutate()}
      onClose={onClose}
    >
      {p && (
        <Typography>
          <strong>{count(p.pieces, "piece", "pieces")}</strong> to {count(p.students, "student", "students")};{" "}
          {count(p.draftMarks, "draft mark becomes", "draft marks become")} returned. From then on the
          students hold their work.
        </Typography>
      )}
      {p && p.unmarked > 0 && (
        <FormControlLabel
          control={<Checkbox checked={unmarkedToo} onChange={(e) => setUnmarked(e.target.checked)} />}
          label={`Return the ${count(p.unmarked, "piece", "pieces")} without a mark too`}
        />
      )}
      <TextField
        fullWidth
        multiline
        minRows={2}
        label="For each student alone (optional)"
        value={comment}
        onChange={(e) => setComment(e.target.value)}
        sx={{ mt: 2 }}
      />
    </Ask>
  );
}
