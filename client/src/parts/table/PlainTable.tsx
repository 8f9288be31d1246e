import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import type { SystemStyleObject } from "@mui/system";
import type { Theme } from "@mui/material/styles";
import { Fragment, useMemo, useState, type ReactNode } from "react";
import { later } from "../later";
import { useTicks, type Ticks } from "../useTicks";
import type { fieldsOf } from "./asText";
import type { Column } from "./columns";
import { next, sorted, type Sorting } from "./sorting";
import { useHidden } from "./useHidden";

const TableMenu = later(() => import("./TableMenu"), "TableMenu");
const ManyRows = later(() => import("./ManyRows"), "ManyRows");

/** With fewer rows than this nothing needs to be put in order or taken along. */
const few = 5;
/** With more rows than this only those near the window are drawn. */
const many = 200;

type Key = string | number;

/** How a tick is drawn. */
export interface Boxes {
  All: <K>(props: { ticks: Ticks<K>; label: string }) => ReactNode;
  Row: <K>(props: { ticks: Ticks<K>; of: K; label: string }) => ReactNode;
}

/** Ticks of a table. */
export interface Ticking<R, K extends Key> {
  ticked: ReadonlySet<K>;
  set: (next: ReadonlySet<K>) => void;
  /** Which rows have a tick; all, if nothing is said. */
  may?: (row: R) => boolean;
  /** Which rows are ticked when all are; those that have a tick, if nothing is said. */
  wanted?: (row: R) => boolean;
  label: (row: R) => string;
  all: string;
  boxes: Boxes;
  /** What is ticked and not among these rows stays ticked. */
  elsewhere?: boolean;
}

/**
 * A table: sorted by any column, ticked, taken along as text, its columns hidden; only the rows near the window are drawn
 * where there are many; on a phone its rows stack.
 */
export function PlainTable<R, K extends Key>(props: {
  label: string;
  columns: readonly (Column<R> | false)[];
  rows: readonly R[];
  id: (row: R, at: number) => K;
  ticks?: Ticking<R, K>;
  /** A row that stands in the soft ink. */
  soft?: (row: R) => boolean;
  /** How a row stands, given the one before it. */
  rowLook?: (row: R, before?: R) => SystemStyleObject<Theme>;
  /** Rows that stand after all others, whatever the order; with them no column is hidden. */
  after?: ReactNode;
  /** What stands below a row, over its whole width. */
  below?: (row: R) => ReactNode;
  /** Stands in the list before its rows. */
  before?: ReactNode;
  /** Rows come in order from elsewhere: in which, and how another is asked for. */
  sorting?: { by: Sorting | null; ask: (by: Sorting | null) => void };
  /** No heads: a list whose cells say by themselves what they are. */
  bare?: boolean;
  /** What its hidden columns are kept under in this browser, where its label says whose it is. */
  name?: string;
  /** Stands above it. */
  heading?: ReactNode;
  /** Space around it, in steps of 8 pixels. */
  space?: { mt?: number; mb?: number };
  maxWidth?: number;
}) {
  const { label, rows, id, ticks: ticking } = props;
  const columns = props.columns.filter((c) => c !== false);
  const [own, setOwn] = useState<Sorting | null>(null);
  const by = props.sorting ? props.sorting.by : own;
  const setBy = props.sorting?.ask ?? setOwn;
  const [hidden, setHidden] = useHidden(props.name ?? label);
  const more = !props.bare && rows.length >= few;
  // Where there is no menu to show them again, none is hidden.
  const hides = more && props.after === undefined;
  const shown = columns.filter((c, i) => !hides || i === main(columns) || !hidden.has(c.head));
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what columns are worth follows the rows
  const inOrder = useMemo(() => sorted(rows, columns, own), [rows, own]);
  const tickable = inOrder.filter(ticking?.wanted ?? ticking?.may ?? (() => true));
  const ticks = useTicks(
    tickable.map(id),
    ticking?.ticked ?? none,
    ticking?.set ?? (() => undefined),
    ticking?.elsewhere,
  );
  const width = shown.length + (ticking ? 1 : 0);
  const draw = (row: R, at: number) => (
    <Row
      key={id(row, at)}
      row={row}
      at={at}
      columns={shown}
      table={props}
      ticks={ticks}
      width={width}
      look={props.rowLook?.(row, inOrder[at - 1])}
      counted={rows.length > many}
    />
  );
  const table = (
    <Table
      aria-label={label}
      role="table"
      stickyHeader
      className="stacks"
      aria-rowcount={inOrder.length > many ? inOrder.length + 1 : undefined}
      sx={{ mt: props.heading ? undefined : props.space?.mt, mb: props.space?.mb, maxWidth: props.maxWidth }}
    >
      {!props.bare && (
        <TableHead role="rowgroup">
          <TableRow role="row">
            {ticking && (
              <TableCell role="columnheader" padding="none" className="tick">
                <ticking.boxes.All ticks={ticks} label={ticking.all} />
              </TableCell>
            )}
            {shown.map((c, i) => (
              <Head
                key={c.head || `act${i}`}
                column={c}
                by={by}
                onSort={more && !c.unsorted ? () => setBy(next(by, c.head)) : undefined}
              >
                {more && i === shown.length - 1 && (
                  <MenuOf
                    label={label}
                    columns={columns}
                    shown={shown}
                    rows={inOrder}
                    ticked={inOrder.filter(
                      (r, at) => ticking?.ticked.has(id(r, at)) && (ticking.may?.(r) ?? true),
                    )}
                    hidden={hidden}
                    fixed={props.after !== undefined}
                    onHide={setHidden}
                  />
                )}
              </Head>
            ))}
          </TableRow>
        </TableHead>
      )}
      {inOrder.length > many ? (
        <ManyRows
          rows={inOrder}
          draw={draw as (row: unknown, at: number) => ReactNode}
          before={props.before}
          after={props.after}
        />
      ) : (
        <TableBody role="rowgroup">
          {props.before}
          {inOrder.map(draw)}
          {props.after}
        </TableBody>
      )}
    </Table>
  );
  return props.heading ? (
    <>
      <Typography variant="h2" sx={{ mt: props.space?.mt }}>
        {props.heading}
      </Typography>
      {table}
    </>
  ) : (
    table
  );
}

