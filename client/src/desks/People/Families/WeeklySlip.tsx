import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { StateMark } from "../../../parts/StateMark";
import { Tick } from "../../../parts/Tick";
import { count, sayMoment } from "../../../parts/words";
import { weekdays } from "./contacts";

type Weekly = Schemas["WeeklyView"];

/** How the weekly letter stands: whether it goes out, when next, to how many, and whom it does not reach. */
export function WeeklySlip({ view, none, onLook }: { view: Weekly; none: boolean; onLook: () => void }) {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Typography variant="h2">Weekly letter</Typography>
      <StateMark mark={view.on ? "done" : "notYet"}>
        {view.on ? `goes out next ${sayMoment(view.next!)}` : "is not sent"}
      </StateMark>
      <Typography>
        {view.on ? "It goes" : "It would go"} to {count(view.reached, "contact", "contacts")}, about{" "}
        {view.studentsReached} of {count(view.students, "student", "students")},{" "}
        {view.marks ? "with" : "without"} marks. It says what is due, what came back, notices, and what to
        acknowledge; none goes with nothing in it.
      </Typography>
      {view.seenMarks === null && (
        <Typography>Before the first goes out, somebody looks at one as it would be.</Typography>
      )}
      <Button variant="outlined" disabled={none} onClick={onLook}>
        Look at the letters
      </Button>
      <Button variant="outlined" onClick={() => setAsking(true)}>
        {view.on ? "Change or end it…" : "Have it sent…"}
      </Button>
      {asking && <WeeklyForm view={view} onClose={() => setAsking(false)} />}
    </>
  );
}

function WeeklyForm({ view, onClose }: { view: Weekly; onClose: () => void }) {
  const [typed, setTyped] = useState({ on: true, day: view.day, marks: view.marks });
  const save = useAct(
    (_: void, headers) => take(api.PUT("/api/families/weekly", { body: typed, headers })),
    onClose,
  );
  const unseen = typed.on && view.seenMarks !== typed.marks;
  return (
    <Ask
      open
      title="The weekly letter"
      act={typed.on ? "Have it sent" : "Have none sent"}
      busy={save.isPending}
      disabled={unseen}
      error={save.error}
      onAct={() => save.mutate()}
      onClose={onClose}
    >
      <div className="contact-form">
        <Tick
          label="A letter goes to families each week"
          value={typed.on}
          onChange={(on) => setTyped({ ...typed, on })}
        />
        <div className="weekly-part">
          <TextField
            select
            label="On"
            value={typed.day}
            disabled={!typed.on}
            onChange={(e) => setTyped({ ...typed, day: e.target.value as Weekly["day"] })}
          >
            {weekdays.map(([day, word]) => (
              <MenuItem key={day} value={day}>
                {word}
              </MenuItem>
            ))}
          </TextField>
          <Typography>from four in the afternoon</Typography>
        </div>
        <Tick
          label="Marks stand in it"
          value={typed.marks}
          onChange={(marks) => setTyped({ ...typed, marks })}
        />
        {unseen && (
          <StateMark mark="attention" wrap>
            Nobody has looked at a letter {typed.marks ? "with" : "without"} marks yet. Not now, then look at
            the letters; after that it can be sent.
          </StateMark>
        )}
      </div>
    </Ask>
  );
}
