import Box from "@mui/material/Box";
import LinearProgress from "@mui/material/LinearProgress";
import type { Schemas } from "../../api/client";
import { StateMark } from "../../parts/StateMark";
import { stepMarks, stepNames, stepWords } from "./closingWords";

/** The steps of closing one class, how far each is, and what came of it. */
export function StepList({ steps }: { steps: Schemas["RunStepView"][] }) {
  return (
    <Box role="status">
      {steps.map((s) => (
        <Box key={s.step} sx={{ borderBottom: 1, borderColor: "divider", py: 0.75 }}>
          <Box sx={{ display: "grid", gridTemplateColumns: "110px 190px 1fr", gap: 1 }}>
            <StateMark mark={stepMarks[s.state]} strong={s.state === "Failed"}>
              {stepWords[s.state]}
            </StateMark>
            <strong>{stepNames[s.step]}</strong>
            <Box component="span" sx={{ color: "text.secondary" }}>
              {s.state === "Working" && s.total > 0
                ? `${s.done} of ${s.total}`
                : s.step === "Check" && s.state === "Done"
                  ? `${s.total} files read back, all as in the class`
                  : s.detail}
            </Box>
          </Box>
          {s.state === "Working" && (
            <LinearProgress
              variant={s.total > 0 ? "determinate" : "indeterminate"}
              value={s.total > 0 ? (100 * s.done) / s.total : undefined}
              aria-label={stepNames[s.step]}
              sx={{ mt: 0.5 }}
            />
          )}
        </Box>
      ))}
    </Box>
  );
}
