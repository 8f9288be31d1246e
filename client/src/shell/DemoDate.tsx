import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take } from "../api/client";
import { useAct } from "../api/useAct";
import { Ask } from "../parts/Ask";

/** Moves the date that the demo believes in, so that every season can be tried. */
export function DemoDate({ today, onClose }: { today: string; onClose: () => void }) {
  const [date, setDate] = useState(today);
  const move = useAct(() => take(api.POST("/api/demo/date", { body: { today: date } })), onClose);
  return (
    <Ask
      open
      title="Move the demo's date"
      act="Move the date"
      busy={move.isPending}
      disabled={!date}
      error={move.error}
      onAct={() => move.mutate(undefined)}
      onClose={onClose}
    >
      <Typography sx={{ mb: 2 }}>
        The whole school will believe it is this day. Only the demo can do this.
      </Typography>
      <TextField
        type="date"
        label="Today is"
        value={date}
        onChange={(e) => setDate(e.target.value)}
        autoFocus
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </Ask>
  );
}
