import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useMemo, useRef, useState, type KeyboardEvent } from "react";
import { Link as RouterLink, useNavigate, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useBoard, useSchool } from "../../api/queries";
import { CourseMark } from "../../parts/CourseMark";
import { Desk, Empty } from "../../parts/Desk";
import { useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { Gauge, StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { BoardSlip } from "./BoardSlip";
import { linesOf, markOf, type Filter, type Grouping, type Line, type Row, type Season } from "./boardRows";

const columns: { season: Season; name: string; desk: string }[] = [
  { season: "folders", name: "Folders", desk: "set-up" },
  { season: "roster", name: "Roster", desk: "enroll" },
  { season: "open", name: "Open", desk: "set-up" },
  { season: "work", name: "Work", desk: "work" },
  { season: "close", name: "Close", desk: "close" },
  { season: "nextYear", name: "Next year", desk: "roll-over" },
];
const titles: Partial<Record<Season, string>> = { roster: "Enroll", work: "Work", close: "Close", nextYear: "Roll over" };
const keyList: [string, string][] = [
  ["↑ ↓", "go from class to class"],
  ["Space", "tick the class"],
  ["Enter", "open the class"],
];

/** Home: one row a class, one column a season. Which classes want me now? */
export function YearBoard({ me, season }: { me: Schemas["Me"]; season?: Season }) {
  const school = useSchool();
  const [address, setAddress] = useSearchParams();
  const asked = address.get("year") ? Number(address.get("year")) : undefined;
  const board = useBoard(asked);
  const filter = (address.get("show") ?? "all") as Filter;
  const grouping = (address.get("group") ?? (me.role === "Coordinator" ? "lead" : "course")) as Grouping;
  const onlyWanting = address.get("wanting") !== "no";
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  useKeyList(keyList);
  const set = (name: string, value: string) =>
    setAddress((a) => {
      a.set(name, value);
      return a;
    });
  const data = board.data;
  const lines = useMemo(() => linesOf(data?.rows ?? [], filter, grouping, season, onlyWanting), [data, filter, grouping, season, onlyWanting]);
  const tick = (id: number) =>
    setTicked((t) => {
      const next = new Set(t);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const rows = data?.rows.filter((r) => ticked.has(r.id)) ?? [];
  const title = season ? titles[season]! : `Year board, ${data?.yearLabel ?? ""}`;
  return (
    <Desk title={title} wide lead={data && <Summary data={data} season={season} shown={lines.filter((l) => l.kind === "row").length} />} slip={<BoardSlip rows={rows} me={me} />}>
      <Problem error={board.error} />
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap", mb: 0.5 }}>
        <ToggleButtonGroup exclusive size="small" value={filter} onChange={(_, v: Filter | null) => v && set("show", v)} aria-label="Show">
          <ToggleButton value="all">All {data?.rows.length ?? 0}</ToggleButton>
          <ToggleButton value="blocked">Blocked {data?.blocked ?? 0}</ToggleButton>
          <ToggleButton value="attention">Wants attention {data?.attention ?? 0}</ToggleButton>
          <ToggleButton value="ready">Ready {data?.ready ?? 0}</ToggleButton>
        </ToggleButtonGroup>
        {season && (
          <Link component="button" variant="body2" onClick={() => set("wanting", onlyWanting ? "no" : "yes")}>
            {onlyWanting ? "Show all classes" : "Only what wants somebody here"}
          </Link>
        )}
        <Box sx={{ flex: 1 }} />
        <TextField select variant="standard" label="School year" value={data?.year ?? ""} onChange={(e) => set("year", e.target.value)} sx={{ minWidth: 92 }}>
          {(school.data?.years ?? []).map((y) => (
            <MenuItem key={y.id} value={y.id}>
              {y.label}
            </MenuItem>
          ))}
        </TextField>
        <TextField select variant="standard" label="Grouped by" value={grouping} onChange={(e) => set("group", e.target.value)} sx={{ minWidth: 110 }}>
          <MenuItem value="lead">lead teacher</MenuItem>
          <MenuItem value="course">course</MenuItem>
          <MenuItem value="department">department</MenuItem>
          <MenuItem value="none">not grouped</MenuItem>
        </TextField>
      </Box>
      {data && lines.length === 0 ? (
        <Empty title={data.rows.length === 0 ? "No class in this school year yet." : "No class here wants anybody."}>
          {data.rows.length === 0 ? (
            <Link component={RouterLink} to="/set-up">
              Make the first class
            </Link>
          ) : (
            "That is good news."
          )}
        </Empty>
      ) : (
        <BoardTable lines={lines} ticked={ticked} tick={tick} setTicked={setTicked} season={season} />
      )}
    </Desk>
  );
}

function Summary({ data, season, shown }: { data: Schemas["BoardView"]; season?: Season; shown: number }) {
  if (season) return <><strong>{count(shown, "class", "classes")}</strong> of {data.rows.length} want somebody here, school year {data.yearLabel}.</>;
  if (data.rows.length === 0) return null;
  return (
    <>
      <strong>{count(data.daysLeft, "school day", "school days")}</strong> left. <strong>{data.ready} of {data.rows.length}</strong> classes are ready to close,{" "}
      <strong>{data.blocked}</strong> still hold {count(data.heldPieces, "piece of work", "pieces of work")}, <strong>{data.attention}</strong> want attention.
    </>
  );
}

function BoardTable(props: { lines: Line[]; ticked: ReadonlySet<number>; tick: (id: number) => void; setTicked: (t: ReadonlySet<number>) => void; season?: Season }) {
  const { lines, ticked, tick } = props;
  const go = useNavigate();
  const body = useRef<HTMLTableSectionElement>(null);
  // 3,000 classes stay quick: only the rows near the window are drawn.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useWindowVirtualizer({ count: lines.length, estimateSize: () => 37, overscan: 30, scrollMargin: 220 });
  const items = virtual.getVirtualItems();
  const shown = lines.length > 150 ? items.map((v) => ({ line: lines[v.index]!, index: v.index })) : lines.map((line, index) => ({ line, index }));
  const above = lines.length > 150 && items[0] ? items[0].start - 220 : 0;
  const below = lines.length > 150 && items.length > 0 ? virtual.getTotalSize() - (items[items.length - 1]!.end - 220) : 0;
  const all = lines.flatMap((l) => (l.kind === "row" ? [l.row.id] : []));
  const some = all.some((id) => ticked.has(id));
  const every = all.length > 0 && all.every((id) => ticked.has(id));
  const onKeys = (e: KeyboardEvent<HTMLTableSectionElement>) => {
    const row = (e.target as HTMLElement).closest("tr[data-id]");
    if (!row || !body.current) return;
    const rows = [...body.current.querySelectorAll<HTMLElement>("tr[data-id]")];
    const at = rows.indexOf(row as HTMLElement);
    if (e.key === "ArrowDown") rows[at + 1]?.focus();
    else if (e.key === "ArrowUp") rows[at - 1]?.focus();
    else if (e.key === " " && e.target === row) tick(Number((row as HTMLElement).dataset.id));
    else if (e.key === "Enter" && e.target === row) void go(`/classes/${(row as HTMLElement).dataset.id}/set-up`);
    else return;
    e.preventDefault();
  };
  return (
    <Table stickyHeader aria-label="Classes against the seasons of the year" sx={{ "& thead th": { top: 87, zIndex: 3 } }}>
      <TableHead>
        <TableRow>
          <TableCell padding="none" sx={{ width: 34 }}>
            <Checkbox indeterminate={some && !every} checked={every} onChange={() => props.setTicked(every ? new Set() : new Set(all))} slotProps={{ input: { "aria-label": "Tick all classes shown" } }} />
          </TableCell>
          <TableCell>Class</TableCell>
          {columns.map((c) => (
            <TableCell key={c.season} sx={c.season === props.season ? { color: "primary.main" } : {}}>
              {c.name}
            </TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody ref={body} onKeyDown={onKeys}>
        {above > 0 && <tr style={{ height: above }} aria-hidden="true" />}
        {shown.map(({ line, index }) =>
          line.kind === "heading" ? (
            <TableRow key={`h-${line.text}`}>
              <TableCell colSpan={8} component="th" scope="colgroup" sx={{ pt: 1.25 }}>
                <Box component="strong" sx={{ fontFamily: "h2.fontFamily" }}>{line.text}</Box>{" "}
                <Box component="span" sx={{ color: "text.secondary" }}>· {count(line.classes, "class", "classes")}</Box>
              </TableCell>
            </TableRow>
          ) : (
            <ClassRow key={line.row.id} row={line.row} ticked={ticked.has(line.row.id)} tick={tick} first={index <= 1} />
          ),
        )}
        {below > 0 && <tr style={{ height: below }} aria-hidden="true" />}
      </TableBody>
    </Table>
  );
}

function ClassRow({ row, ticked, tick, first }: { row: Row; ticked: boolean; tick: (id: number) => void; first: boolean }) {
  const rest = row.name.startsWith(row.course) ? row.name.slice(row.course.length) : ` ${row.name}`;
  return (
    <TableRow hover selected={ticked} data-id={row.id} tabIndex={first ? 0 : -1}>
      <TableCell padding="none">
        <Checkbox checked={ticked} onChange={() => tick(row.id)} slotProps={{ input: { "aria-label": `Tick ${row.name}`, tabIndex: -1 } }} />
      </TableCell>
      <TableCell sx={{ whiteSpace: "nowrap", maxWidth: 330, overflow: "hidden", textOverflow: "ellipsis" }} title={row.name}>
        <CourseMark mark={row.mark} />{" "}
        <Link component={RouterLink} to={`/classes/${row.id}/set-up`} underline="hover" color="text.primary" sx={{ ml: 0.75 }}>
          <strong>{row.course}</strong>
          <Box component="span" sx={{ color: "text.secondary" }}>{rest}</Box>
        </Link>
      </TableCell>
      {columns.map((c) => {
        const cell = row.cells[c.season];
        const mark = markOf(cell.state);
        return (
          <TableCell key={c.season}>
            <Link component={RouterLink} to={`/classes/${row.id}/${c.desk}`} underline="hover" color="inherit" tabIndex={-1} sx={{ display: "inline-flex", alignItems: "center", gap: 0.75 }}>
              {cell.of != null ? (
                <>
                  <Gauge done={cell.done ?? 0} of={cell.of} mark={mark} />
                  <Box component="span" sx={{ whiteSpace: "nowrap", color: mark === "attention" ? "warning.main" : "inherit" }}>{cell.text}</Box>
                </>
              ) : c.season === "roster" && cell.state === "Done" ? (
                cell.text
              ) : (
                <StateMark mark={mark} strong={mark === "blocked"}>{cell.text}</StateMark>
              )}
            </Link>
          </TableCell>
        );
      })}
    </TableRow>
  );
}
