import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { TickTable } from "../../parts/table/TickTable";
import { count } from "../../parts/words";
import { noteWords } from "./openingWords";

type Look = Schemas["OpeningLook"];

/** Opens many classes in one act: each with its check; those that want a look are not ticked at first. */
export function OpenMany(props: { classes: number[]; onClose: () => void }) {
  const look = useQuery({
    queryKey: ["opening-look", props.classes],
    gcTime: 0,
    queryFn: () => take(api.POST("/api/opening/look", { body: { classes: props.classes } })),
  });
  const rows = look.data ?? [];
  const [chosen, setTicked] = useState<ReadonlySet<number> | null>(null);
  const ticked = chosen ?? new Set(rows.filter((r) => !r.wantsALook).map((r) => r.class));
  const picked = rows.filter((r) => ticked.has(r.class));
  const students = picked.reduce((n, r) => n + r.check.students, 0);
  const [done, setDone] = useState<Schemas["OpenedMany"] | null>(null);
  const act = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/opening", {
          body: { classes: picked.map((r) => ({ class: r.class, version: r.version })) },
          headers,
        }),
      ),
    setDone,
  );
  if (done) return <Opened done={done} onClose={props.onClose} />;
  return (
    <Ask
      open
      wide
      title="Open classes"
      act={`Open ${count(picked.length, "class", "classes")}`}
      disabled={picked.length === 0}
      busy={act.isPending}
      error={act.error ?? look.error}
      onAct={() => act.mutate()}
      onClose={props.onClose}
    >
      <Typography sx={{ mb: 1 }}>
        {look.data && rows.length === 0 && "None of the ticked classes is in preparation and yours to open."}
        {picked.length > 0 &&
          `${count(students, "student sees", "students see")} their class from then on. An open class does not go back into preparation; everything else can still be changed. `}
        {rows.some((r) => r.wantsALook) && chosen === null && "What wants a look first is not ticked."}
      </Typography>
      {rows.length > 0 && (
        <TickTable
          label="Classes to open"
          rows={rows}
          id={(r) => r.class}
          ticks={{ ticked, set: setTicked, all: "Tick all classes", label: (r) => `Tick ${r.name}` }}
          columns={[
            { head: "Class", main: true, cell: (r) => <strong>{r.name}</strong>, by: (r) => r.name },
            {
              head: "Students",
              by: (r) => r.check.students,
              cell: (r) => (
                <>
                  {r.check.students}
                  {r.check.first && r.check.last && r.check.students > 1 && (
                    <span>
                      , {r.check.first} to {r.check.last}
                    </span>
                  )}
                </>
              ),
            },
            {
              head: "Folders they see",
              align: "right",
              by: (r) => r.check.foldersSeen,
              cell: (r) => `${r.check.foldersSeen} of ${r.check.folders}`,
            },
            { head: "To look at", by: (r) => notesOf(r).length, cell: (r) => <Notes row={r} /> },
          ]}
        />
      )}
    </Ask>
  );
}

const notesOf = (row: Look) => row.check.notes ?? [];

function Notes({ row }: { row: Look }) {
  if (notesOf(row).length === 0) return <StateMark mark="done">ready</StateMark>;
  return (
    <StateMark mark={row.wantsALook ? "attention" : "notYet"} wrap>
      {notesOf(row)
        .map((n) => noteWords(n, row.check))
        .join("; ")}
    </StateMark>
  );
}

function Opened({ done, onClose }: { done: Schemas["OpenedMany"]; onClose: () => void }) {
  return (
    <Ask
      open
      looks
      title={`${count(done.opened, "class is", "classes are")} open`}
      act="Done"
      onAct={onClose}
      onClose={onClose}
    >
      <Typography role="status">
        {count(done.students, "student", "students")} can see {done.opened === 1 ? "it" : "them"} now.
      </Typography>
      {done.passed.map((p) => (
        <Typography key={p.class}>
          <StateMark mark="blocked" wrap>
            {p.name} was not opened: {p.why}
          </StateMark>
        </Typography>
      ))}
    </Ask>
  );
}
