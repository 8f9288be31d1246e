import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../../api/client";
import { PlainTable } from "../../parts/table/PlainTable";

type Thing = Schemas["StayingThing"];

const why: Record<Thing["why"], string> = {
  NoRight: "no right to copy",
  FolderStays: "its folder stays",
  NotTicked: "not ticked",
  OfStudent: "a student’s own",
};

/** What could not come, and whose it is: whom to ask for the right, or where to fetch it from. */
export function Staying({ things, more }: { things: Thing[]; more: number }) {
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h2">What stays, and whose it is</Typography>
      <PlainTable
        label="What stays"
        rows={things}
        id={(t) => `${t.class} ${t.id}`}
        columns={[
          {
            head: "Thing",
            by: (t) => t.name,
            cell: (t) => (
              <>
                <span className="whole">{t.name}</span>
                <div className="soft">{t.where ?? "in no folder"}</div>
              </>
            ),
            says: (t) => t.name,
          },
          { head: "Put there by", cell: (t) => t.whose },
          { head: "Why", cell: (t) => why[t.why], says: (t) => why[t.why] },
        ]}
      />
      {more > 0 && <Typography variant="body2">…and {more} more.</Typography>}
    </Box>
  );
}
