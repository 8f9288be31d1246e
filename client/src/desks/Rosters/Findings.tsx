import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../../api/client";
import { PlainTable } from "../../parts/table/PlainTable";
import { count } from "../../parts/words";

/** What could not be taken as it is: where it stands, and what became of it. */
export function Findings({ findings, all }: { findings: Schemas["DeliveryFinding"][]; all: number }) {
  if (findings.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="findings">
      <Typography variant="h2" id="findings">
        {count(all, "finding", "findings")} while reading
      </Typography>
      <Typography sx={{ color: "text.secondary", mb: 0.5 }}>
        These rows were left out or taken in part; all others came.
        {all > findings.length && ` The first ${findings.length} are shown.`}
      </Typography>
      <PlainTable
        label="Findings"
        rows={findings}
        id={(_, i) => i}
        columns={[
          { head: "File", cell: (f) => f.file },
          { head: "Line", cell: (f) => (f.line > 0 ? f.line : ""), align: "right" },
          { head: "Column", cell: (f) => f.column },
          { head: "What it is", cell: (f) => f.text, look: "any" },
        ]}
      />
    </Box>
  );
}
