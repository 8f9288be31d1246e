import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { count } from "../../parts/words";

/** Returns what is held in several classes, or of one student in them: what it comes to is said first. */
export function ReturnMany({
  open,
  classes,
  student = null,
  onClose,
}: {
  open: boolean;
  classes: number[];
  student?: number | null;
  onClose: () => void;
}) {
  const [unmarkedToo, setUnmarkedToo] = useState(false);
  const [comment, setComment] = useState("");
  const scope = { classes, student, unmarkedToo, assignments: null };
  const preview = useQuery({
    queryKey: ["return-many", scope],
    enabled: open && classes.length > 0,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/returns/preview", { body: scope })),
  });
  const act = useAct(
    (_: void, headers) => take(api.POST("/api/returns", { body: { scope, comment }, headers })),
    () => {
      setComment("");
      setUnmarkedToo(false);
      onClose();
    },
  );
  const p = preview.data;
  return (
    <Ask
      open={open}
      title="Return what is held"
      act={p ? `Return ${count(p.pieces, "piece", "pieces")} of work` : "Return"}
      disabled={!p || p.pieces === 0}
      busy={act.isPending || preview.isFetching}
      error={act.error}
      onAct={() => act.mutate()}
      onClose={onClose}
    >
      <Problem error={preview.error} />
      {p && (
        <Typography role="status">
          <strong>{count(p.pieces, "piece", "pieces")}</strong> to {count(p.students, "student", "students")};{" "}
          {count(p.draftMarks, "draft mark becomes a", "draft marks become")} returned{" "}
          {p.draftMarks === 1 ? "mark" : "marks"}
          {p.unmarked > 0 &&
            `; ${p.unmarked} without a mark ${unmarkedToo ? "go back unmarked" : "stay with the teacher"}`}
          .
        </Typography>
      )}
      {p && p.classes.length > 1 && (
        <Box role="region" aria-label="Classes" tabIndex={0} sx={{ maxHeight: 180, overflow: "auto" }}>
          <Box component="ul" sx={{ pl: 2.5, m: 0 }}>
            {p.classes
              .filter((k) => k.pieces + k.unmarked > 0)
              .map((k) => (
                <li key={k.id}>
                  {k.name}: {k.pieces} to {count(k.students, "student", "students")}
                  {k.unmarked > 0 && `, ${k.unmarked} without a mark`}
                </li>
              ))}
          </Box>
        </Box>
      )}
      {p && (p.unmarked > 0 || unmarkedToo) && (
        <FormControlLabel
          control={<Checkbox checked={unmarkedToo} onChange={(e) => setUnmarkedToo(e.target.checked)} />}
          label="Return work without a mark too"
        />
      )}
      <TextField
        label="A private comment to each (optional)"
        value={comment}
        onChange={(e) => setComment(e.target.value)}
        multiline
        minRows={2}
        fullWidth
        sx={{ mt: 1 }}
      />
    </Ask>
  );
}
