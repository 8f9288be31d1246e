import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";

/** Asks before something that was typed is lost. */
export function LeavingDialog({ onLeave, onStay }: { onLeave: () => void; onStay: () => void }) {
  return (
    <Dialog open onClose={onStay} aria-labelledby="leaving">
      <DialogTitle id="leaving">What you typed here is not saved</DialogTitle>
      <DialogContent>Leave this screen, and it is gone.</DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={onLeave}>
          Leave and drop it
        </Button>
        <Button variant="contained" autoFocus onClick={onStay}>
          Stay here
        </Button>
      </DialogActions>
    </Dialog>
  );
}
