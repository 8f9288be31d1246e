import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Behind } from "../../../parts/Behind";
import { keptOf, sayMark } from "../../../parts/marks";
import { Problem } from "../../../parts/Problem";
import { useDraft } from "../../../parts/useDraft";
import { useVersioned } from "../../../parts/useVersioned";
import { sayMoment } from "../../../parts/words";
import { MarkInput, readMark } from "./MarkInput";
import { PhraseBox } from "./PhraseBox";

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
  const scheme = w.scheme ?? null;
  const stands = scheme && scheme.criteria.length > 0 ? keptOf(w.chosen ?? []) : (w.score?.toString() ?? "");
  const score = useVersioned(`score:${w.id}`, w.version, stands);
  const comment = useDraft(`comment:${w.id}`, "");
  const field = useRef<HTMLInputElement>(null);
  const points = w.points ?? null;
  const { score: typed, chosen, wrong } = readMark(score.draft, points, scheme);
  const [anew, setAnew] = useState(w.draft);
  const held = w.heldBy === "Teacher" || anew;
  const changed = chosen ? score.draft !== stands : typed !== (w.score ?? null);
  const say = (mark: number) => sayMark(mark, points, scheme);
  const empty = !changed && comment.draft.trim() === "";
  const first = w.studentName.split(" ")[0]!;
  const judge = useAct(
    (back: boolean, headers) =>
      take(
        api.POST("/api/classes/{classId}/work/{workId}/judgement", {
          params: { path: { classId, workId: w.id } },
          body: {
            score: chosen ? null : typed,
            chosen,
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
      const mark = typed === null ? "without a mark" : `with ${say(typed)}`;
      props.onDone(
        back
          ? `Returned to ${w.studentName} ${mark}.`
          : typed === null
            ? `Kept for ${w.studentName}.`
            : `${w.studentName}: ${say(typed)}, a draft.`,
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
                ? `Returned${w.returnedAt ? ` ${sayMoment(w.returnedAt)}` : ""} with ${say(w.counts)}.`
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
            <MarkInput
              points={points}
              scheme={scheme}
              kept={score.draft}
              onKept={score.change}
              wrong={wrong}
              others={props.others}
              numbers={props.numbers}
              field={field}
              onKeys={onKeys}
            />
          )}
          {w.counts != null && (
            <Typography variant="body2">Until this one is returned, {say(w.counts)} counts.</Typography>
          )}
          <Behind
            behind={score.behind}
            theirs={w.score == null ? "There is no mark on it now." : `Its mark is ${say(w.score)} now.`}
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
          <PhraseBox first={first} comment={comment.draft} onComment={comment.change} />
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
