import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Attached } from "../../../parts/Attached";
import { Criteria } from "../../../parts/Criteria";
import { HandedThing } from "../../../parts/HandedThing";
import { sayMark, sayMarked } from "../../../parts/marks";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { sayDue, sayLate } from "../../../parts/due";
import { Turns } from "../../../parts/Turns";
import { isKept } from "../../../parts/useDraft";
import { Written } from "../../../parts/Written";
import { sayMoment } from "../../../parts/words";
import { AddOwn } from "./AddOwn";
import { newPage, ReadOwnPage, WriteOwnPage } from "./OwnPage";

/** An assignment as its student works on it: put files in, hand in, see it come back. */
export function OwnAssignment({
  classId,
  assignment: a,
  shut,
}: {
  classId: number;
  assignment: Schemas["AssignmentView"];
  shut: boolean;
}) {
  const path = { params: { path: { classId, assignmentId: a.id } } };
  const handIn = useAct((_: void, headers) =>
    take(
      api.POST("/api/classes/{classId}/assignments/{assignmentId}/own-work/hand-in", { ...path, headers }),
    ),
  );
  const takeBack = useAct((_: void, headers) =>
    take(
      api.POST("/api/classes/{classId}/assignments/{assignmentId}/own-work/take-back", { ...path, headers }),
    ),
  );
  const remove = useAct((fileId: number) =>
    take(
      api.DELETE("/api/classes/{classId}/assignments/{assignmentId}/own-work/files/{fileId}", {
        params: { path: { ...path.params.path, fileId } },
      }),
    ),
  );
  const own = a.own;
  const held = own?.heldBy === "Teacher";
  const files = own?.files ?? [];
  // What came back is left in peace unless the student goes at it once more.
  const [again, setAgain] = useState(false);
  const returned = own?.state === "Returned";
  // The page that is being written or read; a new one that was begun is there again after a reload.
  const [page, setPage] = useState<number | "new" | null>(() =>
    isKept(newPage(classId, a.id)) ? "new" : null,
  );
  const working = !shut && !held && (!returned || again);
  return (
    <Box
      component="section"
      aria-label={a.title}
      sx={{ borderTop: "1.5px solid", borderColor: "text.primary", py: 1.25, mb: 1.5 }}
    >
      <Box sx={{ display: "flex", gap: 2, alignItems: "baseline" }}>
        <Typography variant="h3">{a.title}</Typography>
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          {[...a.groups.map((g) => `for group ${g.name}`), sayDue(a), sayMarked(a)]
            .filter(Boolean)
            .join(", ")}
        </Typography>
        <Box sx={{ flex: 1 }} />
        {own?.lateMinutes != null && <StateMark mark="attention">{sayLate(own.lateMinutes)}</StateMark>}
        {!own || own.state === "Working" ? (
          a.dueState === "Late" ? (
            <StateMark mark="attention">late, still taken</StateMark>
          ) : a.dueState === "Closed" ? (
            <StateMark mark="blocked">not taken any more</StateMark>
          ) : (
            <StateMark mark="notYet">with you</StateMark>
          )
        ) : held ? (
          <StateMark mark="underway">handed in: your teacher holds it</StateMark>
        ) : (
          <StateMark mark="done">
            returned{own.score != null ? `, ${sayMark(own.score, a.points, a.scheme)}` : ""}
          </StateMark>
        )}
      </Box>
      {a.instructions && <Written text={a.instructions} lines />}
      {a.scheme && <Criteria scheme={a.scheme} chosen={own?.chosen} />}
      <Attached classId={classId} assignmentId={a.id} things={a.things} />
      {files.map((f) => (
        <div key={f.id}>
          <HandedThing thing={f} at={`/api/classes/${classId}/assignments/${a.id}/own-work/files/${f.id}`}>
            {f.kind === "Page" && (
              <Button
                color="inherit"
                aria-expanded={page === f.id}
                onClick={() => setPage(page === f.id ? null : f.id)}
                aria-label={`${working ? "Write on" : "Read"} ${f.name}`}
              >
                {working ? "Write on" : "Read"}
              </Button>
            )}
            {working && (
              <Button color="inherit" onClick={() => remove.mutate(f.id)} aria-label={`Take out ${f.name}`}>
                Take out
              </Button>
            )}
          </HandedThing>
          {page === f.id &&
            (working ? (
              <WriteOwnPage
                classId={classId}
                assignmentId={a.id}
                fileId={f.id}
                onDone={() => setPage(null)}
              />
            ) : (
              <ReadOwnPage classId={classId} assignmentId={a.id} fileId={f.id} />
            ))}
        </div>
      ))}
      {own && (
        <Turns
          turns={own.turns}
          points={a.points}
          scheme={a.scheme}
          at={`/api/classes/${classId}/assignments/${a.id}/own-work`}
        />
      )}
      {own && own.score != null && !returned && (
        <Typography variant="body2">
          Your mark of before, {sayMark(own.score, a.points, a.scheme)}, counts until this is returned.
        </Typography>
      )}
      {own?.comments.map((c) => (
        <Typography
          key={c.at + c.text}
          variant="body2"
          sx={{ borderLeft: 2, borderColor: "primary.main", pl: 1, my: 0.5 }}
        >
          {c.text}{" "}
          <Typography component="span" variant="caption" sx={{ color: "text.secondary" }}>
            {c.author}
          </Typography>
        </Typography>
      ))}
      <Problem error={handIn.error ?? takeBack.error ?? remove.error} />
      {working &&
        (page === "new" ? (
          <WriteOwnPage classId={classId} assignmentId={a.id} fileId={null} onDone={() => setPage(null)} />
        ) : (
          <AddOwn classId={classId} assignmentId={a.id} title={a.title} onWrite={() => setPage("new")} />
        ))}
      {!shut && (
        <Box sx={{ mt: 1, display: "flex", gap: 1.5, alignItems: "center" }}>
          {held ? (
            <Button
              variant="outlined"
              disabled={takeBack.isPending || a.dueState === "Closed"}
              onClick={() => takeBack.mutate()}
            >
              Take it back
            </Button>
          ) : working ? (
            <Button
              variant="contained"
              disabled={files.length === 0 || handIn.isPending || a.dueState === "Closed"}
              onClick={() => handIn.mutate()}
            >
              {returned ? "Hand in again" : "Hand in"}
            </Button>
          ) : (
            <>
              {a.dueState !== "Closed" && (
                <Button variant="outlined" onClick={() => setAgain(true)}>
                  Work on it again
                </Button>
              )}
              <Typography variant="caption" color="text.secondary">
                What you handed in{own?.score != null ? " and its mark stay" : " stays"}.
              </Typography>
            </>
          )}
          {held && own.handedInAt && (
            <Typography variant="caption" sx={{ color: "text.secondary" }}>
              handed in {sayMoment(own.handedInAt)}
              {own.turns[0] && (
                <>
                  , receipt{" "}
                  <a
                    href={`/api/classes/${classId}/assignments/${a.id}/own-work/turns/${own.turns[0].id}/receipt`}
                    download
                  >
                    {own.turns[0].receipt}
                  </a>
                </>
              )}
            </Typography>
          )}
        </Box>
      )}
    </Box>
  );
}
