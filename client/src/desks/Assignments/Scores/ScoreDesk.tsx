import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, take, type Schemas } from "../../../api/client";
import { useHead } from "../../../api/queries";
import { useAct } from "../../../api/useAct";
import { ClassBar } from "../../../parts/ClassBar";
import { Desk, Empty } from "../../../parts/Desk";
import { FileButton } from "../../../parts/FileButton";
import { useKeyList, type Listed } from "../../../parts/keys";
import { Problem } from "../../../parts/Problem";
import { count, sayMoment } from "../../../parts/words";
import { ReturnDrafts } from "../Marking/ReturnDrafts";
import { ScoreGrid } from "./ScoreGrid";
import { pathOf, type Scope } from "./scores";
import { TakeScoresIn } from "./TakeScoresIn";
import "./scores.css";

const keyList: Listed[] = [
  ["↑ ↓ ← →", "from mark to mark"],
  ["Enter", "the piece on the marking desk"],
];

/** The scores of a class: students against assignments, with figures. */
export function ScoreDesk() {
  const classId = Number(useParams().id);
  const head = useHead(classId);
  const scores = useQuery({
    queryKey: ["scores", "class", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/scores", { params: { path: { classId } } })),
  });
  return (
    <Scores
      scope={{ kind: "class", id: classId }}
      table={scores.data}
      error={scores.error ?? head.error}
      lead={head.data && <ClassBar head={head.data} />}
    />
  );
}

/** The scores of a combined roster: all its sections as one population. */
export function CombinedScores() {
  const combinedId = Number(useParams().id);
  const scores = useQuery({
    queryKey: ["scores", "combined", combinedId],
    queryFn: () => take(api.GET("/api/combined/{combinedId}/scores", { params: { path: { combinedId } } })),
  });
  return (
    <Scores
      scope={{ kind: "combined", id: combinedId }}
      table={scores.data}
      error={scores.error}
      lead={scores.data && <strong>{scores.data.sections.map((s) => s.name).join(", ")}</strong>}
    />
  );
}

function Scores(props: {
  scope: Scope;
  table?: Schemas["ScoreTable"];
  error: unknown;
  lead: React.ReactNode;
}) {
  const { scope, table } = props;
  const [file, setFile] = useState<File | null>(null);
  const [done, setDone] = useState("");
  useKeyList(keyList);
  const empty = table !== undefined && (table.columns.length === 0 || table.students.length === 0);
  return (
    <Desk
      title={scope.kind === "class" || !table ? "Scores" : `Scores of ${table.name}`}
      wide
      lead={props.lead}
      slip={
        table && (
          <ScoreSlip
            scope={scope}
            table={table}
            onFile={(f) => {
              setDone("");
              setFile(f);
            }}
            onDone={setDone}
          />
        )
      }
    >
      <Problem error={props.error} />
      <Typography role="status" variant="body2" className={done ? undefined : "only-heard"}>
        {done}
      </Typography>
      {empty && (
        <Empty
          title={
            table.students.length === 0 ? "Nobody is on the roster." : "Nothing with points is published yet."
          }
        >
          {table.students.length === 0
            ? "Enroll students first."
            : "Scores stand here as soon as an assignment with points is published."}
        </Empty>
      )}
      {table && !empty && <ScoreGrid table={table} />}
      {file && (
        <TakeScoresIn
          scope={scope}
          file={file}
          onDone={(said) => {
            setDone(said);
            setFile(null);
          }}
          onClose={() => setFile(null)}
        />
      )}
    </Desk>
  );
}

function ScoreSlip(props: {
  scope: Scope;
  table: Schemas["ScoreTable"];
  onFile: (file: File) => void;
  onDone: (said: string) => void;
}) {
  const { table } = props;
  const [returning, setReturning] = useState(false);
  const marks = table.columns.reduce((n, c) => n + c.scores.length, 0);
  const drafts = table.columns.reduce((n, c) => n + c.drafts, 0);
  const toMark = table.columns.reduce((n, c) => n + c.toMark, 0);
  const back = useAct(
    (importId: number, headers) =>
      take(api.DELETE("/api/score-imports/{importId}", { params: { path: { importId } }, headers })),
    (done) =>
      props.onDone(
        `${count(done.takenBack, "draft mark", "draft marks")} taken back.${
          done.stayed > 0
            ? ` ${count(done.stayed, "mark was", "marks were")} returned or given anew since and stay.`
            : ""
        }`,
      ),
  );
  const file = `${pathOf(props.scope)}/file`;
  return (
    <>
      <Typography variant="h2">{count(marks, "mark", "marks")} returned</Typography>
      <Typography>
        {drafts > 0 && `${count(drafts, "draft mark", "draft marks")}: in no figure until returned. `}
        {toMark > 0 && `${toMark} handed in and not marked.`}
        {drafts + toMark === 0 && "Nothing waits to be marked or returned."}
      </Typography>
      {!table.shut && drafts > 0 && (
        <Button variant="contained" onClick={() => setReturning(true)}>
          Return {count(drafts, "draft mark", "draft marks")}…
        </Button>
      )}
      {returning && (
        <ReturnDrafts
          classes={table.sections.map((s) => s.class)}
          assignments={table.columns.flatMap((c) => c.of.map((o) => o.assignment))}
          student={null}
          onDone={(said) => {
            setReturning(false);
            props.onDone(said);
          }}
          onClose={() => setReturning(false)}
        />
      )}
      {!table.shut && (
        <FileButton
          label="A file of scores"
          accept=".csv,.tsv,.txt,.zip"
          onFiles={(files) => props.onFile(files[0]!)}
        >
          Take scores in…
        </FileButton>
      )}
      <Typography variant="body2">
        A table with a column “student number” or “e-mail” and one for each assignment, or a OneRoster
        gradebook. It is shown first.
      </Typography>
      <Typography variant="h3">Out, by student number</Typography>
      <Typography variant="body2">
        <a href={`${file}?format=Table`} download>
          Download the scores
        </a>
        , a table for spreadsheets
      </Typography>
      <Typography variant="body2">
        <a href={`${file}?format=OneRoster`} download>
          Download a gradebook
        </a>
        , OneRoster 1.2 for other programs
      </Typography>
      {table.imports.length > 0 && <Typography variant="h3">Came in from files</Typography>}
      {table.imports.map((i) => (
        <div key={i.id}>
          <Typography variant="body2">
            {count(i.marks, "mark", "marks")} from “{i.name}”, {i.by}, {sayMoment(i.at)}
          </Typography>
          {!table.shut && (
            <Button
              size="small"
              variant="outlined"
              disabled={back.isPending}
              onClick={() => back.mutate(i.id)}
              aria-label={`Take back what came in from ${i.name}`}
            >
              Take back
            </Button>
          )}
        </div>
      ))}
      <Problem error={back.error} />
    </>
  );
}
