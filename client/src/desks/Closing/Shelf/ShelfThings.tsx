import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../../../api/client";
import { StateMark } from "../../../parts/StateMark";
import { PlainTable } from "../../../parts/table/PlainTable";
import { unreadWords } from "./unreadWords";

type Thing = Schemas["ShelfPreviewThing"];

/** Things as they would stand on a shelf: under which name, whom they name, and what nobody has searched. */
export function ShelfThings(props: {
  classId: number;
  things: Thing[];
  named: ReadonlySet<string>;
  flip: (key: string) => void;
}) {
  return (
    <PlainTable
      bare
      label="Things on the shelf"
      rows={props.things}
      id={(t) => t.key}
      columns={[
        {
          head: "Thing",
          main: true,
          cell: (t) => (
            <>
              {t.out ? <s>{t.name}</s> : <strong>{t.shown}</strong>}
              <Typography variant="caption" component="div" color="text.secondary">
                {t.place || "top"}
                {t.shown !== t.name && !t.out && ` · in the class “${t.name}”`}
              </Typography>
              {t.unread !== null && !t.out && (
                <div>
                  <StateMark mark="attention" wrap>
                    {unreadWords[t.unread]}
                  </StateMark>{" "}
                  <Look classId={props.classId} thing={t} />
                </div>
              )}
              {(t.names.length > 0 || t.byStudent) && (
                <FormControlLabel
                  control={
                    <Checkbox
                      checked={props.named.has(t.key)}
                      onChange={() => props.flip(t.key)}
                      size="small"
                    />
                  }
                  label={
                    <StateMark mark="attention" wrap>
                      {`${whom(t)}: ${t.out ? "stays off unless ticked" : "keep its own name"}`}
                    </StateMark>
                  }
                />
              )}
            </>
          ),
        },
      ]}
    />
  );
}

const whom = (t: Thing) =>
  t.names.length === 0 ? "a student’s" : `${t.inside ? "its text names" : "names"} ${t.names.join(", ")}`;

function Look({ classId, thing }: { classId: number; thing: Thing }) {
  const k = `/api/classes/${classId}`;
  const at =
    thing.item !== null
      ? `${k}/items/${thing.item}/content`
      : thing.work !== null
        ? `${k}/work/${thing.work}/files/${thing.file}`
        : null;
  if (at === null) return null;
  return (
    <Link href={at} download={thing.name} aria-label={`Download ${thing.name} to look at it`}>
      look at it
    </Link>
  );
}
