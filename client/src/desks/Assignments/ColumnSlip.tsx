import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBinSpan, useWorkspace } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { sayMarked } from "../../parts/marks";
import { StateMark } from "../../parts/StateMark";
import { sayTime } from "../../parts/due";
import { count, sayDate, sayDay } from "../../parts/words";
import type { InBin } from "../Workspaces/bringBack";
import { GiveOut } from "../Workspaces/GiveOut";
import { giveWords } from "../Workspaces/ThingActs";

/** An assignment in hand: how far it has come in, and all that is done with it. */
export function ColumnSlip({
  classId,
  column: a,
  shut,
  onReturn,
  onBinned,
}: {
  classId: number;
  column: Schemas["ReturnsColumn"];
  shut: boolean;
  onReturn: () => void;
  onBinned: (thing: InBin) => void;
}) {
  const span = useBinSpan();
  const path = { params: { path: { classId, assignmentId: a.id } } };
  const publish = useAct(
    (evenSo: boolean, headers) =>
      take(
        api.POST("/api/classes/{classId}/assignments/{assignmentId}/publishing", {
          ...path,
          body: { version: a.version, evenSo },
          headers,
        }),
      ),
    () => setAsking(null),
  );
  const withdraw = useAct((_: void, headers) =>
    take(
      api.DELETE("/api/classes/{classId}/assignments/{assignmentId}/publishing", {
        params: { ...path.params, query: { version: a.version } },
        headers,
      }),
    ),
  );
  const unseen = publish.error?.code === "publish-unseen" ? publish.error : null;
  const bin = useAct(
    (_: void, headers) =>
      take(api.DELETE("/api/classes/{classId}/assignments/{assignmentId}", { ...path, headers })),
    () => {
      setAsking(null);
      onBinned({ kind: "Assignment", id: a.id, name: a.title });
    },
  );
  const workspace = useWorkspace(classId);
  const go = useNavigate();
  const [asking, setAsking] = useState<"give" | "bin" | null>(null);
  const bank = workspace.data?.head.kind === "Department";
  return (
    <>
      <Typography variant="h2">{a.title}</Typography>
      <Typography>
        {a.published
          ? "Published"
          : a.publishAt
            ? `A draft, published by itself on ${sayDay(a.publishAt.slice(0, 10))}, ${sayTime(a.publishAt.slice(11))}`
            : "A draft: students do not see it"}
        . {a.dueOn ? `Due ${sayDate(a.dueOn)}${a.dueTime ? ` by ${sayTime(a.dueTime)}` : ""}.` : "No date."}{" "}
        {a.points != null && `${sayMarked(a)}.`}
      </Typography>
      <Typography>
        <strong>
          {a.handedIn} of {a.given}
        </strong>{" "}
        handed in, {a.held} held by you.
      </Typography>
      {a.groups.length > 0 && (
        <Typography>
          For {a.groups.length === 1 ? "group" : "groups"} {a.groups.join(", ")}
          {a.given === 0 && ": there is nobody in it, so it stays a draft"}.
        </Typography>
      )}
      {a.inStep.length > 0 && !shut && (
        <Typography variant="body2">
          Kept in step with {a.inStep.join("; ")}: changed, published or taken back here, it is so there too,
          until somebody hands in.
        </Typography>
      )}
      {workspace.data && !shut && (
        <>
          <Button variant={bank ? "contained" : "outlined"} onClick={() => setAsking("give")}>
            {giveWords(workspace.data)}
          </Button>
          <Button variant="outlined" onClick={() => void go(`/classes/${classId}/work/${a.id}`)}>
            Change…
          </Button>
          {asking === "give" && (
            <GiveOut workspace={workspace.data} assignments={[a]} onClose={() => setAsking(null)} />
          )}
        </>
      )}
      {!a.published && !shut && !bank && (
        <Button variant="contained" disabled={publish.isPending} onClick={() => publish.mutate(false)}>
          Publish
        </Button>
      )}
      {a.handedIn > 0 && (
        <Button
          variant={a.held > 0 && !shut ? "contained" : "outlined"}
          component={RouterLink}
          to={`/classes/${classId}/marking?assignment=${a.id}`}
        >
          {a.held > 0 && !shut ? "Mark one after another" : "Look through the pieces"}
        </Button>
      )}
      {a.published && a.handedIn === 0 && !shut && (
        <Button variant="outlined" disabled={withdraw.isPending} onClick={() => withdraw.mutate()}>
          Take it back to a draft
        </Button>
      )}
      {a.held > 0 && !shut && (
        <Button variant="outlined" onClick={onReturn}>
          Return {count(a.held, "piece", "pieces")}…
        </Button>
      )}
      {a.handedIn > 0 && (
        <Button
          variant="outlined"
          component="a"
          href={`/api/classes/${classId}/assignments/${a.id}/work.zip`}
          download
        >
          Download all work
        </Button>
      )}
      {a.handedIn === 0 && !shut && (
        <Button variant="outlined" color="inherit" disabled={bin.isPending} onClick={() => setAsking("bin")}>
          Bin this assignment…
        </Button>
      )}
      <Ask
        open={asking === "bin"}
        title={`Bin “${a.title}”?`}
        act="Put it in the bin"
        busy={bin.isPending}
        error={bin.error}
        onAct={() => bin.mutate()}
        onClose={() => setAsking(null)}
      >
        <Typography>
          {a.published ? "Students no longer see it. " : ""}Nobody has handed in work for it. It stands in the
          bin of the class for {span} and can be brought back, in the folders it is filed in.
        </Typography>
      </Ask>
      <Problem error={unseen ? withdraw.error : (publish.error ?? withdraw.error)} />
      <Ask
        open={unseen !== null}
        title={`Publish “${a.title}”?`}
        act="Publish it all the same"
        busy={publish.isPending}
        onAct={() => publish.mutate(true)}
        onClose={() => publish.reset()}
      >
        <StateMark mark="blocked" wrap>
          {unseen?.what}
        </StateMark>
        <Typography sx={{ mt: 1 }}>{unseen?.mend}</Typography>
      </Ask>
    </>
  );
}
