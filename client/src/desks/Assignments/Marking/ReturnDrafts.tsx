import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Problem } from "../../../parts/Problem";
import { count } from "../../../parts/words";

/** Returns all pieces that have a draft mark, in one act over all sections. */
export function ReturnDrafts(props: {
  classes: number[];
  assignments: number[];
  student: number | null;
  onDone: (done: string) => void;
  onClose: () => void;
}) {
  const scope = {
    classes: props.classes,
    student: props.student,
    assignments: props.assignments,
    unmarkedToo: false,
  };
  const preview = useQuery({
    queryKey: ["return-many", scope],
    queryFn: () => take(api.POST("/api/returns/preview", { body: scope })),
  });
  const act = useAct(
    (_: void, headers) => take(api.POST("/api/returns", { body: { scope, comment: null }, headers })),
    (done) => props.onDone(`${count(done.pieces, "piece", "pieces")} returned.`),
  );
  const p = preview.data;
  return (
    <Ask
      open
      title="Return the drafts"
      act={p ? `Return ${count(p.pieces, "piece", "pieces")} of work` : "Return"}
      disabled={!p || p.pieces === 0}
      busy={act.isPending || preview.isFetching}
      error={act.error}
      onAct={() => act.mutate()}
      onClose={props.onClose}
    >
      <Problem error={preview.error} />
      {p && (
        <Typography role="status">
          <strong>{count(p.pieces, "piece goes", "pieces go")}</strong> back to{" "}
          {count(p.students, "student", "students")} with their marks and comments
          {p.unmarked > 0 && `; ${p.unmarked} without a mark ${p.unmarked === 1 ? "stays" : "stay"} with you`}
          .
        </Typography>
      )}
    </Ask>
  );
}
