import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import { useCallback, useId, useRef, useState, type ReactNode } from "react";
import { Problem } from "./Problem";
import { useTyped } from "./typed";

const ticks = new Set(["checkbox", "radio", "file"]);

/**
 * Says what will be done before it is done. The button says what it does. What was typed is not lost by a click beside or by
 * Escape: it is asked first, unless it is `kept`.
 */
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
  /** What is typed here is kept as a draft and is there again when it is opened anew: closing needs no question. */
  kept?: boolean;
  /** What "Not now" does where something is kept: it drops it. */
  onDrop?: () => void;
  /** The act has its button among the children. */
  actElsewhere?: boolean;
  /** There is nothing to do here but to look: one button shuts it. */
  looks?: boolean;
  children: ReactNode;
}) {
  const title = useId();
  const [scrolls, setScrolls] = useState(false);
  const [typed, setTyped] = useState(false);
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const from = useRef<Element | null>(null);
  if (busy !== (props.busy ?? false)) {
    setBusy(props.busy ?? false);
    // Its act is done: what was typed for it is saved.
    if (busy && !props.error) setTyped(false);
  }
  if (!props.open && (typed || asking)) {
    setTyped(false);
    setAsking(false);
  }
  useTyped(props.open && typed && !props.kept);
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
      onClose={() => {
        if (!typed || props.kept) return props.onClose();
        from.current = document.activeElement;
        setAsking(true);
      }}
      aria-labelledby={title}
      maxWidth={props.wide ? "md" : "sm"}
      fullWidth
    >
      {/* A long list scrolls between the title and the buttons: what it comes to stays in sight. */}
      <Box
        component="form"
        sx={{ display: "flex", flexDirection: "column", minHeight: 0 }}
        onInput={(e) => {
          // A tick is quickly set again; words are not.
          if (!ticks.has((e.target as HTMLInputElement).type)) setTyped(true);
        }}
        onSubmit={(e) => {
          e.preventDefault();
          // Enter in a field of a form in this one is that one's.
          e.stopPropagation();
          if (!props.actElsewhere) props.onAct();
        }}
      >
        <DialogTitle id={title}>{props.title}</DialogTitle>
        <DialogContent ref={content} tabIndex={scrolls ? 0 : undefined}>
          {props.children}
          <Problem error={props.error} />
        </DialogContent>
        {asking ? (
          <DialogActions role="alert">
            <Typography sx={{ mr: "auto", pl: 2 }}>What you typed is not saved.</Typography>
            <Button variant="outlined" onClick={props.onClose}>
              Drop it
            </Button>
            <Button
              variant="contained"
              autoFocus
              onClick={() => {
                setAsking(false);
                // Where one was typing is where one goes on.
                if (from.current instanceof HTMLElement) from.current.focus();
              }}
            >
              Go on typing
            </Button>
          </DialogActions>
        ) : (
          <DialogActions>
            {!props.looks && (
              <Button variant="outlined" onClick={props.onDrop ?? props.onClose}>
                Not now
              </Button>
            )}
            {!props.actElsewhere && (
              <Button variant="contained" type="submit" disabled={props.busy || props.disabled}>
                {props.act}
              </Button>
            )}
          </DialogActions>
        )}
      </Box>
    </Dialog>
  );
}
