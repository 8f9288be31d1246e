import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TableSortLabel from "@mui/material/TableSortLabel";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useRef, type KeyboardEvent } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import { CourseMark } from "../../parts/CourseMark";
import { Gauge, StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { TickAll, TickRow } from "../../parts/ticks";
import { useTicks, type Ticks } from "../../parts/useTicks";
import { markOf, type Line, type Row, type Season, type Sorting } from "./boardRows";

const columns: { season: Season; name: string; desk: string }[] = [
  { season: "folders", name: "Folders", desk: "set-up" },
  { season: "roster", name: "Roster", desk: "enroll" },
  { season: "open", name: "Open", desk: "set-up" },
  { season: "work", name: "Work", desk: "work" },
  { season: "close", name: "Close", desk: "close" },
  { season: "nextYear", name: "Next year", desk: "roll-over" },
];

/** The rows of the board, only those near the window drawn, worked with the arrow keys. */
export function BoardTable(props: {
  lines: Line[];
  ticked: ReadonlySet<number>;
  setTicked: (t: ReadonlySet<number>) => void;
  season?: Season;
  sorting: Sorting;
  onSort: (s: Sorting) => void;
}) {
  const { lines } = props;
  const go = useNavigate();
  const body = useRef<HTMLTableSectionElement>(null);
  // 3,000 classes stay quick: only the rows near the window are drawn.
  const virtual = useWindowVirtualizer({
    count: lines.length,
    estimateSize: () => 37,
    overscan: 30,
    scrollMargin: 220,
  });
  const items = virtual.getVirtualItems();
  const shown =
    lines.length > 150
      ? items.map((v) => ({ line: lines[v.index]!, index: v.index }))
      : lines.map((line, index) => ({ line, index }));
  const above = lines.length > 150 && items[0] ? items[0].start - 220 : 0;
  const below =
    lines.length > 150 && items.length > 0
      ? virtual.getTotalSize() - (items[items.length - 1]!.end - 220)
      : 0;
  const all = lines.flatMap((l) => (l.kind === "row" ? [l.row.id] : []));
  const ticks = useTicks(all, props.ticked, props.setTicked);
  const onKeys = (e: KeyboardEvent<HTMLTableSectionElement>) => {
    const row = (e.target as HTMLElement).closest("tr[data-id]");
    if (!row || !body.current) return;
    const rows = [...body.current.querySelectorAll<HTMLElement>("tr[data-id]")];
    const at = rows.indexOf(row as HTMLElement);
    // In a row: the row itself, then what stands in it, from the class to the last season.
    const stops = (r?: Element) => (r ? [r as HTMLElement, ...r.querySelectorAll<HTMLElement>("a")] : []);
    const here = stops(row);
    const column = Math.max(0, here.indexOf(e.target as HTMLElement));
    if (e.key === "ArrowDown") stops(rows[at + 1])[column]?.focus();
    else if (e.key === "ArrowUp") stops(rows[at - 1])[column]?.focus();
    else if (e.key === "ArrowRight") here[column + 1]?.focus();
    else if (e.key === "ArrowLeft") here[column - 1]?.focus();
    else if (e.key === " " && e.target === row)
      ticks.tick(Number((row as HTMLElement).dataset.id), e.shiftKey);
    else if (e.key === "Enter" && e.target === row)
      void go(`/classes/${(row as HTMLElement).dataset.id}/set-up`);
    else return;
    e.preventDefault();
  };
  return (
    <Table
      stickyHeader
      aria-label="Classes against the seasons of the year"
      sx={{
        "& thead th": { zIndex: 3 },
        "& td, & th": { fontSize: "0.83rem", px: 0.75 },
      }}
    >
      <TableHead>
        <TableRow>
          <TableCell padding="none" sx={{ width: 34 }}>
            <TickAll ticks={ticks} label="Tick all classes shown" />
          </TableCell>
          <Sortable by="name" name="Class" sorting={props.sorting} onSort={props.onSort} />
          {columns.map((c) => (
            <Sortable
              key={c.season}
              by={c.season}
              name={c.name}
              sorting={props.sorting}
              onSort={props.onSort}
            />
          ))}
        </TableRow>
      </TableHead>
      <TableBody ref={body} onKeyDown={onKeys}>
        {above > 0 && <tr style={{ height: above }} aria-hidden="true" />}
        {shown.map(({ line, index }) =>
          line.kind === "heading" ? (
            <TableRow key={`h-${line.text}`}>
              <TableCell colSpan={8} component="th" scope="colgroup" sx={{ pt: 1.25 }}>
                <Box component="strong" sx={{ fontFamily: "h2.fontFamily" }}>
                  {line.text}
                </Box>{" "}
                <Box component="span" sx={{ color: "text.secondary" }}>
                  · {count(line.classes, "class", "classes")}
                </Box>
              </TableCell>
            </TableRow>
          ) : (
            <ClassRow key={line.row.id} row={line.row} ticks={ticks} first={index <= 1} />
          ),
        )}
        {below > 0 && <tr style={{ height: below }} aria-hidden="true" />}
      </TableBody>
    </Table>
  );
}

function ClassRow({ row, ticks, first }: { row: Row; ticks: Ticks<number>; first: boolean }) {
  const rest = row.name.startsWith(row.course) ? row.name.slice(row.course.length) : ` ${row.name}`;
  return (
    <TableRow hover selected={ticks.ticked.has(row.id)} data-id={row.id} tabIndex={first ? 0 : -1}>
      <TableCell padding="none">
        <TickRow ticks={ticks} of={row.id} label={`Tick ${row.name}`} tabIndex={-1} />
      </TableCell>
      <TableCell
        sx={{
          whiteSpace: "nowrap",
          width: "100%",
          maxWidth: 0,
          minWidth: { xs: 170, md: 0 },
          overflow: "hidden",
          textOverflow: "ellipsis",
        }}
        title={row.name}
      >
        <CourseMark mark={row.mark} />{" "}
        <Link
          component={RouterLink}
          to={`/classes/${row.id}/set-up`}
          underline="hover"
          color="text.primary"
          sx={{ ml: 0.75 }}
        >
          <strong>{row.course}</strong>
          <Box component="span" sx={{ color: "text.secondary" }}>
            {rest}
          </Box>
        </Link>
      </TableCell>
      {columns.map((c) => {
        const cell = row.cells[c.season];
        const mark = markOf(cell.state);
        return (
          <TableCell key={c.season} sx={{ whiteSpace: "nowrap" }}>
            <Link
              component={RouterLink}
              to={`/classes/${row.id}/${c.desk}`}
              underline="hover"
              color="inherit"
              tabIndex={-1}
              sx={{ display: "inline-flex", alignItems: "center", gap: 0.75 }}
            >
              {cell.of != null ? (
                <>
                  <Gauge done={cell.done ?? 0} of={cell.of} mark={mark} />
                  <Box
                    component="span"
                    sx={{ whiteSpace: "nowrap", color: mark === "attention" ? "warning.main" : "inherit" }}
                  >
                    {cell.text}
                  </Box>
                </>
              ) : c.season === "roster" && cell.state === "Done" ? (
                cell.text
              ) : (
                <StateMark mark={mark} strong={mark === "blocked"}>
                  {cell.text}
                </StateMark>
              )}
            </Link>
          </TableCell>
        );
      })}
    </TableRow>
  );
}

// Clicked again, the column sorts by name as before.
function Sortable({
  by,
  name,
  sorting,
  onSort,
}: {
  by: Sorting;
  name: string;
  sorting: Sorting;
  onSort: (s: Sorting) => void;
}) {
  return (
    <TableCell sx={{ whiteSpace: "nowrap" }} sortDirection={sorting === by ? "asc" : false}>
      <TableSortLabel
        active={sorting === by}
        hideSortIcon
        onClick={() => onSort(sorting === by ? "name" : by)}
        title={by === "name" ? "By name" : "What wants somebody here first"}
      >
        {name}
      </TableSortLabel>
    </TableCell>
  );
}
