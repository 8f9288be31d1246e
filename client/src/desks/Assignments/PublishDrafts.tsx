import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { sayDue } from "../../parts/due";
import { TickTable } from "../../parts/table/TickTable";
import { count } from "../../parts/words";

/** Publishes many drafts in one act: ticked, with when each is due. */
export function PublishDrafts(props: {
  classId: number;
  drafts: readonly Schemas["ReturnsColumn"][];
  onDone: (done: string) => void;
  onClose: () => void;
}) {
  const [ticked, setTicked] = useState<ReadonlySet<number>>(() => new Set(props.drafts.map((d) => d.id)));
  const act = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/assignments/publishing", {
          params: { path: { classId: props.classId } },
          body: { assignments: [...ticked] },
          headers,
        }),
      ),
    (done) =>
      props.onDone(
        `${count(done.published, "assignment", "assignments")} published.${
          done.unseen.length > 0
            ? ` Still drafts, since none of their students could find them: ${done.unseen.join(", ")}.`
            : ""
        }`,
      ),
  );
  return (
    <Ask
      open
      wide
      title="Publish drafts"
      act={`Publish ${count(ticked.size, "assignment", "assignments")}`}
      disabled={ticked.size === 0}
      busy={act.isPending}
      error={act.error}
      onAct={() => act.mutate()}
      onClose={props.onClose}
    >
      <Typography>
        Students see them at once, if the class is open. What none of its students could find stays a draft
        and is named.
      </Typography>
      <TickTable
        label="Drafts"
        rows={props.drafts}
        id={(d) => d.id}
        ticks={{ ticked, set: setTicked, all: "Tick all drafts", label: (d) => `Tick ${d.title}` }}
        columns={[
          { head: "Assignment", main: true, cell: (d) => d.title },
          { head: "Due", by: (d) => d.dueOn, cell: (d) => sayDue(d).replace(/^due /, "") || "no date" },
        ]}
      />
    </Ask>
  );
}
