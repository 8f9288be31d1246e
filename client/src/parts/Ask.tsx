import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useCallback, useId, useState, type ReactNode } from "react";
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
  const [scrolls, setScrolls] = useState(false);
  // What scrolls can be scrolled with the keys too.
  const content = useCallback((el: HTMLDivElement | null) => {
    if (!el) return;
    const watch = new ResizeObserver(() => setScrolls(el.scrollHeight > el.clientHeight + 1));
    watch.observe(el);
    return () => watch.disconnect();
  }, []);
  return (
    <Dialog
      open={props.open}
      onClose={props.onClose}
      aria-labelledby={title}
      maxWidth={props.wide ? "md" : "sm"}
      fullWidth
    >
      {/* A long list scrolls between the title and the buttons: what it comes to stays in sight. */}
      <Box
        component="form"
        sx={{ display: "flex", flexDirection: "column", minHeight: 0 }}
        onSubmit={(e) => {
          e.preventDefault();
          props.onAct();
        }}
      >
        <DialogTitle id={title}>{props.title}</DialogTitle>
        <DialogContent ref={content} tabIndex={scrolls ? 0 : undefined}>
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
      </Box>
    </Dialog>
  );
}
