import Dialog from "@mui/material/Dialog";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import type { Listed } from "./keys";

/** The keys of the screen. */
export function KeysDialog({ keys: list, onClose }: { keys: Listed[]; onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">Keys of this screen</DialogTitle>
      <DialogContent>
        <Table>
          <TableBody>
            {list.map(([keys, does]) => (
              <TableRow key={keys + does}>
                <TableCell component="th" scope="row">
                  <kbd>{keys}</kbd>
                </TableCell>
                <TableCell>{does}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </DialogContent>
    </Dialog>
  );
}
