import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

/** Lets go of a take-home for good: a coordinator by the student's name and with a reason, its own person by one yes. */
export function LetGo(props: {
  year: number;
  /** Null for one's own. */
  student: number | null;
  onClose: () => void;
}) {
  const { year, student } = props;
  const path = { params: { path: { yearId: year, personId: student ?? 0 } } };
  const mine = { params: { path: { yearId: year } } };
  const look = useQuery({
    queryKey: ["letting-go", year, student],
    queryFn: () =>
      take(
        student === null
          ? api.GET("/api/my-take-homes/{yearId}/letting-go", mine)
          : api.GET("/api/take-homes/{yearId}/{personId}/letting-go", path),
      ),
    staleTime: 0,
  });
  const [name, setName] = useState("");
  const [reason, setReason] = useState("");
  const act = useAct(
    (_: void, headers) =>
      student === null
        ? take(api.POST("/api/my-take-homes/{yearId}/letting-go", { ...mine, headers }))
        : take(
            api.POST("/api/take-homes/{yearId}/{personId}/letting-go", {
              ...path,
              body: { name, reason },
              headers,
            }),
          ),
    props.onClose,
  );
  const at = act.error?.field;
  const l = look.data;
  return (
    <Ask
      open
      title={
        student === null ? "Let go of your take-home?" : `Let go of the take-home of ${l?.student ?? "…"}?`
      }
      act="Delete the take-home"
      busy={act.isPending || !l}
      disabled={student !== null && (name.trim() === "" || reason.trim() === "")}
      error={act.error ?? look.error}
      onAct={() => act.mutate()}
      onClose={props.onClose}
    >
      {l && (
        <StateMark mark={l.alone > 0 ? "blocked" : "done"} wrap>
          {l.alone > 0
            ? `${count(l.alone, "thing", "things")} in it ${l.alone === 1 ? "stands" : "stand"} nowhere else: in no class, no bin, no other take-home. Nobody can bring that back.`
            : "All that is in it stands in a class or in another take-home too."}
        </StateMark>
      )}
      {student !== null && l && (
        <>
          <Typography sx={{ mt: 1.5 }}>
            Type the name <strong>{l.student}</strong>, and why. Both are kept in the audit trail.
          </Typography>
          <TextField
            fullWidth
            label="Name of the student"
            value={name}
            error={at === "name"}
            onChange={(e) => setName(e.target.value)}
            sx={{ mt: 1.5 }}
          />
          <TextField
            fullWidth
            label="Reason"
            value={reason}
            error={at === "reason"}
            onChange={(e) => setReason(e.target.value)}
            sx={{ mt: 1.5 }}
          />
        </>
      )}
    </Ask>
  );
}
