import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useId, type ReactNode } from "react";
import { Problem } from "./Problem";

/** Says what will be done before it is done. The button says what it does. */
export function Ask(props: {
  open: boolean;
  title: string;
  act: string;
  busy?: boolean;
  disabled?: boolean;
  error?: unknown;
  onAct: () => void;
  onClose: () => void;
  wide?: boolean;
  children: ReactNode;
}) {
  const title = useId();
  return (
    <Dialog
      open={props.open}
      onClose={props.onClose}
      aria-labelledby={title}
      maxWidth={props.wide ? "md" : "sm"}
      fullWidth
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          props.onAct();
        }}
      >
        <DialogTitle id={title}>{props.title}</DialogTitle>
        <DialogContent>
          {props.children}
          <Problem error={props.error} />
        </DialogContent>
        <DialogActions>
          <Button variant="outlined" onClick={props.onClose}>
            Not now
          </Button>
          <Button variant="contained" type="submit" disabled={props.busy || props.disabled}>
            {props.act}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
