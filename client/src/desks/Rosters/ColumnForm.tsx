import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { columnWords } from "./deliveryWords";

/** What each column of a plain table is: guessed by its name, confirmed by hand. */
export function ColumnForm({ d }: { d: Schemas["DeliveryView"] }) {
  const [columns, setColumns] = useState(d.columns.map((c) => c.is));
  const [whole, setWhole] = useState(d.whole);
  const save = useAct((_: void, headers) =>
    take(
      api.PUT("/api/deliveries/{deliveryId}/columns", {
        params: { path: { deliveryId: d.summary.id } },
        body: { columns, whole },
        headers,
      }),
    ),
  );
  return (
    <>
      <Typography variant="h2">What is in which column?</Typography>
      <Table aria-label="Columns" sx={{ my: 1 }}>
        <TableHead>
          <TableRow>
            <TableCell>Column</TableCell>
            <TableCell>Begins with</TableCell>
            <TableCell>It is</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {d.columns.map((c, i) => (
            <TableRow key={i}>
              <TableCell>
                <strong>{c.name || `column ${i + 1}`}</strong>
              </TableCell>
              <TableCell sx={{ color: "text.secondary" }}>{c.examples.join(" · ")}</TableCell>
              <TableCell>
                <TextField
                  select
                  variant="standard"
                  value={columns[i]}
                  onChange={(e) =>
                    setColumns(columns.map((x, k) => (k === i ? (e.target.value as typeof x) : x)))
                  }
                  slotProps={{ htmlInput: { "aria-label": `${c.name} is` } }}
                  sx={{ minWidth: 180 }}
                >
                  {(Object.keys(columnWords) as (keyof typeof columnWords)[]).map((k) => (
                    <MenuItem key={k} value={k}>
                      {columnWords[k]}
                    </MenuItem>
                  ))}
                </TextField>
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <FormControlLabel
        control={<Checkbox checked={whole} onChange={(e) => setWhole(e.target.checked)} />}
        label={
          columns.includes("Class")
            ? "The table is whole: whom a delivery put into a class it names, and who is not in it, leaves that class"
            : "The table is whole: whom an earlier delivery brought and who is not in it has left"
        }
      />
      <Problem error={save.error} />
      <Box sx={{ mt: 1.5 }}>
        <Button variant="contained" disabled={save.isPending} onClick={() => save.mutate()}>
          Compare with the school
        </Button>
      </Box>
    </>
  );
}
