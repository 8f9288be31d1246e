import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { FindInList } from "../../../parts/ListBar";
import { TickTable } from "../../../parts/table/TickTable";
import { count } from "../../../parts/words";

const searched = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** Returned work that may stand as an example: found by typing, ticked. */
export function ShelfExamples(props: {
  examples: Schemas["ShelfExample"][];
  ticked: ReadonlySet<number>;
  set: (next: ReadonlySet<number>) => void;
}) {
  const [find, setFind] = useState("");
  if (props.examples.length === 0)
    return <Typography color="text.secondary">Only returned work can be an example.</Typography>;
  const words = searched(find).split(" ").filter(Boolean);
  const found = props.examples.filter((x) => {
    const all = searched(`${x.assignment} ${x.student}`);
    return words.every((w) => all.includes(w));
  });
  return (
    <>
      <FindInList label="Find by assignment or student" value={find} onChange={setFind} />
      <Typography role="status" variant="body2" color="text.secondary">
        {count(found.length, "piece", "pieces")} of {props.examples.length}
        {props.ticked.size > 0 && `, ${props.ticked.size} ticked`}
      </Typography>
      <div className="shelf-examples">
        <TickTable
          label="Examples of work"
          rows={found}
          id={(x) => x.id}
          ticks={{
            ticked: props.ticked,
            set: props.set,
            label: (x) => `Tick ${x.assignment}: ${x.student}`,
            all: "Tick all examples that are found",
            elsewhere: true,
          }}
          columns={[
            { head: "Assignment", cell: (x) => x.assignment, main: true },
            { head: "Student", cell: (x) => x.student },
            { head: "Files", cell: (x) => x.files, align: "right" },
          ]}
        />
      </div>
    </>
  );
}
