import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from "react";

import { later } from "./later";

const KeysDialog = later(() => import("./KeysDialog"), "KeysDialog");

/** Keys, and what they do. */
export type Listed = [keys: string, does: string];

const KeysContext = createContext<{ add: (list: Listed[]) => () => void }>({ add: () => () => {} });

const isField = (target: EventTarget | null): target is HTMLElement =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target.matches("input:enabled:not([type=checkbox]),textarea:enabled,select:enabled"));

// The field that is typed in, until one leaves it oneself: by a click, by Tab, Enter or Escape.
let field: HTMLElement | null = null;
for (const kind of ["focusin", "input", "pointerdown", "keydown"])
  document.addEventListener(
    kind,
    (e) => {
      if (kind !== "keydown") field = isField(e.target) ? e.target : null;
      else if (/^(Tab|Enter|Esc)/.test((e as KeyboardEvent).key)) field = null;
    },
    true,
  );

/** A field that was shut or taken away under one's hands, and nobody has left it. */
const isCutOff = () =>
  field &&
  !(field.isConnected && isField(field)) &&
  [field, document.body].includes(document.activeElement as HTMLElement);

/** Is the person typing into something? Then single letters are text, not keys of the screen. */
export const isTyping = (target: EventTarget | null) => isField(target) || !!isCutOff();

/** Holds the list of keys of the screen, shown on `?`. */
export function KeysProvider({ children }: { children: ReactNode }) {
  const [lists, setLists] = useState<Listed[][]>([]);
  const [open, setOpen] = useState(false);
  const context = useMemo(
    () => ({
      add: (list: Listed[]) => {
        setLists((all) => [...all, list]);
        return () => setLists((all) => all.filter((l) => l !== list));
      },
    }),
    [],
  );
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      if (e.key === "?" && !isTyping(e.target)) setOpen(true);
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  }, []);
  return (
    <KeysContext.Provider value={context}>
      {children}
      {open && <KeysDialog keys={lists.flat()} onClose={() => setOpen(false)} />}
    </KeysContext.Provider>
  );
}

/** Lists keys of a screen for the help; the list must stay the same object between renders. */
export function useKeyList(list: Listed[]) {
  const { add } = useContext(KeysContext);
  useEffect(() => add(list), [add, list]);
}
