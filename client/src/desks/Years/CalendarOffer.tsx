import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count, sayDate } from "../../parts/words";

type Use = "day off" | "term" | "leave out";

/** What a calendar file offers: each entry becomes a day off or a term, or is left out. */
export function CalendarOffer(props: {
  offer: Schemas["CalendarOffer"];
  draft: Schemas["YearDraft"];
  onTake: (d: Schemas["YearDraft"]) => void;
  onClose: () => void;
}) {
  const { days, leftOut } = props.offer;
  const has = (list: { name: string | null; first: string }[] | null, d: Schemas["NamedDays"]) =>
    (list ?? []).some((x) => x.name === d.name && x.first === d.first);
  const [uses, setUses] = useState<Use[]>(() =>
    days.map((d) =>
      has(props.draft.daysOff, d) || has(props.draft.terms, d)
        ? "leave out"
        : d.kind === "TERM"
          ? "term"
          : "day off",
    ),
  );
  const taken = uses.filter((u) => u !== "leave out").length;
  const take = () => {
    const of = (use: Use) =>
      days.filter((_, i) => uses[i] === use).map(({ name, first, last }) => ({ name, first, last }));
    props.onTake({
      ...props.draft,
      terms: [...(props.draft.terms ?? []), ...of("term").map((t) => ({ ...t, id: null }))],
      daysOff: [...(props.draft.daysOff ?? []), ...of("day off")],
    });
  };
  return (
    <Ask
      open
      title={`${count(days.length, "entry", "entries")} in the calendar file`}
      act={`Take ${count(taken, "entry", "entries")} into the calendar`}
      disabled={taken === 0}
      onAct={take}
      onClose={props.onClose}
    >
      <Typography sx={{ mb: 1 }}>
        Nothing is saved by this: you see what it does first. What is in the calendar already is left out.
      </Typography>
      {days.map((d, i) => (
        <Box
          key={i}
          sx={{
            display: "grid",
            gridTemplateColumns: "minmax(0, 1fr) 190px 110px",
            gap: 1,
            alignItems: "center",
            borderBottom: 1,
            borderColor: "divider",
            py: 0.25,
          }}
        >
          <span>{d.name}</span>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            {d.first === d.last ? sayDate(d.first) : `${sayDate(d.first)} – ${sayDate(d.last)}`}
          </Typography>
          <TextField
            select
            variant="standard"
            value={uses[i]}
            onChange={(e) => setUses(uses.map((u, n) => (n === i ? (e.target.value as Use) : u)))}
            slotProps={{ htmlInput: { "aria-label": `Use of ${d.name}` } }}
          >
            {(["day off", "term", "leave out"] as const).map((u) => (
              <MenuItem key={u} value={u}>
                {u}
              </MenuItem>
            ))}
          </TextField>
        </Box>
      ))}
      {leftOut.length > 0 && (
        <Typography variant="h3" sx={{ mt: 2 }}>
          Left out
        </Typography>
      )}
      {leftOut.map((l) => (
        <Typography key={l} variant="body2">
          <StateMark mark="attention">{l}</StateMark>
        </Typography>
      ))}
    </Ask>
  );
}
