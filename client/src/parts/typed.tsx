import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, type ReactNode } from "react";
import { useBlocker, useNavigate } from "react-router";
import { standing } from "../api/standing";

const TypedContext = createContext<{ hold: () => () => void }>({ hold: () => () => {} });

interface Leaving {
  done?: boolean;
}

/** Asks before a screen is left on which something is typed and not saved: by a link, Back, or a reload. */
export function TypedProvider({ children }: { children: ReactNode }) {
  const held = useRef(0);
  const context = useMemo(
    () => ({
      hold: () => {
        held.current += 1;
        return () => {
          held.current -= 1;
        };
      },
    }),
    [],
  );
  useEffect(() => {
    const on = (e: BeforeUnloadEvent) => {
      if (held.current > 0 && !standing.leaving) e.preventDefault();
    };
    window.addEventListener("beforeunload", on);
    return () => window.removeEventListener("beforeunload", on);
  }, []);
  const blocker = useBlocker(
    useCallback(
      ({
        currentLocation,
        nextLocation,
      }: Parameters<Exclude<Parameters<typeof useBlocker>[0], boolean>>[0]) =>
        held.current > 0 &&
        currentLocation.pathname !== nextLocation.pathname &&
        !(nextLocation.state as Leaving | null)?.done,
      [],
    ),
  );
  return (
    <TypedContext.Provider value={context}>
      {children}
      <Dialog open={blocker.state === "blocked"} onClose={() => blocker.reset?.()} aria-labelledby="leaving">
        <DialogTitle id="leaving">What you typed here is not saved</DialogTitle>
        <DialogContent>Leave this screen, and it is gone.</DialogContent>
        <DialogActions>
          <Button variant="outlined" onClick={() => blocker.proceed?.()}>
            Leave and drop it
          </Button>
          <Button variant="contained" autoFocus onClick={() => blocker.reset?.()}>
            Stay here
          </Button>
        </DialogActions>
      </Dialog>
    </TypedContext.Provider>
  );
}

/** Says that something is typed and not saved. What is kept as a draft (`useDraft`) needs no such word. */
export function useTyped(typed: boolean) {
  const { hold } = useContext(TypedContext);
  useEffect(() => (typed ? hold() : undefined), [typed, hold]);
}

/** Goes to a place once what was typed is saved: nothing is asked. */
export function useGoOn(): (to: string) => void {
  const go = useNavigate();
  return useCallback((to) => void go(to, { state: { done: true } satisfies Leaving }), [go]);
}
