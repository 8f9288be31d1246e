import { useRef } from "react";

/** What is ticked in a list, and the ways to tick. */
export interface Ticks<K> {
  ticked: ReadonlySet<K>;
  /** All rows that are shown are ticked; false where there are none. */
  every: boolean;
  some: boolean;
  /** How many of those that are shown. */
  many: number;
  of: number;
  /**
   * Ticks a row, or takes its tick off.
   * @param through All rows from the one that was ticked last to this one get what this one gets.
   */
  tick: (key: K, through?: boolean) => void;
  /** Ticks all that are shown and no others, or nothing. */
  tickAll: () => void;
}

/**
 * Ticks in a list.
 * @param shown The rows that can be ticked, in the order in which they stand.
 * @param elsewhere What is ticked and not shown stays ticked when all that are shown are ticked or not.
 */
export function useTicks<K>(
  shown: readonly K[],
  ticked: ReadonlySet<K>,
  setTicked: (next: ReadonlySet<K>) => void,
  elsewhere = false,
): Ticks<K> {
  const last = useRef<K>(undefined);
  const many = shown.filter((k) => ticked.has(k)).length;
  const every = shown.length > 0 && many === shown.length;
  return {
    ticked,
    every,
    some: many > 0,
    many,
    of: shown.length,
    tick: (key, through = false) => {
      const on = !ticked.has(key);
      const [from, to] = [last.current === undefined ? -1 : shown.indexOf(last.current), shown.indexOf(key)];
      const keys =
        through && from >= 0 && to >= 0 ? shown.slice(Math.min(from, to), Math.max(from, to) + 1) : [key];
      const next = new Set(ticked);
      for (const k of keys)
        if (on) next.add(k);
        else next.delete(k);
      last.current = key;
      setTicked(next);
    },
    tickAll: () => {
      const next = new Set(elsewhere ? ticked : []);
      for (const k of shown)
        if (every) next.delete(k);
        else next.add(k);
      setTicked(next);
    },
  };
}
