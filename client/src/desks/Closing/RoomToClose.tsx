import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../api/client";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayBytes } from "../../parts/words";

/** About how long something takes, in words. */
export function sayAbout(seconds: number): string {
  if (seconds < 60) return "less than a minute";
  const minutes = Math.round(seconds / 60);
  return minutes < 90
    ? `about ${count(minutes, "minute", "minutes")}`
    : `about ${count(Math.round(minutes / 60), "hour", "hours")}`;
}

/** How much room and time closing some classes takes, and whether the disk has it. */
export function RoomToClose(props: { classes: number[]; options: Schemas["ClosingOptions"] }) {
  const room = useQuery({
    queryKey: ["closing-room", props.classes, props.options],
    enabled: props.classes.length > 0,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/closing/room", { body: props })),
  });
  const r = room.data;
  if (!r || props.classes.length === 0) return <Problem error={room.error} />;
  return (
    <Typography variant="body2" component="div">
      <StateMark mark={r.fits ? "done" : "blocked"} wrap>
        {r.fits
          ? `takes up to ${sayBytes(r.needed)} on the disk, where ${sayBytes(r.free)} are free`
          : `the disk is too small: it takes up to ${sayBytes(r.needed)}, and ${sayBytes(r.free)} are free. Make room, or close fewer classes at once.`}
        {r.seconds != null && `; ${sayAbout(r.seconds)}, as the last runs went`}
      </StateMark>
    </Typography>
  );
}
