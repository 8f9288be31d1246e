import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState, type KeyboardEvent } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { SectionMark } from "../../../parts/sections";
import { figure, inOrder, next, type Order } from "./scores";
import { ScoreLie, sayLie } from "./ScoreLie";

type Table = Schemas["ScoreTable"];
type Row = Schemas["ScoreTableRow"];

// So many are drawn without looking which of them are in sight.
const few = 60;

/** Students against assignments: names at the left and titles at the top stay in sight, arrows go from mark to mark. */
export function ScoreGrid({ table }: { table: Table }) {
  const [order, setOrder] = useState<Order>({ by: "name", down: false });
  const [at, setAt] = useState<[row: number, column: number]>([0, 0]);
  const rows = inOrder(table.students, order);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 36,
    overscan: 12,
    enabled: rows.length > few,
  });
  const items = rows.length > few ? virtual.getVirtualItems() : rows.map((_, index) => ({ index }));
  const first = items[0]?.index ?? 0;
  const last = items[items.length - 1]?.index ?? -1;
  const focus = (row: number, column: number) => {
    const r = Math.max(0, Math.min(rows.length - 1, row));
    const c = Math.max(0, Math.min(table.columns.length - 1, column));
    setAt([r, c]);
    if (rows.length > few) virtual.scrollToIndex(r);
    requestAnimationFrame(() =>
      scroller.current?.querySelector<HTMLElement>(`[data-cell="${r}-${c}"]`)?.focus(),
    );
  };
  const onKeys = (e: KeyboardEvent<HTMLElement>) => {
    const [r, c] = at;
    const ends = { Home: [r, 0], End: [r, table.columns.length - 1] }[e.key];
    const step = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageUp: [-10, 0],
      PageDown: [10, 0],
    }[e.key];
    const to = ends ?? (step && [r + step[0]!, c + step[1]!]);
    if (!to || e.ctrlKey || e.altKey || e.metaKey) return;
    e.preventDefault();
    focus(to[0]!, to[1]!);
  };
  const sort = (by: Order["by"], says: string) => (
    <button type="button" className="score-sort" onClick={() => setOrder(next(order, by))}>
      {says}
      {order.by === by && <span aria-hidden="true">{order.down ? " ↓" : " ↑"}</span>}
    </button>
  );
  const sorted = (by: Order["by"]) =>
    order.by === by ? (order.down ? "descending" : "ascending") : undefined;
  return (
    <div
      className="score-scroll scrolls"
      ref={scroller}
      role="region"
      aria-label="Scores, scrolls by itself"
      tabIndex={-1}
    >
      <table
        role="grid"
        aria-label="Scores"
        onKeyDown={onKeys}
        className="score-grid"
        aria-rowcount={rows.length + 1}
        aria-colcount={table.columns.length + 2}
      >
        <thead>
          <tr aria-rowindex={1}>
            <th scope="col" className="score-name" aria-sort={sorted("name")}>
              {sort("name", "Student")}
            </th>
            <th scope="col" className="score-share" aria-sort={sorted("share")}>
              {sort("share", "Of full marks")}
            </th>
            {table.columns.map((c, n) => (
              <th key={c.title} scope="col" aria-sort={sorted(n)}>
                {sort(n, c.title)}
                <Figures column={c} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {first > 0 && <tr style={{ height: first * 36 }} aria-hidden="true" />}
          {items.map(({ index }) => (
            <ScoreLine
              key={`${rows[index]!.section}-${rows[index]!.student}`}
              row={rows[index]!}
              at={index}
              chosen={at[0] === index ? at[1] : null}
              table={table}
              onFocus={(c) => setAt([index, c])}
            />
          ))}
          {last < rows.length - 1 && (
            <tr style={{ height: (rows.length - 1 - last) * 36 }} aria-hidden="true" />
          )}
        </tbody>
      </table>
    </div>
  );
}

function Figures({ column: c }: { column: Schemas["ScoreColumn"] }) {
  const waits = [c.drafts > 0 && `${c.drafts} draft`, c.toMark > 0 && `${c.toMark} to mark`].filter(Boolean);
  return (
    <div className="score-figures">
      {c.points == null ? (
        <span>out of different points: no figures</span>
      ) : (
        <>
          <ScoreLie scores={c.scores} points={c.points} />
          <span>
            {c.numbers.count} marked, of {c.points}
          </span>
          {c.numbers.count > 0 && (
            <>
              <span>
                mean {figure(c.numbers.mean)}, <abbr title="sample standard deviation">SD</abbr>{" "}
                {figure(c.numbers.deviation)}
              </span>
              <span>
                median {figure(c.numbers.median)}, {sayLie(c.scores)}
              </span>
            </>
          )}
        </>
      )}
      {waits.length > 0 && <strong>{waits.join(", ")}</strong>}
    </div>
  );
}

function ScoreLine(props: {
  row: Row;
  at: number;
  chosen: number | null;
  table: Table;
  onFocus: (column: number) => void;
}) {
  const { row, at, table } = props;
  const section = table.sections[row.section]!;
  return (
    <tr aria-rowindex={at + 2}>
      <th scope="row" className="score-name">
        {section.letter != null && <SectionMark letter={section.letter} colour={section.colour ?? 0} />}
        <Link title={row.sortName} to={`/classes/${section.class}/marking?student=${row.student}`}>
          {row.sortName}
        </Link>
      </th>
      <td className="score-share">{row.share == null ? "" : `${Math.round(row.share)} %`}</td>
      {table.columns.map((c, n) => {
        const of = c.of.find((x) => x.section === row.section)?.assignment;
        const cell = row.cells.find((x) => x.column === n);
        return (
          <td key={c.title}>
            <Link
              to={
                of == null
                  ? "#"
                  : `/classes/${section.class}/marking?assignment=${of}&piece=${of}-${row.student}`
              }
              data-cell={`${at}-${n}`}
              tabIndex={props.chosen === n || (props.chosen === null && at === 0 && n === 0) ? 0 : -1}
              onFocus={() => props.onFocus(n)}
              aria-disabled={of == null || undefined}
              onClick={(e) => of == null && e.preventDefault()}
              aria-label={`${row.sortName}, ${c.title}: ${sayCell(cell, of == null, c)}`}
              data-look={cell?.draft != null ? "draft" : cell?.waits ? "waits" : undefined}
            >
              {cell?.draft != null
                ? `${figure(cell.draft)} draft`
                : cell?.waits
                  ? `${cell.counts != null ? `${figure(cell.counts)}, ` : ""}to mark`
                  : cell?.counts != null
                    ? (c.levels.find((l) => l.points === cell.counts)?.name ?? figure(cell.counts))
                    : of == null
                      ? ""
                      : "·"}
            </Link>
          </td>
        );
      })}
    </tr>
  );
}

function sayCell(cell: Schemas["ScoreCell"] | undefined, none: boolean, c: Schemas["ScoreColumn"]): string {
  if (none) return "not set in this section";
  if (!cell) return "nothing yet";
  return [
    cell.counts != null &&
      `mark ${[c.levels.find((l) => l.points === cell.counts)?.name, figure(cell.counts)].filter(Boolean).join(", ")}`,
    cell.draft != null && `draft mark ${figure(cell.draft)}`,
    cell.waits && "to mark",
  ]
    .filter(Boolean)
    .join(", ");
}
