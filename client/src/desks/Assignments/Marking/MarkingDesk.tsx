import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../../api/client";
import { useHead } from "../../../api/queries";
import { ClassBar } from "../../../parts/ClassBar";
import { Desk, Empty } from "../../../parts/Desk";
import { sayLate } from "../../../parts/due";
import { isTyping, useKeyList, type Listed } from "../../../parts/keys";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { count, sayMoment } from "../../../parts/words";
import { JudgeForm } from "./JudgeForm";
import { goesOn, keyOf, nextWaiting, standingOf } from "./marking";
import { PieceFiles } from "./PieceFiles";
import { PieceLine } from "./PieceLine";
import { ReturnDrafts } from "./ReturnDrafts";
import "./marking.css";

const keyList: Listed[] = [
  ["digits, Enter", "mark and go on"],
  ["Ctrl+Enter", "return and go on"],
  ["← →", "the piece before, the next"],
  ["↑ ↓", "one step on the scale"],
  ["U", "the next that waits"],
];

/** The marking desk of a class: one assignment over all students, or one student over all assignments. */
export function MarkingDesk() {
  const classId = Number(useParams().id);
  const head = useHead(classId);
  const [address] = useSearchParams();
  const assignment = Number(address.get("assignment")) || undefined;
  const student = assignment ? undefined : Number(address.get("student")) || undefined;
  const marking = useQuery({
    queryKey: ["marking", classId, assignment ?? null, student ?? null],
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/marking", {
          params: { path: { classId }, query: { assignment, student } },
        }),
      ),
  });
  return (
    <Pieces
      view={marking.data}
      error={marking.error ?? head.error}
      student={student ?? null}
      from={{ to: `/classes/${classId}/work`, name: "all work of the class" }}
      lead={head.data && <ClassBar head={head.data} />}
    />
  );
}

/** The marking desk of a combined roster: the assignments of one title over all its sections. */
export function CombinedMarking() {
  const combinedId = Number(useParams().id);
  const [address] = useSearchParams();
  const title = address.get("title") ?? "";
  const marking = useQuery({
    queryKey: ["marking", "combined", combinedId, title],
    queryFn: () =>
      take(
        api.GET("/api/combined/{combinedId}/marking", { params: { path: { combinedId }, query: { title } } }),
      ),
  });
  return (
    <Pieces
      view={marking.data}
      error={marking.error}
      student={null}
      from={{ to: `/enroll/combined/${combinedId}`, name: "the combined roster" }}
      lead={marking.data && <strong>{marking.data.stretches.map((s) => s.name).join(", ")}</strong>}
    />
  );
}

