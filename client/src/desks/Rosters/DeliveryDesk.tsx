import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { PlanChoice } from "../../parts/Choices";
import { Desk } from "../../parts/Desk";
import { EnrollPlaces } from "../../parts/EnrollPlaces";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayMoment } from "../../parts/words";
import { ChangeList } from "./ChangeList";
import { ColumnForm } from "./ColumnForm";
import { sayChanges } from "./DeliveryList";
import { deliveryStates } from "./deliveryWords";
import { Findings } from "./Findings";
import { HoldList } from "./HoldList";

/** One delivery: what it would change, what is held and why, what could not be read; then applied, or taken back. */
export function DeliveryDesk({ me }: { me: Schemas["Me"] }) {
  const id = Number(useParams().id);
  const seen = useQuery({
    queryKey: ["delivery", id],
    queryFn: () => take(api.GET("/api/deliveries/{deliveryId}", { params: { path: { deliveryId: id } } })),
  });
  const d = seen.data;
  return (
    <Desk
      title={d ? d.summary.name : "Delivery"}
      wide
      lead={d && <Lead d={d} />}
      slip={d && d.summary.state !== "ColumnsOpen" ? <DeliverySlip d={d} /> : undefined}
    >
      <EnrollPlaces me={me} />
      <Problem error={seen.error} />
      {d?.summary.state === "ColumnsOpen" && <ColumnForm d={d} />}
      {d && d.summary.state !== "ColumnsOpen" && (
        <>
          <HoldList d={d} />
          <ChangeList d={d} />
          <Findings findings={d.findings} all={d.summary.findings} />
        </>
      )}
    </Desk>
  );
}

function Lead({ d }: { d: Schemas["DeliveryView"] }) {
  const [mark, word] = deliveryStates[d.summary.state];
  return (
    <Box component="span" sx={{ display: "inline-flex", gap: 1.25, flexWrap: "wrap", alignItems: "center" }}>
      <StateMark mark={mark}>{word}</StateMark>
      <span>
        received {sayMoment(d.summary.receivedAt)}
        {d.summary.receivedBy && ` by ${d.summary.receivedBy}`}
        {d.version && `, OneRoster ${d.version}`}
      </span>
      <Link component={RouterLink} to="/enroll/deliveries" variant="body2" color="text.secondary">
        all deliveries
      </Link>
    </Box>
  );
}

function DeliverySlip({ d }: { d: Schemas["DeliveryView"] }) {
  const id = d.summary.id;
  const [plan, setPlan] = useState<number | "">("");
  const [asking, setAsking] = useState<"apply" | "back" | "aside" | null>(null);
  const [done, setDone] = useState<Schemas["DeliveryApplied"]>();
  const [left, setLeft] = useState<Schemas["DeliveryTakenBack"]>();
  const path = { params: { path: { deliveryId: id } } };
  const apply = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/deliveries/{deliveryId}/apply", {
          ...path,
          body: { plan: plan === "" ? null : plan, version: d.summary.version },
          headers,
        }),
      ),
    (out) => {
      setDone(out);
      setLeft(undefined);
      setAsking(null);
    },
  );
  const back = useAct(
    (_: void, headers) => take(api.POST("/api/deliveries/{deliveryId}/take-back", { ...path, headers })),
    (out) => {
      setLeft(out);
      setDone(undefined);
      setAsking(null);
    },
  );
  const aside = useAct(
    (_: void, headers) => take(api.POST("/api/deliveries/{deliveryId}/set-aside", { ...path, headers })),
    () => setAsking(null),
  );
  const open = d.summary.state === "Waiting" || d.summary.state === "Applied";
  const applied = d.applied.find((a) => !a.takenBackAt);
  const ready = d.ready;
  return (
    <>
      <Typography variant="h2">
        {ready === 0 && d.summary.onHold === 0
          ? d.summary.state === "Applied"
            ? "All of it is applied"
            : "Nothing to change"
          : `${sayChanges(ready)} ready`}
      </Typography>
      <Typography>
        {d.summary.onHold > 0
          ? `${sayChanges(d.summary.onHold)} on hold until you decide; they stay out of what is applied.`
          : ready > 0
            ? "Nothing is on hold."
            : "Rosters are as the delivery has them."}{" "}
        {d.same > 0 && `${count(d.same, "place on a roster is", "places on rosters are")} already so.`}
      </Typography>
      {open && ready > 0 && (
        <>
          {(d.summary.changes.NewClass ?? 0) > 0 && (
            <PlanChoice label="Folder plan of new classes" value={plan} onChange={setPlan} />
          )}
          <Button variant="contained" onClick={() => setAsking("apply")}>
            Apply {sayChanges(ready)}…
          </Button>
        </>
      )}
      {done && (
        <Box role="status">
          <StateMark mark="done">{sayChanges(done.changes)} applied</StateMark>
          <Typography variant="body2">
            {count(done.folders, "folder", "folders")} unfolded.{" "}
            {done.onHold > 0 && `${done.onHold} still on hold.`}
          </Typography>
        </Box>
      )}
      {left && (
        <Box role="status">
          <StateMark mark="done">{sayChanges(left.changes)} taken back</StateMark>
          {left.left.map((l) => (
            <Typography key={l} variant="body2">
              {l}.
            </Typography>
          ))}
        </Box>
      )}
      {applied && (
        <Typography sx={{ color: "text.secondary" }}>
          {sayChanges(applied.changes)} applied {sayMoment(applied.at)}
          {applied.by && ` by ${applied.by}`}.
        </Typography>
      )}
      {d.takesBack && (
        <Button variant="outlined" onClick={() => setAsking("back")}>
          Take it back…
        </Button>
      )}
      {(d.summary.state === "Waiting" || (d.summary.state === "Applied" && d.summary.onHold > 0)) && (
        <Button color="inherit" onClick={() => setAsking("aside")}>
          {d.summary.state === "Waiting" ? "Set it aside…" : "Let go of what is on hold…"}
        </Button>
      )}
      <Link href={`/api/deliveries/${id}/source`} download variant="body2">
        The file as it came
      </Link>
      <Ask
        open={asking === "apply"}
        title={`Apply ${sayChanges(ready)}?`}
        act={`Apply ${sayChanges(ready)}`}
        busy={apply.isPending}
        error={apply.error}
        onAct={() => apply.mutate()}
        onClose={() => setAsking(null)}
      >
        <Typography>
          All of them or none. Students who join see their classes at once, with their own folders; new
          classes begin in preparation. {d.summary.onHold > 0 && `${d.summary.onHold} stay on hold. `}
          It can be taken back.
        </Typography>
      </Ask>
      <Ask
        open={asking === "back"}
        title="Take the delivery back?"
        act="Take it back"
        busy={back.isPending}
        error={back.error}
        onAct={() => back.mutate()}
        onClose={() => setAsking(null)}
      >
        <Typography>
          Rosters, people and classes stand again as before it was applied. What has been used since, a new
          class that was opened or a folder with work in it, stays, and is told to you.
        </Typography>
      </Ask>
      <Ask
        open={asking === "aside"}
        title={d.summary.state === "Waiting" ? "Set the delivery aside?" : "Let go of what is on hold?"}
        act={d.summary.state === "Waiting" ? "Set it aside" : "Let go of it"}
        busy={aside.isPending}
        error={aside.error}
        onAct={() => aside.mutate()}
        onClose={() => setAsking(null)}
      >
        <Typography>Nothing more comes of it. It stays in the list; send it again if you need it.</Typography>
      </Ask>
    </>
  );
}