const none: ReadonlySet<never> = new Set<never>();

/** The column that says which row it is. */
const main = <R,>(columns: readonly Column<R>[]) =>
  Math.max(
    columns.findIndex((c) => c.main),
    columns.findIndex((c) => c.head !== "" && !columns.some((x) => x.main)),
  );

function Head<R>(props: {
  column: Column<R>;
  by: Sorting | null;
  onSort?: () => void;
  children?: ReactNode;
}) {
  const { column, by, onSort } = props;
  const mine = by?.head === column.head && column.head !== "" ? by : null;
  return (
    <TableCell
      role="columnheader"
      align={column.align}
      sx={{ width: column.width }}
      aria-sort={mine ? (mine.down ? "descending" : "ascending") : undefined}
      className={column.head === "" && !props.children ? "no-head" : undefined}
    >
      <Box component="span" className="head">
        {onSort && column.head !== "" ? (
          <ButtonBase className="sort" onClick={onSort}>
            {column.head}
            <svg
              width="8"
              height="8"
              viewBox="0 0 8 8"
              aria-hidden="true"
              data-way={mine ? (mine.down ? "down" : "up") : "no"}
            >
              <path d="M4 1 7.5 7H.5Z" fill="currentColor" />
            </svg>
          </ButtonBase>
        ) : (
          column.head
        )}
        {column.head === "" && !props.children && <span className="only-heard">What can be done</span>}
        {props.children}
      </Box>
      {column.beneath && <span className="beneath">{column.beneath}</span>}
    </TableCell>
  );
}

function Row<R, K extends Key>(props: {
  row: R;
  at: number;
  columns: readonly Column<R>[];
  table: Pick<Parameters<typeof PlainTable<R, K>>[0], "id" | "ticks" | "soft" | "below" | "bare">;
  ticks: Ticks<K>;
  width: number;
  /** Not all rows are drawn: each says which it is. */
  counted: boolean;
  look?: SystemStyleObject<Theme>;
}) {
  const { row, at, columns, table, ticks } = props;
  const key = table.id(row, at);
  const first = main(columns);
  const mayTick = table.ticks !== undefined && (table.ticks.may?.(row) ?? true);
  const ticked = mayTick && table.ticks!.ticked.has(key);
  const below = table.below?.(row);
  const stands = Array.isArray(below) ? below.length > 0 : Boolean(below);
  return (
    <Fragment>
      <TableRow
        role="row"
        hover
        selected={ticked}
        className={table.soft?.(row) ? "soft" : undefined}
        sx={props.look}
        data-index={at}
        aria-rowindex={props.counted ? at + 2 : undefined}
      >
        {table.ticks && (
          <TableCell role="cell" padding="none" className="tick">
            {mayTick && <table.ticks.boxes.Row ticks={ticks} of={key} label={table.ticks.label(row)} />}
          </TableCell>
        )}
        {columns.map((c, i) => {
          const isMain = i === first && !table.bare;
          return (
            <TableCell
              key={c.head || `act${i}`}
              role={isMain ? "rowheader" : "cell"}
              component={isMain ? "th" : undefined}
              scope={isMain ? "row" : undefined}
              align={c.align}
              className={c.look}
              title={c.title?.(row)}
              data-head={isMain ? undefined : c.head || undefined}
            >
              {c.cell(row, at)}
            </TableCell>
          );
        })}
      </TableRow>
      {stands && (
        <TableRow role="row">
          <TableCell role="cell" colSpan={props.width}>
            {below}
          </TableCell>
        </TableRow>
      )}
    </Fragment>
  );
}

function MenuOf<R>(props: {
  label: string;
  columns: readonly Column<R>[];
  shown: readonly Column<R>[];
  rows: readonly R[];
  ticked: readonly R[];
  hidden: ReadonlySet<string>;
  fixed: boolean;
  onHide: (hidden: ReadonlySet<string>) => void;
}) {
  const [at, setAt] = useState<HTMLElement | null>(null);
  const [said, setSaid] = useState("");
  const first = main(props.columns);
  const taken = props.ticked.length > 0 ? props.ticked : props.rows;
  return (
    <>
      <ButtonBase
        className="table-menu"
        aria-haspopup="menu"
        aria-expanded={at !== null}
        aria-label={`Table: ${props.label}`}
        onClick={(e) => setAt(e.currentTarget)}
        onBlur={() => setSaid("")}
      >
        {said || "Table…"}
      </ButtonBase>
      <span aria-live="polite" className="only-heard">
        {said}
      </span>
      {at && (
        <TableMenu
          label={props.label}
          at={at}
          names={props.columns.flatMap((c, i) =>
            c.head !== "" && i !== first && !props.fixed ? [c.head] : [],
          )}
          many={taken.length}
          ticked={props.ticked.length > 0}
          fields={(read: typeof fieldsOf) => read(props.shown, taken)}
          hidden={props.hidden}
          onHide={props.onHide}
          onSay={setSaid}
          onClose={() => setAt(null)}
        />
      )}
    </>
  );
}
