import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Problem } from "../../../parts/Problem";
import { saveFile } from "../../../parts/saveFile";
import { StateMark } from "../../../parts/StateMark";
import { PlainTable } from "../../../parts/table/PlainTable";
import { count, sayDay, sayMoment } from "../../../parts/words";
import { askedWords, sayLeft, sayUnreached } from "./asking";

type Row = Schemas["AskingRowView"];

/** One thing that asks: who has acknowledged it and who has not; a reminder, papers for homes, one more time after a change. */
export function AskedOne(props: { classId: number; askingId: number; shut: boolean }) {
  const { classId, askingId, shut } = props;
  const path = { params: { path: { classId, askingId } } };
  const [said, setSaid] = useState("");
  const [asking, setAsking] = useState<"anew" | Row | null>(null);
  const close = () => setAsking(null);
  const view = useQuery({
    queryKey: ["acknowledgements", classId, askingId],
    queryFn: () => take(api.GET("/api/classes/{classId}/acknowledgements/{askingId}", path)),
  });
  const remind = useAct(
    (_: void, headers) =>
      take(api.POST("/api/classes/{classId}/acknowledgements/{askingId}/reminders", { ...path, headers })),
    (r) =>
      setSaid(
        `${count(r.students, "student is", "students are")} reminded: it stands marked in their day.` +
          (r.already > 0 ? ` ${r.already} had been today already.` : ""),
      ),
  );
  const print = useAct(
    async (_: void, headers) =>
      saveFile(
        await take(
          api.POST("/api/classes/{classId}/acknowledgements/{askingId}/papers", {
            ...path,
            headers,
            parseAs: "blob",
          }),
        ),
        "papers for homes.pdf",
      ),
    () =>
      setSaid("The papers are made, four to a page. The code on each stays until that home has answered."),
  );
  const anew = useAct(
    (_: void, headers) =>
      take(api.POST("/api/classes/{classId}/acknowledgements/{askingId}/anew", { ...path, headers })),
    close,
  );
  const takeBack = useAct((personId: number, headers) =>
    take(
      api.DELETE("/api/classes/{classId}/acknowledgements/{askingId}/papers/{personId}", {
        params: { path: { classId, askingId, personId } },
        headers,
      }),
    ),
  );
  const v = view.data;
  if (!v) return <Problem error={view.error} />;
  const l = v.line;
  const changed = v.rows.some((r) => r.beforeChange);
  return (
    <>
      <Typography variant="h2">{l.title}</Typography>
      <Typography>
        Asked {askedWords[l.of]}
        {l.until && `, until ${sayDay(l.until)}`}. {l.done} of {l.students} done, outstanding: {sayLeft(l)}.{" "}
        {sayUnreached(l)}
      </Typography>
      {changed && (
        <Typography>
          <StateMark mark="attention">Some acknowledged it before it was changed last.</StateMark>
        </Typography>
      )}
      {!shut && (
        <div className="asking-acts">
          {l.done < l.students && (
            <Button
              variant="contained"
              disabled={remind.isPending || !l.reached}
              onClick={() => remind.mutate()}
            >
              Remind {count(l.students - l.done, "student", "students")}
            </Button>
          )}
          {l.homeLeft > 0 && (
            <Button variant="outlined" disabled={print.isPending} onClick={() => print.mutate()}>
              Print {count(l.homeLeft, "paper", "papers")} for homes
            </Button>
          )}
          {v.rows.some((r) => r.ownAt || r.homeAt) && (
            <Button onClick={() => setAsking("anew")}>Ask anew…</Button>
          )}
        </div>
      )}
      {said && (
        <Typography role="status" variant="body2">
          {said}
        </Typography>
      )}
      <Problem error={remind.error ?? print.error ?? takeBack.error} />
      <PlainTable
        label={`Who has acknowledged ${l.title}`}
        name="acknowledged"
        rows={v.rows}
        id={(r) => r.person}
        columns={[
          { head: "Student", main: true, cell: (r) => r.sortName },
          l.of !== "Home" && {
            head: "By the student",
            by: (r) => r.ownAt,
            says: "worth",
            cell: (r) => <Said at={r.ownAt} left={r.ownLeft} />,
          },
          l.of !== "Student" && {
            head: "At home",
            by: (r) => r.homeAt,
            says: (r) => [r.homeName, r.homeAt?.slice(0, 10)].filter(Boolean).join(", "),
            cell: (r) => <Said at={r.homeAt} left={r.homeLeft} by={r.homeName} notedBy={r.notedBy} />,
          },
          {
            head: "Remark",
            look: "soft",
            cell: (r) =>
              [
                r.earlier && "an earlier wording was acknowledged",
                r.beforeChange && "before the last change",
                r.remindedAt && (r.ownLeft || r.homeLeft) && `reminded ${sayMoment(r.remindedAt)}`,
              ]
                .filter(Boolean)
                .join(", "),
          },
          l.of !== "Student" &&
            !shut && {
              head: "",
              align: "right",
              cell: (r) =>
                r.homeLeft ? (
                  <Button
                    onClick={() => setAsking(r)}
                    aria-label={`The signed paper of ${r.sortName} came back`}
                  >
                    Paper came back…
                  </Button>
                ) : (
                  r.notedBy && (
                    <Button
                      onClick={() => takeBack.mutate(r.person)}
                      aria-label={`Take back what was noted of ${r.sortName}`}
                    >
                      Take back
                    </Button>
                  )
                ),
            },
        ]}
      />
      {asking === "anew" && (
        <Ask
          open
          title="Ask anew?"
          act="Ask anew"
          busy={anew.isPending}
          error={anew.error}
          onAct={() => anew.mutate()}
          onClose={close}
        >
          {count(v.rows.filter((r) => r.ownAt || r.homeAt).length, "student is", "students are")} asked again
          who had acknowledged it, or whose home had. What they said stays on record, and does not count for
          the new wording. Codes on papers go on opening it.
        </Ask>
      )}
      {asking !== null && asking !== "anew" && (
        <Paper classId={classId} askingId={askingId} row={asking} onClose={close} />
      )}
    </>
  );
}

function Said(props: { at?: string | null; left: boolean; by?: string | null; notedBy?: string | null }) {
  if (props.left) return <StateMark mark="notYet">not yet</StateMark>;
  if (!props.at) return null;
  return (
    <StateMark mark="done">
      {[props.by, sayMoment(props.at), props.notedBy && `on paper, noted by ${props.notedBy}`]
        .filter(Boolean)
        .join(", ")}
    </StateMark>
  );
}

function Paper(props: { classId: number; askingId: number; row: Row; onClose: () => void }) {
  const { row } = props;
  const [name, setName] = useState("");
  const note = useAct(
    (_: void, headers) =>
      take(
        api.PUT("/api/classes/{classId}/acknowledgements/{askingId}/papers/{personId}", {
          params: { path: { classId: props.classId, askingId: props.askingId, personId: row.person } },
          body: { name },
          headers,
        }),
      ),
    props.onClose,
  );
  return (
    <Ask
      open
      title={`${row.sortName}: the signed paper came back`}
      act="Note it"
      busy={note.isPending}
      error={note.error}
      onAct={() => note.mutate()}
      onClose={props.onClose}
    >
      <TextField
        fullWidth
        autoFocus
        margin="dense"
        label="Who signed it"
        value={name}
        onChange={(e) => setName(e.target.value)}
        helperText="As it stands there; leave it empty if it cannot be read. Your name is noted beside it."
      />
    </Ask>
  );
}
