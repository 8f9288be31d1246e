import Checkbox from "@mui/material/Checkbox";
import type { ChangeEvent } from "react";
import type { Ticks } from "./useTicks";

/** The tick above a list: all that are shown, or none; shut until there are some. How many are ticked is spoken. */
export function TickAll<K>({ ticks, label }: { ticks: Ticks<K>; label: string }) {
  return (
    <>
      <Checkbox
        checked={ticks.every}
        indeterminate={ticks.some && !ticks.every}
        disabled={ticks.of === 0}
        onChange={ticks.tickAll}
        slotProps={{ input: { "aria-label": label } }}
      />
      <span aria-live="polite" className="only-heard">
        {ticks.some && `${ticks.many} of ${ticks.of} ticked`}
      </span>
    </>
  );
}

/** The tick of a row; with Shift all rows from the one before. */
export function TickRow<K>(props: { ticks: Ticks<K>; of: K; label: string; tabIndex?: number }) {
  const { ticks, of } = props;
  return (
    <Checkbox
      checked={ticks.ticked.has(of)}
      onChange={(e: ChangeEvent<HTMLInputElement>) => ticks.tick(of, (e.nativeEvent as MouseEvent).shiftKey)}
      slotProps={{ input: { "aria-label": props.label, tabIndex: props.tabIndex } }}
    />
  );
}
