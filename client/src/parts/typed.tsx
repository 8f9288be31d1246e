import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useSyncExternalStore,
  type ReactNode,
} from "react";
import { useNavigate } from "react-router";
import { standing } from "../api/standing";
import { gatedHistory } from "./history";
import { later } from "./later";

const LeavingDialog = later(() => import("./LeavingDialog"), "LeavingDialog");

const TypedContext = createContext<{ hold: () => () => void }>({ hold: () => () => {} });

// How many screens hold something typed: one for the whole page, as a reload is.
const held = { current: 0 };

/** Is something typed on this page that is saved nowhere? */
export const isTyped = () => held.current > 0;

interface Leaving {
  done?: boolean;
}

/** Every way through the program goes by it: it asks where something typed would be lost. */
export const gate = gatedHistory(
  (from, to) => held.current > 0 && from.pathname !== to.pathname && !(to.state as Leaving | null)?.done,
);

/** Asks before a screen is left on which something is typed and not saved: by a link, Back, or a reload. */
export function TypedProvider({ children }: { children: ReactNode }) {
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
  const waits = useSyncExternalStore(gate.watch, gate.waits);
  return (
    <TypedContext.Provider value={context}>
      {children}
      {waits && <LeavingDialog onLeave={gate.go} onStay={gate.stay} />}
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
