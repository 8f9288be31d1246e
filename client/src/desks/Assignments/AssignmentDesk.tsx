import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useNavigate, useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBinSpan, useHead, useWorkspace } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { sayTime } from "../../parts/due";
import { count, sayDate } from "../../parts/words";
import { GiveOut } from "../Workspaces/GiveOut";
import { giveWords } from "../Workspaces/ThingActs";
import { ReturnAll } from "./ReturnAll";
import { useBringBack, type InBin } from "../Workspaces/bringBack";
import { ReturnsGrid } from "./ReturnsGrid";
import { WorkSlip } from "./WorkSlip";

const keyList: [string, string][] = [
  ["↑ ↓ ← →", "go from piece to piece"],
  ["Enter", "look at the piece"],
];

/** The returns desk: students against assignments. Who holds what, and what is still to be marked. */
export function AssignmentDesk() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const returns = useQuery({
    queryKey: ["returns", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/returns", { params: { path: { classId: id } } })),
  });
  const [address, setAddress] = useSearchParams();
  const go = useNavigate();
  const make = () => void go(`/classes/${id}/work/new`);
  const [returning, setReturning] = useState<{ assignment?: Schemas["ReturnsColumn"] } | null>(null);
  const [binned, setBinned] = useState<InBin | null>(null);
  const back = useBringBack(id, () => setBinned(null));
  useKeyList(keyList);
  const workId = Number(address.get("piece")) || undefined;
  const column = returns.data?.assignments.find((a) => a.id === Number(address.get("assignment")));
  const d = returns.data;
  const shut = head.data?.state === "Archived";
  return (
    <Desk
      title="Work"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        workId ? (
          <WorkSlip classId={id} workId={workId} shut={shut} />
        ) : column ? (
          <ColumnSlip
            classId={id}
            column={column}
            shut={shut}
            onReturn={() => setReturning({ assignment: column })}
            onBinned={(thing) => {
              setBinned(thing);
              setAddress({});
            }}
          />
        ) : (
          d && (
            <>
              <Typography variant="h2">
                {d.held === 0 ? "Nothing is held" : `${count(d.held, "piece", "pieces")} held`}
              </Typography>
              <Typography>
                {d.held === 0
                  ? "Every piece of work is with its student."
                  : `${d.draftMarks} with a draft mark, ${d.unmarked} not marked. A draft mark is not a returned mark: students see neither work nor mark until you return it.`}
              </Typography>
              {d.held > 0 && !shut && (
                <Button variant="contained" onClick={() => setReturning({})}>
                  Return what is held…
                </Button>
              )}
              {!shut && (
                <Button variant={d.held > 0 ? "outlined" : "contained"} onClick={make}>
                  Make an assignment…
                </Button>
              )}
              <Typography variant="body2" sx={{ color: "text.secondary" }}>
                Choose an assignment at the top to mark all of it, one piece after another; a student at the
                left for all that is theirs; or a single piece.
              </Typography>
            </>
          )
        )
      }
    >
      <Problem error={head.error ?? returns.error ?? back.error} />
      {binned && (
        <Typography role="status" variant="body2">
          “{binned.name}” is in the bin. <Button onClick={() => back.mutate(binned)}>Bring it back</Button>
        </Typography>
      )}
      {d && (
        <Box sx={{ display: "flex", gap: 2, alignItems: "baseline", mb: 1 }}>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            ○ with the student · ◐ held by the teacher · ● returned
          </Typography>
          {(workId || column) && (
            <Link component="button" variant="body2" onClick={() => setAddress({})}>
              Back to the whole class
            </Link>
          )}
        </Box>
      )}
      {d && d.assignments.length === 0 && (
        <Empty title="No assignment yet.">
          {!shut && (
            <Link component="button" onClick={make}>
              Make the first one
            </Link>
          )}
        </Empty>
      )}
      {d && d.assignments.length > 0 && (
        <ReturnsGrid
          classId={id}
          view={d}
          piece={workId}
          onPiece={(p) => setAddress({ piece: String(p) })}
          onAssignment={(a) => setAddress({ assignment: String(a) })}
        />
      )}
      {returning && (
        <ReturnAll classId={id} assignment={returning.assignment} onClose={() => setReturning(null)} />
      )}
    </Desk>
  );
}

function ColumnSlip({
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
        {a.published ? "Published" : "A draft: students do not see it"}.{" "}
        {a.dueOn ? `Due ${sayDate(a.dueOn)}${a.dueTime ? ` by ${sayTime(a.dueTime)}` : ""}.` : "No date."}{" "}
        {a.points != null && `${a.points} points.`}
      </Typography>
      <Typography>
        <strong>
          {a.handedIn} of {a.given}
        </strong>{" "}
        handed in, {a.held} held by you.
      </Typography>
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
      <Problem error={unseen ? null : publish.error} />
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
