import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../../api/client";
import { sayDay } from "../../parts/words";
import { TwoYears } from "./TwoYears";

type Choice = Required<Schemas["CarryChoice"]>;

/** All comes along, assignments without a date. */
export const everything: Choice = {
  folders: true,
  files: true,
  links: true,
  pages: true,
  assignments: true,
  markingScheme: true,
  groups: true,
  welcome: true,
  dates: "None",
};

const ticks: [Exclude<keyof Choice, "dates">, string][] = [
  ["folders", "Folders"],
  ["files", "Files"],
  ["links", "Links"],
  ["pages", "Pages"],
  ["assignments", "Assignments, as drafts"],
  ["markingScheme", "Their points"],
  ["groups", "Groups, without members"],
  ["welcome", "Welcome note"],
];

/** What comes along into next year's class, to be ticked, and what becomes of dates. */
export function CarryTicks({ value, onChange }: { value: Choice; onChange: (c: Choice) => void }) {
  return (
    <Box component="fieldset" sx={{ border: 0, p: 0, m: 0 }}>
      <Typography component="legend" variant="h3" sx={{ p: 0 }}>
        What comes along
      </Typography>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr" }}>
        {ticks.map(([key, label]) => (
          <FormControlLabel
            key={key}
            control={
              <Checkbox
                checked={value[key]}
                onChange={(e) => onChange({ ...value, [key]: e.target.checked })}
                sx={{ py: 0.25 }}
              />
            }
            label={label}
          />
        ))}
      </Box>
      {value.assignments && (
        <>
          <Typography variant="h3" component="p" sx={{ mt: 1 }}>
            Dates of assignments
          </Typography>
          <RadioGroup
            aria-label="Dates of assignments"
            value={value.dates}
            onChange={(e) => onChange({ ...value, dates: e.target.value as Choice["dates"] })}
            sx={{ pl: 0 }}
          >
            <FormControlLabel
              value="None"
              control={<Radio size="small" sx={{ py: 0.25 }} />}
              label="without a date"
            />
            <FormControlLabel
              value="BySchoolWeek"
              control={<Radio size="small" sx={{ py: 0.25 }} />}
              label="same school week and weekday"
            />
          </RadioGroup>
        </>
      )}
    </Box>
  );
}

/** Dates that move, each with its reason; those that a person should look at stand out. */
export function MovedDates({ dates }: { dates: Schemas["CarriedDate"][] }) {
  return (
    <>
      <TwoYears dates={dates} />
      <ul className="moved-dates">
        {dates.map((d) => (
          <li key={d.assignment}>
            <strong>{d.title}</strong>: {sayDay(d.moved.was)} → {sayDay(d.moved.will)}{" "}
            <span className={d.moved.flagged ? "moved-why flagged" : "moved-why"}>
              {d.moved.flagged && "◇ "}
              {d.moved.why}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
