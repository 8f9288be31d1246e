import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { PlainTable } from "../../../parts/table/PlainTable";
import { Tick } from "../../../parts/Tick";
import { count, sayMoment } from "../../../parts/words";
import { TalkSettings } from "./TalkSettings";

const writes = (t: Schemas["TalkView"]) =>
  t.setting!.closed
    ? "closed: nobody writes"
    : t.setting!.writers === "Staff"
      ? "staff write, students read"
      : t.setting!.writers === "Group"
        ? `${t.groupName ?? "one group"} and staff write`
        : "whoever sees the folder writes";

/** What staff see of a place to talk: who writes, who has answered, and who only reads. */
export function TalkKeeping(props: {
  classId: number;
  folderId: number;
  view: Schemas["TalkView"];
  groups: readonly Schemas["GroupName"][];
  shut: boolean;
}) {
  const { classId, folderId, view: t } = props;
  const [asking, setAsking] = useState<"settings" | "answered" | null>(null);
  const quiet = useAct((only: boolean, headers) =>
    take(
      api.PUT("/api/classes/{classId}/talk/quiet", {
        params: { path: { classId } },
        body: { only },
        headers,
      }),
    ),
  );
  const again = useAct((personId: number, headers) =>
    take(
      api.PUT("/api/classes/{classId}/talk/readers/{personId}", {
        params: { path: { classId, personId } },
        body: { only: false },
        headers,
      }),
    ),
  );
  return (
    <div className="talk-keeping">
      <span className="soft">
        A place to talk: {writes(t)}
        {t.setting!.question && `, asks each school day “${t.setting!.question}”`}.
      </span>
      {!props.shut && (
        <Button variant="outlined" onClick={() => setAsking("settings")}>
          Who writes here…
        </Button>
      )}
      <Button variant="outlined" onClick={() => setAsking("answered")}>
        {t.setting!.question ? "Who has answered…" : "Who has written…"}
      </Button>
      {!props.shut && (
        <Tick
          label="All students of the class only read for now"
          value={t.quiet}
          onChange={(on) => quiet.mutate(on)}
        />
      )}
      {t.readOnly.map((p) => (
        <span key={p.id}>
          <StateMark mark="attention">{p.name} only reads</StateMark>{" "}
          <Button color="inherit" onClick={() => again.mutate(p.id)} aria-label={`Let ${p.name} write again`}>
            Let them write again
          </Button>
        </span>
      ))}
      <Problem error={quiet.error ?? again.error} />
      {asking === "settings" && (
        <TalkSettings
          classId={classId}
          folderId={folderId}
          was={t.setting!}
          groups={props.groups}
          onClose={() => setAsking(null)}
        />
      )}
      {asking === "answered" && (
        <Answered classId={classId} folderId={folderId} onClose={() => setAsking(null)} />
      )}
    </div>
  );
}

function Answered(props: { classId: number; folderId: number; onClose: () => void }) {
  const [day, setDay] = useState("");
  const who = useQuery({
    queryKey: ["talk-answered", props.classId, props.folderId, day],
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/folders/{folderId}/talk/answered", {
          params: {
            path: { classId: props.classId, folderId: props.folderId },
            query: { day: day || undefined },
          },
        }),
      ),
  });
  const rows = who.data ?? [];
  const missing = rows.filter((r) => r.at == null).length;
  return (
    <Ask
      open
      wide
      title={
        who.data
          ? missing === 0
            ? "All have written"
            : `${count(missing, "student has", "students have")} not written`
          : "Who has written"
      }
      act="Done"
      onAct={props.onClose}
      onClose={props.onClose}
    >
      <TextField
        type="date"
        label="On (empty for today)"
        margin="dense"
        value={day}
        slotProps={{ inputLabel: { shrink: true } }}
        onChange={(e) => setDay(e.target.value)}
      />
      <Problem error={who.error} />
      <PlainTable
        label="Who has written"
        rows={rows}
        id={(r) => r.person}
        columns={[
          { head: "Student", main: true, by: (r) => r.sortName, cell: (r) => r.sortName },
          {
            head: "First message of the day",
            by: (r) => r.at ?? "",
            cell: (r) =>
              r.at == null ? (
                <StateMark mark="notYet">none</StateMark>
              ) : (
                <StateMark mark="done">{sayMoment(r.at)}</StateMark>
              ),
          },
        ]}
      />
    </Ask>
  );
}
