import type { Schemas } from "../../../api/client";
import { Ask } from "../../../parts/Ask";
import { PlainTable } from "../../../parts/table/PlainTable";
import { count, sayDate } from "../../../parts/words";

/** How often a shelf was opened, by day. Who came is not known. */
export function ShelfVisits({ shelf, onClose }: { shelf: Schemas["ShelfView"]; onClose: () => void }) {
  const most = Math.max(...shelf.days.map((d) => d.visits));
  return (
    <Ask
      open
      looks
      title={`${count(shelf.visits, "visit", "visits")} of ${shelf.title}`}
      act="Done"
      onAct={onClose}
      onClose={onClose}
    >
      <PlainTable
        label="Visits by day"
        rows={shelf.days}
        id={(d) => d.day}
        columns={[
          { head: "Day", main: true, by: (d) => d.day, cell: (d) => sayDate(d.day) },
          {
            head: "Visits",
            by: (d) => d.visits,
            cell: (d) => (
              <>
                {d.visits}
                <span
                  aria-hidden
                  className="shelf-visits"
                  style={{ inlineSize: `${(d.visits / most) * 60}%` }}
                />
              </>
            ),
          },
        ]}
      />
    </Ask>
  );
}
