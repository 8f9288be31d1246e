import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../../api/client";
import { StateMark } from "../../parts/StateMark";

type Draft = Schemas["YearDraft"];
type Day = NonNullable<Draft["schoolWeekdays"]>[number];
const weekdays: Day[] = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

/** The calendar of a year, written: weekdays, weeks, terms and days off. */
export function YearForm({
  draft,
  onChange,
  refusals,
}: {
  draft: Draft;
  onChange: (d: Draft) => void;
  refusals: Schemas["Refusal"][];
}) {
  const set = (part: Partial<Draft>) => onChange({ ...draft, ...part });
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: "120px 1fr", gap: 1.5, alignItems: "center" }}>
        <TextField
          label="Name"
          value={draft.label ?? ""}
          error={refusals.some((r) => r.field === "label")}
          onChange={(e) => set({ label: e.target.value })}
        />
        <ToggleButtonGroup
          size="small"
          value={draft.schoolWeekdays ?? []}
          onChange={(_, v: Day[]) => set({ schoolWeekdays: v })}
          aria-label="Weekdays that the school keeps"
        >
          {weekdays.map((d) => (
            <ToggleButton key={d} value={d} aria-label={d}>
              {d.slice(0, 2)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr 1fr", gap: 1.5, mt: 1.5 }}>
        <TextField
          select
          label="Weeks start on"
          value={draft.firstWeekday}
          onChange={(e) => set({ firstWeekday: e.target.value as Day })}
        >
          {weekdays.map((d) => (
            <MenuItem key={d} value={d}>
              {d}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="School weeks count"
          value={draft.numbering}
          onChange={(e) => set({ numbering: e.target.value as Draft["numbering"] })}
        >
          <MenuItem value="Through">through the year</MenuItem>
          <MenuItem value="PerTerm">anew in each term</MenuItem>
        </TextField>
        <TextField
          select
          label="Two-week timetable"
          value={draft.letters}
          onChange={(e) => set({ letters: e.target.value as Draft["letters"] })}
        >
          <MenuItem value="None">none</MenuItem>
          <MenuItem value="ByTurns">A and B by turns</MenuItem>
          <MenuItem value="AnewAfterHoliday">A again after each holiday</MenuItem>
        </TextField>
      </Box>
      <Stretches
        title="Terms"
        one="term"
        rows={draft.terms ?? []}
        refusals={refusals.filter((r) => r.field === "terms")}
        onChange={(terms) => set({ terms })}
      />
      <Stretches
        title="Days off"
        one="day off"
        rows={draft.daysOff ?? []}
        refusals={refusals.filter((r) => r.field === "daysOff")}
        onChange={(daysOff) => set({ daysOff })}
      />
    </>
  );
}

interface Stretch {
  id?: number | null;
  name: string | null;
  first: string;
  last: string;
}

function Stretches<T extends Stretch>(props: {
  title: string;
  one: string;
  rows: T[];
  refusals: Schemas["Refusal"][];
  onChange: (rows: T[]) => void;
}) {
  const { rows } = props;
  const change = (i: number, part: Partial<Stretch>) =>
    props.onChange(rows.map((r, n) => (n === i ? { ...r, ...part } : r)));
  return (
    <Box component="section" aria-label={props.title} sx={{ mt: 2 }}>
      <Typography variant="h2">{props.title}</Typography>
      {props.refusals.map((r) => (
        <Typography key={r.code + r.what} role="alert" variant="body2">
          <StateMark mark="blocked" strong>
            {r.what}
          </StateMark>{" "}
          {r.mend}
        </Typography>
      ))}
      {rows.map((r, i) => (
        <Box
          key={i}
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "1fr 1fr", sm: "minmax(0, 1fr) 150px 150px auto" },
            gap: 1,
            py: 0.5,
            borderBottom: 1,
            borderColor: "divider",
            alignItems: "center",
          }}
        >
          <TextField
            variant="standard"
            value={r.name ?? ""}
            onChange={(e) => change(i, { name: e.target.value })}
            slotProps={{ htmlInput: { "aria-label": `Name of ${props.one} ${i + 1}` } }}
          />
          {(["first", "last"] as const).map((end) => (
            <TextField
              key={end}
              variant="standard"
              type="date"
              value={r[end]}
              onChange={(e) => change(i, { [end]: e.target.value })}
              slotProps={{
                htmlInput: {
                  "aria-label": `${end === "first" ? "First" : "Last"} day of ${r.name || `${props.one} ${i + 1}`}`,
                },
              }}
            />
          ))}
          <Button
            color="inherit"
            onClick={() => props.onChange(rows.filter((_, n) => n !== i))}
            aria-label={`Take out ${r.name || `${props.one} ${i + 1}`}`}
          >
            Take out
          </Button>
        </Box>
      ))}
      <Button
        sx={{ mt: 0.5 }}
        onClick={() => props.onChange([...rows, { id: null, name: "", first: "", last: "" } as unknown as T])}
      >
        Add a {props.one}
      </Button>
    </Box>
  );
}
