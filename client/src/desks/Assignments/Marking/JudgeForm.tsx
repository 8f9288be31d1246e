import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Behind } from "../../../parts/Behind";
import { Problem } from "../../../parts/Problem";
import { typedNumber } from "../../../parts/typedNumber";
import { useDraft } from "../../../parts/useDraft";
import { useVersioned } from "../../../parts/useVersioned";
import { sayMoment } from "../../../parts/words";
import { MarkScale } from "./MarkScale";
import { stepped } from "./marking";

/** The mark of the piece in view, what is said about it, and on to the next: with the keys alone. */
export function JudgeForm(props: {
  classId: number;
  work: Schemas["WorkView"];
  others: readonly Schemas["MarkingPiece"][];
  numbers: Schemas["ScoreNumbers"] | null;
  /** Said and done: on to the next. */
  onDone: (done: string) => void;
}) {
  const { classId, work: w } = props;
  const score = useVersioned(`score:${w.id}`, w.version, w.score?.toString() ?? "");
  const comment = useDraft(`comment:${w.id}`, "");
  const field = useRef<HTMLInputElement>(null);
  const typed = typedNumber(score.draft);
  const [anew, setAnew] = useState(w.draft);
  const held = w.heldBy === "Teacher" || anew;
  const changed = typed !== (w.score ?? null);
  const points = w.points ?? null;
  const wrong = Number.isNaN(typed)
    ? `“${score.draft.trim()}” is no number.`
    : points !== null && typed !== null && (typed < 0 || typed > points)
      ? `From 0 to ${points}.`
      : null;
  const empty = !changed && comment.draft.trim() === "";
  const first = w.studentName.split(" ")[0]!;
  const judge = useAct(
    (back: boolean, headers) =>
      take(
        api.POST("/api/classes/{classId}/work/{workId}/judgement", {
          params: { path: { classId, workId: w.id } },
          body: {
            score: typed,
            comment: comment.draft || null,
            return: back,
            unmarkedToo: back,
            version: changed ? score.begun : w.version,
          },
          headers,
        }),
      ),
    (_, back) => {
      score.drop();
      comment.drop();
      const mark = typed === null ? "without a mark" : `with ${typed} of ${points}`;
      props.onDone(
        back
          ? `Returned to ${w.studentName} ${mark}.`
          : typed === null
            ? `Kept for ${w.studentName}.`
            : `${w.studentName}: ${typed} of ${points}, a draft.`,
      );
    },
  );
  // Where the next mark is typed is where the focus is; on a touch screen that would open the keys over the piece.
  useEffect(() => {
    if (held && window.matchMedia("(pointer: fine)").matches) field.current?.focus({ preventScroll: true });
  }, [held, w.id]);
  const send = (back: boolean) => {
    if (judge.isPending || wrong) return;
    // A draft that stands as it is needs nothing but the way on.
    if (!back && empty) return w.score == null ? undefined : props.onDone("");
    judge.mutate(back);
  };
  const onKeys = (e: KeyboardEvent) => {
    if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      // Returned without a mark it is only by the button that says so.
      if (points === null || typed !== null) send(true);
    } else if (
      e.target === field.current &&
      points !== null &&
      (e.key === "ArrowUp" || e.key === "ArrowDown")
    ) {
      e.preventDefault();
      score.change(String(stepped(typed, e.key === "ArrowUp" ? 1 : -1, points)));
    }
  };
  if (!held)
    return (
      <section className="judge" aria-label="Mark and comment">
        <div>
          <Typography>
            {w.state === "Working"
              ? "This piece is with its student. What was done on paper can be marked all the same."
              : w.counts != null
                ? `Returned${w.returnedAt ? ` ${sayMoment(w.returnedAt)}` : ""} with ${w.counts} of ${points}.`
                : `Returned${w.returnedAt ? ` ${sayMoment(w.returnedAt)}` : ""} without a mark.`}
          </Typography>
          {points !== null && (
            <Button variant="outlined" onClick={() => setAnew(true)}>
              {w.state === "Working" ? "Mark it as done on paper" : "Mark it anew"}
            </Button>
          )}
        </div>
        <Said comments={w.comments} />
      </section>
    );
  return (
    <section className="judge" aria-label="Mark and comment">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          send(false);
        }}
      >
        <div className="judge-mark">
          {points !== null && (
            <>
              <TextField
                inputRef={field}
                label={`Mark, of ${points}`}
                value={score.draft}
                error={wrong !== null}
                helperText={wrong}
                onKeyDown={onKeys}
                onChange={(e) => score.change(e.target.value)}
                slotProps={{ htmlInput: { inputMode: "decimal", autoComplete: "off", "data-mark": true } }}
              />
              <MarkScale
                points={points}
                mark={typed}
                others={props.others}
                numbers={props.numbers}
                onMark={(m) => score.change(String(m))}
              />
            </>
          )}
          {w.counts != null && (
            <Typography variant="body2">
              Until this one is returned, {w.counts} of {points} counts.
            </Typography>
          )}
          <Behind
            behind={score.behind}
            theirs={w.score == null ? "There is no mark on it now." : `Its mark is ${w.score} now.`}
            onTheirs={score.drop}
            onMine={score.keep}
          />
        </div>
        <div>
          <Said comments={w.comments} />
          <TextField
            multiline
            fullWidth
            minRows={2}
            maxRows={6}
            label={`For ${first} alone`}
            onKeyDown={onKeys}
            value={comment.draft}
            onChange={(e) => comment.change(e.target.value)}
          />
          <div className="judge-acts">
            <Button
              type="submit"
              variant="contained"
              disabled={judge.isPending || wrong !== null || (empty && w.score == null)}
              aria-keyshortcuts="Enter"
            >
              {points === null || (typed === null && w.score == null)
                ? "Keep and next"
                : typed === null
                  ? "Take the mark away"
                  : "Mark and next"}
              <kbd aria-hidden="true">Enter</kbd>
            </Button>
            <Button
              variant="outlined"
              disabled={judge.isPending || wrong !== null}
              aria-keyshortcuts="Control+Enter"
              onClick={() => send(true)}
            >
              {points !== null && typed === null ? "Return without a mark" : "Return and next"}
              {(points === null || typed !== null) && <kbd aria-hidden="true">Ctrl Enter</kbd>}
            </Button>
          </div>
          <Problem error={judge.error} />
        </div>
      </form>
    </section>
  );
}

function Said({ comments }: { comments: readonly Schemas["CommentView"][] }) {
  return comments.map((c) => (
    <Typography key={c.at + c.text} variant="body2" className="said">
      {c.text}{" "}
      <span className="soft">
        {c.author}, {sayMoment(c.at)}
      </span>
    </Typography>
  ));
}
