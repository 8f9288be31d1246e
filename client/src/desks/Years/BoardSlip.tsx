import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { count } from "../../parts/words";
import type { Row } from "./boardRows";

/** The slip of the board: what the ticked classes are, and what can be done with them. */
export function BoardSlip({ rows, me }: { rows: Row[]; me: Schemas["Me"] }) {
  const [asking, setAsking] = useState<"return" | "close" | null>(null);
  const [failed, setFailed] = useState<string[]>([]);
  const ready = rows.filter((r) => r.state === "Open" && r.level !== "Blocks");
  const marked = rows.reduce((n, r) => n + r.heldMarked, 0);
  const held = rows.reduce((n, r) => n + r.held, 0);
  const run = useAct(
    async (act: "return" | "close") => {
      const wrong: string[] = [];
      for (const r of act === "return" ? rows.filter((x) => x.heldMarked > 0) : ready) {
        const path = { params: { path: { classId: r.id } } };
        try {
          if (act === "return")
            await take(
              api.POST("/api/classes/{classId}/returns", {
                ...path,
                body: { assignment: null, unmarkedToo: false, comment: null },
              }),
            );
          else
            await take(
              api.POST("/api/classes/{classId}/closing", { ...path, body: { afterArchive: "View" } }),
            );
        } catch (e) {
          wrong.push(`${r.name}: ${e instanceof ProblemError ? e.what : "no answer"}`);
        }
      }
      return wrong;
    },
    (wrong) => {
      setFailed(wrong);
      setAsking(null);
    },
  );
  if (rows.length === 0) return <Nothing me={me} />;
  const unfiled = rows.reduce((n, r) => n + r.unfiled, 0);
  return (
    <>
      <Typography variant="h2">{count(rows.length, "class", "classes")} ticked</Typography>
      <Typography>
        They hold <strong>{count(held, "piece", "pieces")}</strong> of work: {marked} marked, {held - marked}{" "}
        not.
        {unfiled > 0 && ` ${count(unfiled, "thing is", "things are")} in no folder.`}
      </Typography>
      {marked > 0 && (
        <Button variant="contained" onClick={() => setAsking("return")}>
          Return {count(marked, "marked piece", "marked pieces")}…
        </Button>
      )}
      <Button
        variant={marked > 0 ? "outlined" : "contained"}
        disabled={ready.length === 0}
        onClick={() => setAsking("close")}
      >
        Close {count(ready.length, "class", "classes")}…
      </Button>
      {ready.length < rows.length && (
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          {count(rows.length - ready.length, "ticked class", "ticked classes")} can&rsquo;t be closed: closing
          waits until nothing is held by the teacher, since what is archived with the teacher is out of the
          student&rsquo;s reach.
        </Typography>
      )}
      {failed.map((f) => (
        <Typography key={f} variant="body2" color="error">
          {f}
        </Typography>
      ))}
      <Ask
        open={asking !== null}
        title={asking === "return" ? "Return marked work" : "Close classes"}
        act={
          asking === "return"
            ? `Return ${count(marked, "piece", "pieces")}`
            : `Close ${count(ready.length, "class", "classes")}`
        }
        busy={run.isPending}
        error={run.error}
        onAct={() => asking && run.mutate(asking)}
        onClose={() => setAsking(null)}
      >
        <Typography>
          {asking === "return"
            ? "Draft marks become returned marks, and the students hold their work again. Work without a mark stays."
            : "Each class gets its take-homes and a checked archive package, then stands in the loft. It can be restored at any time."}
        </Typography>
        <Box component="ul" sx={{ pl: 2.5 }}>
          {(asking === "return" ? rows.filter((r) => r.heldMarked > 0) : ready).map((r) => (
            <li key={r.id}>
              {r.name}
              {asking === "return" ? `: ${r.heldMarked}` : ""}
            </li>
          ))}
        </Box>
      </Ask>
    </>
  );
}

function Nothing({ me }: { me: Schemas["Me"] }) {
  return (
    <>
      <Typography variant="h2">Nothing ticked</Typography>
      <Typography sx={{ color: "text.secondary" }}>
        Tick classes to act on several at once, or open one from its row. Every cell leads to the desk that
        mends it.
      </Typography>
      <Button variant="contained" component={RouterLink} to="/set-up">
        Make a class…
      </Button>
      {me.role === "Coordinator" && (
        <Button variant="outlined" component={RouterLink} to="/audit">
          See who did what
        </Button>
      )}
      <Typography variant="caption" sx={{ color: "text.secondary" }}>
        Space ticks · Enter opens · ? all keys
      </Typography>
    </>
  );
}
