import { TickAll, TickRow } from "../ticks";
import { PlainTable, type Boxes, type Ticking } from "./PlainTable";

const boxes: Boxes = { All: TickAll, Row: TickRow };

/** A table whose rows can be ticked; all else is the plain one's. */
export function TickTable<R, K extends string | number>(
  props: Omit<Parameters<typeof PlainTable<R, K>>[0], "ticks"> & { ticks?: Omit<Ticking<R, K>, "boxes"> },
) {
  return <PlainTable {...props} ticks={props.ticks && { ...props.ticks, boxes }} />;
}
