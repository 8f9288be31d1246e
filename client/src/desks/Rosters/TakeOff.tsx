import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count } from "../../parts/words";

/** One or many off the roster, with what it means for each. */
export function TakeOff(props: {
  classId: number;
  people: number[];
  onDone: () => void;
  onClose: () => void;
}) {
  const path = { params: { path: { classId: props.classId } }, body: { people: props.people } };
  const said = useQuery({
    queryKey: ["removal", props.classId, props.people],
    gcTime: 0,
    queryFn: () => take(api.POST("/api/classes/{classId}/roster/removal-preview", path)),
  });
  const can = (said.data ?? []).filter((l) => l.whyNot == null);
  const remove = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/roster/removal", {
          ...path,
          body: { people: can.map((l) => l.id) },
          headers,
        }),
      ),
    props.onDone,
  );
  return (
    <Ask
      open
      wide
      title={`Take ${count(props.people.length, "person", "people")} off the roster?`}
      act={`Take ${count(can.length, "person", "people")} off`}
      disabled={can.length === 0}
      busy={remove.isPending}
      error={said.error ?? remove.error}
      onAct={() => remove.mutate()}
      onClose={props.onClose}
    >
      <Typography sx={{ mb: 1 }}>
        They no longer see the class, except their own returned work. Their folder and work stay here, and
        come back to them if they are enrolled again.
      </Typography>
      {said.data && (
        <PlainTable
          label="What it means"
          rows={said.data}
          id={(l) => l.id}
          columns={[
            { head: "Name", cell: (l) => <strong>{l.name}</strong> },
            { head: "Returned, still seen", cell: (l) => l.returned, align: "right" },
            { head: "Not handed in, out of sight", cell: (l) => l.unfinished, align: "right" },
            {
              head: "And",
              cell: (l) =>
                l.whyNot ? (
                  <StateMark mark="blocked">
                    stays: {l.held > 0 ? `${count(l.held, "piece", "pieces")} held, return first` : l.whyNot}
                  </StateMark>
                ) : (
                  [
                    l.groups.length > 0 && `leaves ${l.groups.join(", ")}`,
                    l.by === "Feed" && "the next delivery may bring them back",
                  ]
                    .filter(Boolean)
                    .join("; ")
                ),
            },
          ]}
        />
      )}
    </Ask>
  );
}
