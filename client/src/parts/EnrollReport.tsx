import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import { StateMark } from "./StateMark";
import { count } from "./words";

/** What enrolling did, and of whom it did not, why. */
export function EnrollReport({ report }: { report: Schemas["EnrollReport"] }) {
  return (
    <Box role="status" sx={{ mt: 1 }}>
      <StateMark mark="done">
        {count(report.joined, "person", "people")} enrolled, {count(report.folders, "folder", "folders")}{" "}
        unfolded.
      </StateMark>
      {report.decisions
        .filter((d) => d.why)
        .map((d) => (
          <Typography key={d.person} variant="body2">
            <StateMark mark="attention">{d.why}</StateMark>
          </Typography>
        ))}
    </Box>
  );
}
