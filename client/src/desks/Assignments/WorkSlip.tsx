import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { HandedThing } from "../../parts/HandedThing";
import { Problem } from "../../parts/Problem";
import { sayMark } from "../../parts/marks";
import { StateMark } from "../../parts/StateMark";
import { Turns } from "../../parts/Turns";
import { typedNumber } from "../../parts/typedNumber";
import { sayMoment } from "../../parts/words";
import { Behind } from "../../parts/Behind";
import { useDraft } from "../../parts/useDraft";
import { useVersioned } from "../../parts/useVersioned";

/** One piece of work in hand: what was handed in, the mark, private comments, and giving it back. */
export function WorkSlip({ classId, workId, shut }: { classId: number; workId: number; shut: boolean }) {
  const work = useQuery({
    queryKey: ["work", classId, workId],
    queryFn: () =>
      take(api.GET("/api/classes/{classId}/work/{workId}", { params: { path: { classId, workId } } })),
  });
  if (work.error) return <Problem error={work.error} />;
  return work.data ? <Piece key={workId} classId={classId} work={work.data} shut={shut} /> : null;
}

function Piece({ classId, work: w, shut }: { classId: number; work: Schemas["WorkView"]; shut: boolean }) {
  const path = { params: { path: { classId, workId: w.id } } };
  const {
    draft: score,
    begun,
    change: setScore,
    drop: dropScore,
    behind,
    keep,
  } = useVersioned(`score:${w.id}`, w.version, w.score?.toString() ?? "");
  const { draft: text, change: setText, drop: dropText } = useDraft(`comment:${w.id}`, "");
  const queries = useQueryClient();
  const now = (next: Schemas["WorkView"]) => queries.setQueryData(["work", classId, w.id], next);
  const typed = typedNumber(score);
  const changed = typed !== (w.score ?? null);
  const mark = useAct(
    () =>
      take(
        api.PUT("/api/classes/{classId}/work/{workId}/mark", {
          ...path,
          body: { score: typed, version: changed ? begun : w.version },
        }),
      ),
    (next) => {
      now(next);
      dropScore();
    },
  );
  const comment = useAct(
    (_: void, headers) =>
      take(api.POST("/api/classes/{classId}/work/{workId}/comments", { ...path, body: { text }, headers })),
    (next) => {
      now(next);
      dropText();
    },
  );
  const giveBack = useAct(
    (unmarkedToo: boolean, headers) =>
      take(
        api.POST("/api/classes/{classId}/work/{workId}/return", {
          ...path,
          body: { unmarkedToo, version: w.version },
          headers,
        }),
      ),
    now,
  );
  const held = w.heldBy === "Teacher";
  const notMarked = w.points != null && w.score == null;
  return (
    <>
      <Box>
        <Typography variant="h2">{w.studentName}</Typography>
        <Typography sx={{ color: "text.secondary" }}>{w.title}</Typography>
        <Link
          component={RouterLink}
          to={`/classes/${classId}/marking?assignment=${w.assignment}&piece=${w.assignment}-${w.student}`}
          variant="body2"
        >
          Open it on the marking desk
        </Link>
      </Box>
      {w.state === "Working" && <StateMark mark="notYet">begun, with the student</StateMark>}
      {held && (
        <StateMark mark="underway">
          held by you{w.handedInAt ? ` since ${sayMoment(w.handedInAt)}` : ""}
          {w.turns[0] && `, receipt ${w.turns[0].receipt}`}
        </StateMark>
      )}
      {w.state === "Returned" && (
        <StateMark mark="done">returned{w.returnedAt ? ` ${sayMoment(w.returnedAt)}` : ""}</StateMark>
      )}
      {w.state !== "Working" && (
        <Box>
          {w.files.map((f) => (
            <HandedThing key={f.id} thing={f} at={`/api/classes/${classId}/work/${w.id}/files/${f.id}`} />
          ))}
        </Box>
      )}
      <Turns
        turns={w.turns}
        points={w.points}
        scheme={w.scheme}
        at={`/api/classes/${classId}/work/${w.id}`}
      />
      {held && w.counts != null && (
        <Typography>
          Until this one is returned, the mark of before counts:{" "}
          <strong>{sayMark(w.counts, w.points, w.scheme)}</strong>
        </Typography>
      )}
      <Behind
        behind={behind && held}
        theirs={
          w.score == null
            ? "There is no mark on it now."
            : `Its mark is ${sayMark(w.score, w.points, w.scheme)} now.`
        }
        onTheirs={dropScore}
        onMine={keep}
      />
      {w.points != null && w.scheme && held && !shut && (
        <Typography variant="body2">
          {w.score == null ? "No mark yet" : `A draft: ${sayMark(w.score, w.points, w.scheme)}`}. Its levels
          are chosen on the marking desk.
        </Typography>
      )}
      {w.points != null && !w.scheme && held && !shut && (
        <Box
          component="form"
          sx={{ display: "flex", gap: 1 }}
          onSubmit={(e) => {
            e.preventDefault();
            mark.mutate(undefined);
          }}
        >
          <TextField
            label={`Mark, of ${w.points}`}
            value={score}
            onChange={(e) => setScore(e.target.value)}
            error={mark.error instanceof ProblemError && mark.error.field === "score"}
            slotProps={{ htmlInput: { inputMode: "decimal" } }}
          />
          <Button
            type="submit"
            variant="outlined"
            disabled={!changed || Number.isNaN(typed) || mark.isPending}
          >
            Keep as draft
          </Button>
        </Box>
      )}
      {w.counts != null && !held && (
        <Typography>
          Mark: <strong>{sayMark(w.counts, w.points, w.scheme)}</strong>
        </Typography>
      )}
      {w.comments.map((c) => (
        <Typography
          key={c.at + c.text}
          variant="body2"
          sx={{ borderLeft: 2, borderColor: "primary.main", pl: 1 }}
        >
          {c.text}
          <br />
          <Typography component="span" variant="caption" sx={{ color: "text.secondary" }}>
            {c.author}, {sayMoment(c.at)}
          </Typography>
        </Typography>
      ))}
      {held && !shut && (
        <>
          <TextField
            multiline
            minRows={2}
            label="For this student alone"
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          <Button
            variant="outlined"
            disabled={text.trim() === "" || comment.isPending}
            onClick={() => comment.mutate()}
          >
            Comment
          </Button>
          <Button
            variant="contained"
            disabled={giveBack.isPending || changed}
            onClick={() => giveBack.mutate(notMarked)}
          >
            {notMarked
              ? "Return without a mark"
              : w.points != null
                ? `Return with ${sayMark(w.score!, w.points, w.scheme)}`
                : "Return"}
          </Button>
          {changed && (
            <Typography variant="caption" sx={{ color: "text.secondary" }}>
              Keep the mark first.
            </Typography>
          )}
        </>
      )}
      <Problem error={mark.error ?? comment.error ?? giveBack.error} />
    </>
  );
}
