import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useNavigate, useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useHead } from "../../api/queries";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { later } from "../../parts/later";
import { count } from "../../parts/words";
import { PublishDrafts } from "./PublishDrafts";
import { ColumnSlip } from "./ColumnSlip";
import { ReturnAll } from "./ReturnAll";
import { useBringBack, type InBin } from "../Workspaces/bringBack";
import { ReturnsGrid } from "./ReturnsGrid";
import { WorkSlip } from "./WorkSlip";

const PaperLists = later(() => import("./PaperLists"), "PaperLists");

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
  const drafts = d?.assignments.filter((a) => !a.published) ?? [];
  const [publishing, setPublishing] = useState(false);
  const [published, setPublished] = useState("");
  const [onPaper, setOnPaper] = useState(false);
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
                {d.held > 0
                  ? `${count(d.held, "piece", "pieces")} held`
                  : d.draftMarks > 0
                    ? `${count(d.draftMarks, "draft mark", "draft marks")} to return`
                    : "Nothing is held"}
              </Typography>
              <Typography>
                {d.held + d.draftMarks === 0
                  ? "Every piece of work is with its student."
                  : `${d.draftMarks} with a draft mark, ${d.unmarked} not marked. A draft mark is not a returned mark: students see neither work nor mark until you return it.`}
              </Typography>
              {d.held + d.draftMarks > 0 && !shut && (
                <Button variant="contained" onClick={() => setReturning({})}>
                  {d.held > 0 ? "Return what is held…" : "Return them…"}
                </Button>
              )}
              {!shut && (
                <Button variant={d.held > 0 ? "outlined" : "contained"} onClick={make}>
                  Make an assignment…
                </Button>
              )}
              {!shut && drafts.length > 1 && head.data?.kind === "Class" && (
                <Button variant="outlined" onClick={() => setPublishing(true)}>
                  Publish {count(drafts.length, "draft", "drafts")}…
                </Button>
              )}
              {d.assignments.length > 0 && (
                <Typography variant="body2">
                  <Link component={RouterLink} to={`/classes/${id}/scores`}>
                    Scores
                  </Link>
                  : figures of each assignment, out and in as a table
                </Typography>
              )}
              {head.data?.kind === "Class" && !shut && (
                <Typography variant="body2">
                  <Link component="button" variant="body2" onClick={() => setOnPaper(true)}>
                    Lists on paper
                  </Link>
                  : for homes what is due and what came back, for the wall folders and dates
                </Typography>
              )}
              {head.data?.kind === "Class" && (
                <Typography variant="body2">
                  <Link component={RouterLink} to={`/classes/${id}/activity`}>
                    Activity
                  </Link>
                  : who was here on which day, and who has gone quiet
                </Typography>
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
      {published !== "" && (
        <Typography role="status" variant="body2">
          {published}
        </Typography>
      )}
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
      {publishing && (
        <PublishDrafts
          classId={id}
          drafts={drafts}
          onDone={(said) => {
            setPublished(said);
            setPublishing(false);
          }}
          onClose={() => setPublishing(false)}
        />
      )}
      {onPaper && <PaperLists classId={id} onClose={() => setOnPaper(false)} />}
      {returning && (
        <ReturnAll classId={id} assignment={returning.assignment} onClose={() => setReturning(null)} />
      )}
    </Desk>
  );
}
