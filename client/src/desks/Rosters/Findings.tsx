import Box from "@mui/material/Box";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../../api/client";
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
      <Table aria-label="Findings">
        <TableHead>
          <TableRow>
            <TableCell>File</TableCell>
            <TableCell align="right">Line</TableCell>
            <TableCell>Column</TableCell>
            <TableCell>What it is</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {findings.slice(0, 300).map((f, i) => (
            <TableRow key={i}>
              <TableCell>{f.file}</TableCell>
              <TableCell align="right">{f.line > 0 ? f.line : ""}</TableCell>
              <TableCell>{f.column}</TableCell>
              <TableCell sx={{ overflowWrap: "anywhere" }}>{f.text}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
