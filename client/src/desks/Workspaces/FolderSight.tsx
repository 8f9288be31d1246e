import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../api/client";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";

const words: Record<Schemas["Right"], string> = {
  None: "does not see it",
  View: "views",
  Add: "adds",
  Edit: "edits",
  Manage: "manages",
};

/** Who sees a folder, and each step that led to it. */
export function FolderSight({
  classId,
  folder,
  onClose,
}: {
  classId: number;
  folder: Schemas["FolderView"];
  onClose: () => void;
}) {
  const sight = useQuery({
    queryKey: ["sight", classId, folder.id],
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/folders/{folderId}/sight", {
          params: { path: { classId, folderId: folder.id } },
        }),
      ),
  });
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="sight-title">
      <DialogTitle id="sight-title">Who sees “{folder.name}”</DialogTitle>
      <DialogContent tabIndex={0}>
        <Problem error={sight.error} />
        <Table aria-label={`Who sees ${folder.name}`}>
          <TableHead>
            <TableRow>
              <TableCell>Person</TableCell>
              <TableCell>Right</TableCell>
              <TableCell>Because</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {sight.data?.map((s) => (
              <TableRow key={s.person}>
                <TableCell sx={{ whiteSpace: "nowrap", fontWeight: 600 }}>{s.name}</TableCell>
                <TableCell>
                  <StateMark mark={s.right === "None" ? "notYet" : "done"}>{words[s.right]}</StateMark>
                </TableCell>
                <TableCell>{s.steps.join("; ")}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={onClose}>
          Done
        </Button>
      </DialogActions>
    </Dialog>
  );
}
