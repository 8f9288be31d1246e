import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../api/client";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";

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
        <PlainTable
          label={`Who sees ${folder.name}`}
          rows={sight.data ?? []}
          id={(s) => s.person}
          columns={[
            { head: "Person", cell: (s) => <strong>{s.name}</strong>, look: "line" },
            {
              head: "Right",
              cell: (s) => (
                <StateMark mark={s.right === "None" ? "notYet" : "done"}>{words[s.right]}</StateMark>
              ),
            },
            { head: "Because", cell: (s) => s.steps.join("; ") },
          ]}
        />
      </DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={onClose}>
          Done
        </Button>
      </DialogActions>
    </Dialog>
  );
}
