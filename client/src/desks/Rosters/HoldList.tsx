import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

const why: Record<Schemas["HoldKind"], string> = {
  ClassLoses: "more than a fifth of the class",
  SchoolLoses: "more than a twentieth of the school",
  StaffLoses: "more than a twentieth of the staff",
  CameEmpty: "a list that came empty",
  OutsideDates: "outside the school year",
  PersonUnclear: "who is it?",
  ClassGone: "a class that is gone",
};

/** What waits for a person, each with its reason and its yes and no. */
export function HoldList({ d }: { d: Schemas["DeliveryView"] }) {
  if (d.holds.length === 0) return null;
  const waiting = d.holds.filter((h) => h.decision === "Waiting").length;
  return (
    <Box component="section" aria-labelledby="holds" sx={{ mb: 2.5 }}>
      <Typography variant="h2" id="holds" sx={{ mb: 0.5 }}>
        {waiting > 0
          ? `On hold: ${count(waiting, "question", "questions")} for you`
          : "All questions are answered"}
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {d.holds.map((h) => (
          <OneHold key={h.key} d={d} h={h} />
        ))}
      </Box>
    </Box>
  );
}

function OneHold({ d, h }: { d: Schemas["DeliveryView"]; h: Schemas["HoldView"] }) {
  const [who, setWho] = useState<string>(h.settledAs ? String(h.settledAs) : "");
  const decide = useAct((decision: Schemas["HoldDecision"], headers) =>
    take(
      api.PUT("/api/deliveries/{deliveryId}/holds", {
        params: { path: { deliveryId: d.summary.id } },
        body: { key: h.key, decision, person: who === "" || who === "new" ? null : Number(who) },
        headers,
      }),
    ),
  );
  const unclear = h.kind === "PersonUnclear";
  const open = d.summary.state === "Waiting" || d.summary.state === "Applied";
  const settled = h.people.find((p) => p.id === h.settledAs);
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: "divider", py: 1 }}>
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap" }}>
        <Box sx={{ flex: "1 1 320px", minWidth: 0 }}>
          <StateMark mark={h.decision === "Waiting" ? "attention" : h.decision === "Yes" ? "done" : "none"}>
            {why[h.kind]}
          </StateMark>
          <Typography sx={{ overflowWrap: "anywhere" }}>{h.text}</Typography>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            {h.decision === "Waiting"
              ? `${count(h.changes, "change waits", "changes wait")} for it.`
              : `${count(h.changes, "change", "changes")}.`}
            {h.decision === "Yes" &&
              (unclear
                ? ` You said: ${settled ? `${settled.sortName}, ${settled.userName}` : "somebody new"}.`
                : " You said yes.")}
            {h.decision === "No" && " You said no: nothing comes of it."}
          </Typography>
        </Box>
        {open &&
          (h.decision === "Waiting" ? (
            <>
              <Button
                variant="outlined"
                disabled={decide.isPending || (unclear && who === "")}
                onClick={() => decide.mutate("Yes")}
              >
                {unclear ? "That is who it is" : "Yes, let it happen"}
              </Button>
              <Button color="inherit" disabled={decide.isPending} onClick={() => decide.mutate("No")}>
                No, leave it out
              </Button>
            </>
          ) : (
            <Button color="inherit" disabled={decide.isPending} onClick={() => decide.mutate("Waiting")}>
              Decide anew
            </Button>
          ))}
      </Box>
      {unclear && h.decision === "Waiting" && (
        <RadioGroup
          aria-label={`Who is ${h.text}`}
          value={who}
          onChange={(e) => setWho(e.target.value)}
          sx={{ pl: 2.25 }}
        >
          {h.people.map((p) => (
            <FormControlLabel
              key={p.id}
              value={String(p.id)}
              control={<Radio size="small" />}
              label={
                <>
                  <strong>{p.sortName}</strong>
                  {[
                    p.grade && `grade ${p.grade}`,
                    p.studentNumber && `number ${p.studentNumber}`,
                    p.email,
                    `signs in as ${p.userName}`,
                    p.classes.length > 0 ? `in ${p.classes.join(", ")}` : "in no class",
                    !p.active && "has left",
                  ]
                    .filter(Boolean)
                    .map((x) => `, ${x}`)
                    .join("")}
                </>
              }
            />
          ))}
          <FormControlLabel
            value="new"
            control={<Radio size="small" />}
            label="None of them: somebody new, with an account of their own"
          />
        </RadioGroup>
      )}
      <Problem error={decide.error} />
    </Box>
  );
}
