import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from "react";

import { later } from "./later";

const KeysDialog = later(() => import("./KeysDialog"), "KeysDialog");

/** Keys, and what they do. */
export type Listed = [keys: string, does: string];

const KeysContext = createContext<{ add: (list: Listed[]) => () => void }>({ add: () => () => {} });

const isField = (target: EventTarget | null): target is HTMLElement =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName)) &&
  (target as HTMLInputElement).type !== "checkbox";

// The field that is typed in, until one leaves it oneself: by a click, by Tab, Enter or Escape.
let field: HTMLElement | null = null;
const into = (e: Event) => (field = isField(e.target) ? e.target : null);
for (const kind of ["focusin", "input", "pointerdown"]) document.addEventListener(kind, into, true);
document.addEventListener(
  "keydown",
  (e) => {
    if (["Tab", "Enter", "Escape"].includes(e.key)) field = null;
  },
  true,
);

/** A field that was shut or taken away under one's hands has the focus no more, and nobody has left it. */
const isCutOff = () =>
  field !== null &&
  !(field.isConnected && isField(field) && !(field as HTMLInputElement).disabled) &&
  [field, document.body, null].includes(document.activeElement as HTMLElement | null);

/** Is the person typing into something? Then single letters are text, not keys of the screen. */
export const isTyping = (target: EventTarget | null) => isField(target) || isCutOff();

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
