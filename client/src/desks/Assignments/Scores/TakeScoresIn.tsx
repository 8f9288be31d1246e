import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { sendFile, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { PlainTable } from "../../../parts/table/PlainTable";
import { StateMark } from "../../../parts/StateMark";
import { count } from "../../../parts/words";
import { figure, pathOf, sayFault, type Scope } from "./scores";

const send = (scope: Scope, file: File, seen?: string) =>
  sendFile<Schemas["ScoresRead"]>(
    `${pathOf(scope)}/files${seen === undefined ? "" : `?seen=${encodeURIComponent(seen)}`}`,
    file,
    () => undefined,
  );

/** Says what a file of scores would do, mark by mark, and takes it in as draft marks. */
export function TakeScoresIn(props: {
  scope: Scope;
  file: File;
  onDone: (said: string) => void;
  onClose: () => void;
}) {
  const { scope, file } = props;
  const read = useQuery({
    queryKey: ["scores-in", scope, file.name, file.lastModified, file.size],
    queryFn: () => send(scope, file),
    gcTime: 0,
    retry: false,
  });
  const act = useAct(
    () => send(scope, file, read.data!.seen),
    (done) =>
      props.onDone(
        `${count(done.changes.length, "draft mark", "draft marks")} came in from “${file.name}”. Students see them once they are returned.`,
      ),
  );
  const d = read.data;
  const none = d !== undefined && d.changes.length === 0;
  const sections = new Set(d?.changes.map((x) => x.section)).size > 1;
  return (
    <Ask
      open
      wide
      title={`Scores from “${file.name}”`}
      act={d ? `Take in ${count(d.changes.length, "draft mark", "draft marks")}` : "Take in"}
      disabled={!d || none}
      busy={act.isPending}
      error={act.error ?? read.error}
      onAct={() => act.mutate(undefined)}
      onClose={props.onClose}
    >
      {d && (
        <Typography role="status">
          {none ? "Nothing in this file would change a mark. " : ""}
          {d.same > 0 && `${count(d.same, "score stands", "scores stand")} here already. `}
          {d.allFindings > 0 &&
            `${count(d.allFindings, "thing does", "things do")} not come in: nothing is guessed. ${d.allFindings > d.findings.length ? `The first ${d.findings.length} are listed. ` : ""}`}
          {!none && "They come in as draft marks, and can be taken back in one act."}
        </Typography>
      )}
      {d && d.findings.length > 0 && (
        <PlainTable
          label="What does not come in"
          heading="What does not come in"
          space={{ mt: 2 }}
          rows={d.findings}
          id={(f, at) => `${f.line}-${f.column ?? ""}-${at}`}
          columns={[
            { head: "Line", align: "right", cell: (f) => f.line, by: (f) => f.line },
            { head: "Column", cell: (f) => f.column ?? "the whole row" },
            { head: "Why", main: true, cell: (f) => sayFault(f) },
          ]}
        />
      )}
      {d && d.changes.length > 0 && (
        <PlainTable
          label="Draft marks that come in"
          heading="Draft marks that come in"
          space={{ mt: 2 }}
          rows={d.changes}
          id={(x) => `${x.assignment}-${x.student}`}
          columns={[
            { head: "Student", main: true, cell: (x) => x.sortName },
            sections && { head: "Section", cell: (x) => x.section },
            { head: "Assignment", cell: (x) => x.title },
            {
              head: "Until now",
              align: "right",
              by: (x) => x.draft ?? x.counts,
              cell: (x) =>
                x.draft != null ? `${figure(x.draft)} draft` : x.counts != null ? figure(x.counts) : "–",
            },
            { head: "New", align: "right", by: (x) => x.to, cell: (x) => <strong>{figure(x.to)}</strong> },
            {
              head: "Handed in",
              cell: (x) =>
                x.onPaper ? <StateMark mark="notYet">nothing here: as on paper</StateMark> : "yes",
            },
          ]}
        />
      )}
    </Ask>
  );
}
