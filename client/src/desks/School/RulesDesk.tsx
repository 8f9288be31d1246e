import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Desk } from "../../parts/Desk";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { Tick } from "../../parts/Tick";
import { typedNumber } from "../../parts/typedNumber";
import { useTyped } from "../../parts/typed";
import { count } from "../../parts/words";
import { LetGo, Usage, WhatItMeans } from "./RulesSlip";

type Rules = Schemas["SchoolRules"];
type NumberRule = Exclude<keyof Rules, "secondStep" | "keepsActivity">;
type Typed = Partial<Record<NumberRule, string>> & {
  secondStep?: Rules["secondStep"];
  keepsActivity?: boolean;
};

const signIns: readonly [NumberRule, string, string][] = [
  ["idleHours", "Ends without use after", "hours"],
  ["mostDays", "Ends in any case after", "days"],
];
const room: readonly [NumberRule, string, string][] = [
  ["fileMegabytes", "One file", "MB"],
  ["personMegabytes", "One student, in all classes", "MB"],
  ["classMegabytes", "One class", "MB"],
  ["schoolGigabytes", "The whole school", "GB"],
];
const keeping: readonly [NumberRule, string, string][] = [
  ["auditYears", "Lines of the audit trail", "years"],
  ["letterDays", "Letters that were sent", "days"],
  ["leaverDays", "Take-homes of those who left", "days"],
  ["peopleYears", "Names of those who left", "years"],
];
// Without a number there is no limit, or it is for ever; of these there always is one.
const always: readonly NumberRule[] = ["fileMegabytes", "letterDays", "leaverDays", "idleHours", "mostDays"];

/** What holds for the whole school: the second step, room for files, and how long things are kept. */
export function RulesDesk({ me }: { me: Schemas["Me"] }) {
  const [typed, setTyped] = useState<Typed>({});
  const changed = Object.keys(typed).length > 0;
  useTyped(changed);
  const seen = useQuery({
    queryKey: ["school-rules"],
    queryFn: () => take(api.GET("/api/school/rules")),
  });
  const next = seen.data && changed ? rulesOf(seen.data.rules, typed) : undefined;
  const preview = useQuery({
    queryKey: ["school-rules", next],
    enabled: next !== undefined && next !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => take(api.POST("/api/school/rules/preview", { body: next! })),
  });
  const save = useAct(
    (_: void, headers) =>
      take(api.PUT("/api/school/rules", { body: { rules: next!, version: seen.data!.version }, headers })),
    () => setTyped({}),
  );
  const v = seen.data;
  const wrong = preview.error ?? save.error;
  const wrongField = wrong && "field" in wrong ? wrong.field : undefined;
  const field = ([name, label, unit]: (typeof room)[number]) => (
    <TextField
      key={name}
      label={`${label}, ${unit}`}
      value={typed[name] ?? v?.rules[name]?.toString() ?? ""}
      placeholder={always.includes(name) ? undefined : name.endsWith("Years") ? "for ever" : "no limit"}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: "numeric" } }}
      error={wrongField === name || noNumber(name, typed[name])}
      onChange={(e) => setTyped({ ...typed, [name]: e.target.value })}
    />
  );
  return (
    <Desk
      title="School rules"
      lead="What holds for everybody: signing in, room for files, and how long things are kept. At the right stands what it means."
      slip={
        v && (
          <>
            <WhatItMeans preview={changed ? preview.data : undefined} />
            <Usage seen={v} />
            <LetGo seen={v} />
          </>
        )
      }
    >
      <PlanPlaces me={me} />
      {!v ? (
        <Problem error={seen.error} />
      ) : (
        <Box
          component="form"
          sx={{ maxWidth: 640 }}
          onSubmit={(e) => {
            e.preventDefault();
            save.mutate();
          }}
        >
          <Typography variant="h2">A second step at sign-in</Typography>
          <TextField
            select
            label="Required of"
            sx={{ mt: 1.5, width: 300 }}
            value={typed.secondStep ?? v.rules.secondStep}
            onChange={(e) => setTyped({ ...typed, secondStep: e.target.value as Rules["secondStep"] })}
          >
            <MenuItem value="Nobody">nobody; staff may have one</MenuItem>
            <MenuItem value="Coordinators">coordinators</MenuItem>
            <MenuItem value="Staff">all staff</MenuItem>
          </TextField>
          <Typography variant="body2" sx={{ color: "text.secondary", mt: 0.75 }}>
            {v.withoutStep.coordinators + v.withoutStep.others === 0
              ? "Everybody on the staff has one."
              : `${count(v.withoutStep.coordinators, "coordinator", "coordinators")} and ${v.withoutStep.others} others on the staff have none yet.`}
          </Typography>
          <Typography variant="h2" sx={{ mt: 3, mb: 1.5 }}>
            How long a sign-in goes on
          </Typography>
          <Fields>{signIns.map(field)}</Fields>
          <Typography variant="h2" sx={{ mt: 3 }}>
            Room for files
          </Typography>
          <Typography variant="body2" sx={{ color: "text.secondary", mt: 0.5, mb: 1.5 }}>
            Nothing is taken out of a place that has more; nobody puts more into it.
          </Typography>
          <Fields>{room.map(field)}</Fields>
          <Typography variant="h2" sx={{ mt: 3 }}>
            Keeping
          </Typography>
          <Typography variant="body2" sx={{ color: "text.secondary", mt: 0.5, mb: 1.5 }}>
            Once a day the program lets go of what is older. What is binned waits {v.binDays} days.
            Nobody&rsquo;s only copy goes before they had the time to fetch it.
          </Typography>
          <Fields>{keeping.map(field)}</Fields>
          <Tick
            label="Keep who opened, wrote and handed in, by school day, for the staff of a class; 400 days"
            value={typed.keepsActivity ?? v.rules.keepsActivity}
            onChange={(keepsActivity) => setTyped({ ...typed, keepsActivity })}
          />
          {typed.keepsActivity === false && (
            <Typography variant="body2" sx={{ color: "warning.main" }}>
              What was kept so far goes within a day, and is not brought back.
            </Typography>
          )}
          {next === null && (
            <Typography role="alert" sx={{ color: "error.main", mt: 1.5 }}>
              Type whole numbers where a field is marked; an empty one is no limit where it says so.
            </Typography>
          )}
          <Problem error={wrong} />
          <Button
            type="submit"
            variant="contained"
            sx={{ mt: 2 }}
            disabled={!changed || next === null || preview.isError || save.isPending}
          >
            Lay down these rules
          </Button>
        </Box>
      )}
    </Desk>
  );
}

function Fields({ children }: { children: React.ReactNode }) {
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 2 }}>{children}</Box>
  );
}

// Empty is a number for those alone that may be without one.
const noNumber = (name: NumberRule, text: string | undefined) => {
  if (text === undefined) return false;
  const number = typedNumber(text);
  return number === null ? always.includes(name) : !Number.isInteger(number);
};

/** The rules as typed; null if a number is none. */
function rulesOf(now: Rules, typed: Typed): Rules | null {
  const next: Rules = {
    ...now,
    secondStep: typed.secondStep ?? now.secondStep,
    keepsActivity: typed.keepsActivity ?? now.keepsActivity,
  };
  for (const [name] of [...signIns, ...room, ...keeping]) {
    const text = typed[name];
    if (text === undefined) continue;
    if (noNumber(name, text)) return null;
    Object.assign(next, { [name]: typedNumber(text) });
  }
  return next;
}