function Pieces(props: {
  view?: Schemas["MarkingView"];
  error: unknown;
  student: number | null;
  from: { to: string; name: string };
  lead: React.ReactNode;
}) {
  const { view } = props;
  const queries = useQueryClient();
  const [address, setAddress] = useSearchParams();
  const [done, setDone] = useState("");
  const [returning, setReturning] = useState(false);
  useKeyList(keyList);
  const all = useMemo(() => view?.stretches.flatMap((s) => s.pieces) ?? [], [view]);
  const classOf = useMemo(
    () => new Map(view?.stretches.flatMap((s) => s.pieces.map((p) => [p, s] as const)) ?? []),
    [view],
  );
  const named = all.findIndex((p) => keyOf(p) === address.get("piece"));
  // Opened without a piece, it is the first that waits.
  const at = named >= 0 ? named : Math.max(0, nextWaiting(all, -1));
  const piece = all[at];
  const stretch = piece && classOf.get(piece);
  const go = (to: number) => {
    const next = all[to];
    if (!next) return;
    setAddress(
      (was) => {
        was.set("piece", keyOf(next));
        return was;
      },
      { replace: true },
    );
  };
  // The next one is there before one comes to it.
  const coming = all[goesOn(all, at)];
  const comingFrom = coming && classOf.get(coming)?.class;
  useEffect(() => {
    if (coming?.work == null || comingFrom === undefined) return;
    void queries.prefetchQuery({ ...pieceQuery(comingFrom, coming.work), staleTime: 10_000 });
  }, [coming?.work, comingFrom, queries]);
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.altKey || e.metaKey || document.querySelector("[role=dialog]")) return;
      // In the field of the mark letters and the arrows to the side are keys of the desk.
      const inMark = e.target instanceof HTMLElement && e.target.hasAttribute("data-mark");
      if (
        (isTyping(e.target) && !inMark) ||
        (e.target instanceof HTMLElement && e.target.closest("audio, video, [role=toolbar]"))
      )
        return;
      if (e.key === "ArrowLeft" || e.key === "ArrowRight") {
        e.preventDefault();
        go(at + (e.key === "ArrowLeft" ? -1 : 1));
      } else if (e.key.toLowerCase() === "u") {
        e.preventDefault();
        go(nextWaiting(all, at));
      }
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  });
  return (
    <Desk
      title={view ? `Mark ${view.title}` : "Mark"}
      wide
      lead={
        view && (
          <>
            {props.lead}{" "}
            <span className="marking-counts">
              <strong>{view.toMark === 0 ? "none waits" : `${view.toMark} to mark`}</strong> ·{" "}
              {count(view.drafts, "draft", "drafts")} · {view.returned} returned
            </span>{" "}
            <Link component={RouterLink} to={props.from.to} variant="body2">
              Back to {props.from.name}
            </Link>
          </>
        )
      }
    >
      <Problem error={props.error} />
      <Typography role="status" className={done ? "marking-done" : "only-heard"} variant="body2">
        {done}
      </Typography>
      {view && all.length === 0 && (
        <Empty title="There is nobody to mark here yet.">Publish the assignment, and enroll students.</Empty>
      )}
      {view && piece && stretch && (
        <>
          <div className="marking-top">
            <PieceLine
              stretches={view.stretches}
              chosen={keyOf(piece)}
              byStudent={props.student !== null}
              onChoose={(key) => go(all.findIndex((p) => keyOf(p) === key))}
            />
            <div className="marking-acts">
              <Button variant="outlined" disabled={at === 0} onClick={() => go(at - 1)}>
                Before
              </Button>
              <Button variant="outlined" disabled={at === all.length - 1} onClick={() => go(at + 1)}>
                Next
              </Button>
              {view.drafts > 0 && (
                <Button variant="outlined" onClick={() => setReturning(true)}>
                  Return {count(view.drafts, "draft", "drafts")}…
                </Button>
              )}
            </div>
          </div>
          <InView
            key={keyOf(piece)}
            piece={piece}
            stretch={stretch}
            all={all}
            view={view}
            byStudent={props.student !== null}
            onDone={(said) => {
              const next = goesOn(all, at);
              setDone(next < 0 ? `${said} None waits any more.` : said);
              if (next >= 0) go(next);
            }}
          />
        </>
      )}
      {returning && view && (
        <ReturnDrafts
          classes={view.stretches.filter((s) => !s.shut).map((s) => s.class)}
          assignments={[...new Set(all.map((p) => p.assignment))]}
          student={props.student}
          onDone={(said) => {
            setDone(said);
            setReturning(false);
          }}
          onClose={() => setReturning(false)}
        />
      )}
    </Desk>
  );
}

const pieceQuery = (classId: number, workId: number) => ({
  queryKey: ["piece", classId, workId],
  queryFn: () =>
    take(api.GET("/api/classes/{classId}/work/{workId}/piece", { params: { path: { classId, workId } } })),
});

function InView(props: {
  piece: Schemas["MarkingPiece"];
  stretch: Schemas["MarkingStretch"];
  all: readonly Schemas["MarkingPiece"][];
  view: Schemas["MarkingView"];
  byStudent: boolean;
  onDone: (said: string) => void;
}) {
  const { piece: p, stretch } = props;
  const classId = stretch.class;
  const workId = p.work ?? 0;
  const work = useQuery({ ...pieceQuery(classId, workId), enabled: p.work != null });
  const standing = standingOf(p);
  return (
    <>
      <header className="piece-head">
        <h2>
          {props.byStudent ? p.title : p.name}
          {p.left && " (left)"}
        </h2>
        <span className="soft">
          {[
            p.handedInAt && p.state === "HandedIn" && `handed in ${sayMoment(p.handedInAt)}`,
            stretch.letter && `section ${stretch.letter}`,
          ]
            .filter(Boolean)
            .join(", ")}
        </span>
        {p.lateMinutes != null && <StateMark mark="attention">{sayLate(p.lateMinutes)}</StateMark>}
        {standing === "waits" ? (
          <StateMark mark="underway">waits</StateMark>
        ) : standing === "draft" ? (
          <StateMark mark="attention">draft: {p.score}</StateMark>
        ) : standing === "back" ? (
          <StateMark mark="done">returned</StateMark>
        ) : (
          <StateMark mark="notYet">
            {standing === "begun" ? "with the student" : "nothing handed in"}
          </StateMark>
        )}
      </header>
      <Problem error={work.error} />
      {work.data && <PieceFiles classId={classId} view={work.data} />}
      {p.work == null && (
        <p className="soft">
          There is nothing from {p.name} for “{p.title}” yet.
        </p>
      )}
      {work.data && !stretch.shut && (
        <JudgeForm
          classId={classId}
          work={work.data.work}
          others={props.all.filter(
            (o) => (o !== p && o.assignment === p.assignment) || (!props.byStudent && o !== p),
          )}
          numbers={props.byStudent ? null : props.view.numbers}
          onDone={props.onDone}
        />
      )}
    </>
  );
}
