import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import { HandedThing } from "./HandedThing";
import { sayMark } from "./marks";
import { sayMoment } from "./words";

/** Each earlier time that a piece of work was handed in, as it was then; the newest stands above already. */
export function Turns(props: {
  turns: readonly Schemas["TurnView"][];
  points: number | null | undefined;
  scheme?: Schemas["MarkScheme"] | null;
  /** Where the files of a turn are. */
  at: string;
}) {
  const earlier = props.turns.slice(1);
  if (earlier.length === 0) return null;
  return (
    <Box component="details">
      <Typography component="summary" variant="body2" sx={{ cursor: "pointer", py: "2px" }}>
        {earlier.length === 1 ? "Handed in once before" : `Handed in ${earlier.length} times before`}
      </Typography>
      {earlier.map((t) => (
        <Box key={t.id} sx={{ borderTop: 1, borderColor: "divider", py: 0.5 }}>
          <Typography variant="body2">
            {sayMoment(t.handedInAt)}
            {t.returnedAt && `, returned ${sayMoment(t.returnedAt)}`}
            {t.takenBackAt && ", taken back"}
            {t.score != null && `, ${sayMark(t.score, props.points, props.scheme)}`}, receipt{" "}
            <a href={`${props.at}/turns/${t.id}/receipt`} download>
              {t.receipt}
            </a>
          </Typography>
          {t.files.map((f) => (
            <HandedThing key={f.id} thing={f} at={`${props.at}/turns/${t.id}/${f.id}`} />
          ))}
        </Box>
      ))}
    </Box>
  );
}
