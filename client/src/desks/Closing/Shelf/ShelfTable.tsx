import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useSchool } from "../../../api/queries";
import { useAct } from "../../../api/useAct";
import { later } from "../../../parts/later";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { PlainTable } from "../../../parts/table/PlainTable";
import { sayDate } from "../../../parts/words";
import "./shelf.css";

const ShelfChange = later(() => import("./ShelfChange"), "ShelfChange");
const ShelfVisits = later(() => import("./ShelfVisits"), "ShelfVisits");

type Shelf = Schemas["ShelfView"];

/** The shelves of a class: where they open, until when, how often they were opened. */
export function ShelfTable(props: { classId: number; desk: Schemas["ShelfDesk"]; may: boolean }) {
  const { classId, desk, may } = props;
  const school = useSchool();
  const [changes, setChanges] = useState<Shelf | null>(null);
  const [counts, setCounts] = useState<Shelf | null>(null);
  const shut = useAct((shelfId: number, headers) =>
    take(
      api.DELETE("/api/classes/{classId}/shelves/{shelfId}", {
        params: { path: { classId, shelfId } },
        headers,
      }),
    ),
  );
  return (
    <>
      <Problem error={shut.error} />
      <PlainTable
        label="Shelves of this class"
        rows={desk.shelves}
        id={(s) => s.id}
        space={{ mb: 3 }}
        columns={[
          {
            head: "Shelf",
            cell: (s) => (
              <>
                {s.open ? (
                  <Link href={s.address} target="_blank" rel="noopener">
                    {s.title}
                  </Link>
                ) : (
                  s.title
                )}
                {s.open && (
                  <Typography variant="caption" component="div" color="text.secondary" className="shelf-at">
                    {school.data?.address}
                    {s.address}
                  </Typography>
                )}
              </>
            ),
          },
          {
            head: "State",
            cell: (s) => (
              <StateMark mark={s.open ? "done" : "none"}>
                {s.open ? `open until ${sayDate(s.until)}` : s.shutAt != null ? "shut" : "its day is over"}
              </StateMark>
            ),
          },
          { head: "Things", cell: (s) => s.things, align: "right" },
          {
            head: "Visits",
            by: (s) => s.visits,
            cell: (s) =>
              s.visits === 0 ? (
                0
              ) : (
                <Button onClick={() => setCounts(s)} aria-label={`${s.visits} visits of ${s.title}, by day`}>
                  {s.visits}
                </Button>
              ),
            align: "right",
          },
          {
            head: "",
            cell: (s) =>
              may &&
              s.shutAt == null && (
                <>
                  <Button onClick={() => setChanges(s)} aria-label={`Change ${s.title}`}>
                    {s.open ? "Change…" : "Open it again…"}
                  </Button>
                  {s.open && (
                    <Button
                      disabled={shut.isPending}
                      onClick={() => shut.mutate(s.id)}
                      aria-label={`Shut ${s.title} now`}
                    >
                      Shut it now
                    </Button>
                  )}
                </>
              ),
            align: "right",
          },
        ]}
      />
      {changes && (
        <ShelfChange
          classId={classId}
          shelf={changes}
          languages={desk.languages}
          suggested={desk.suggested}
          onClose={() => setChanges(null)}
        />
      )}
      {counts && <ShelfVisits shelf={counts} onClose={() => setCounts(null)} />}
    </>
  );
}
