import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { count } from "../../parts/words";
import { later } from "../../parts/later";
import type { Row } from "./boardRows";

const ReturnMany = later(() => import("../Closing/ReturnMany"), "ReturnMany");
const OpenMany = later(() => import("../Workspaces/OpenMany"), "OpenMany");
const PublishByWeek = later(() => import("../Assignments/PublishByWeek"), "PublishByWeek");

/** The slip of the board: what the ticked classes are, and what can be done with them. */
export function BoardSlip({ rows, me }: { rows: Row[]; me: Schemas["Me"] }) {
  const [asking, setAsking] = useState<"return" | "open" | "publish" | null>(null);
  const ready = rows.filter((r) => r.state === "Open" && r.level !== "Blocks");
  const open = rows.filter((r) => r.state === "Open");
  const preparing = rows.filter((r) => r.state === "InPreparation");
  const ids = rows.map((r) => r.id);
  const notOpen = rows.length - open.length;
  const waiting = open.length - ready.length;
  const held = rows.reduce((n, r) => n + r.held, 0);
  const marked = rows.reduce((n, r) => n + r.heldMarked, 0);
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
      {preparing.length > 0 && (
        <Button variant="contained" onClick={() => setAsking("open")}>
          Open {count(preparing.length, "class", "classes")}…
        </Button>
      )}
      {preparing.length + open.length > 0 && (
        <Button variant="outlined" onClick={() => setAsking("publish")}>
          Publish drafts…
        </Button>
      )}
      {held > 0 && (
        <Button variant="contained" onClick={() => setAsking("return")}>
          Return {count(held, "piece", "pieces")}…
        </Button>
      )}
      <Button
        variant={held + preparing.length > 0 ? "outlined" : "contained"}
        disabled={ready.length === 0}
        component={RouterLink}
        to={`/close/plan?classes=${open.map((r) => r.id).join(",")}`}
      >
        Close {count(ready.length, "class", "classes")}…
      </Button>
      <Button
        variant="outlined"
        component={RouterLink}
        to={`/roll-over?classes=${rows.map((r) => r.id).join(",")}`}
      >
        Roll over {count(rows.length, "class", "classes")}…
      </Button>
      {notOpen > 0 && (
        <Typography variant="body2" color="text.secondary">
          {count(notOpen, "ticked class is", "ticked classes are")} not open: in preparation, or in the loft
          already. There is nothing to close.
        </Typography>
      )}
      {waiting > 0 && (
        <Typography variant="body2" color="text.secondary">
          {count(waiting, "ticked class", "ticked classes")} can&rsquo;t be closed: closing waits until
          nothing is held by the teacher, since what is archived with the teacher is out of the
          student&rsquo;s reach.
        </Typography>
      )}
      {asking === "return" && (
        <ReturnMany
          open
          classes={rows.filter((r) => r.held > 0).map((r) => r.id)}
          onClose={() => setAsking(null)}
        />
      )}
      {asking === "open" && <OpenMany classes={ids} onClose={() => setAsking(null)} />}
      {asking === "publish" && <PublishByWeek classes={ids} onClose={() => setAsking(null)} />}
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
