import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import { useEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent } from "react";
import { Pattern } from "../../parts/Pattern";
import { ruleWords, standsWords } from "../../parts/words";
import { endOf, indent, insertAfter, move, newLine, outdent, remove, type Line } from "./outline";

const placeholders: Record<Line["stands"], string[]> = {
  Once: [],
  EachTerm: ["term"],
  EachSchoolWeek: ["week", "letter"],
  EachSchoolDay: ["weekday", "day", "date"],
  EachEntry: ["number", "entry"],
  EachGroup: ["group"],
  EachStudent: ["student"],
};

/** The outline of a plan, worked from the keyboard: a line a folder, how often it stands, who may do what. */
export function OutlineEditor(props: {
  lines: Line[];
  onChange: (l: Line[]) => void;
  readOnly: boolean;
  onPasteList: (text: string, at: number) => void;
}) {
  const { lines, onChange } = props;
  const body = useRef<HTMLTableSectionElement>(null);
  const [focus, setFocus] = useState<{ row: number; part: "row" | "name" } | null>(null);
  useEffect(() => {
    if (!focus) return;
    const row = body.current?.querySelectorAll<HTMLElement>("tr[data-row]")[focus.row];
    (focus.part === "name" ? row?.querySelector<HTMLElement>("input[data-name]") : row)?.focus();
    setFocus(null);
  }, [focus, lines]);
  const change = (at: number, part: Partial<Line>) =>
    onChange(lines.map((l, i) => (i === at ? { ...l, ...part } : l)));
  const act = (next: Line[], row: number, part: "row" | "name" = "row") => {
    onChange(next);
    setFocus({ row: Math.max(0, Math.min(row, next.length - 1)), part });
  };
  const onKeys = (e: KeyboardEvent<HTMLElement>, at: number) => {
    if (props.readOnly) return;
    const naming = (e.target as HTMLElement).dataset.name !== undefined;
    const onRow = (e.target as HTMLElement).dataset.row !== undefined;
    if (!naming && !onRow) return;
    const part = naming ? "name" : "row";
    if (e.altKey && (e.key === "ArrowUp" || e.key === "ArrowDown")) {
      const [next, row] = move(lines, at, e.key === "ArrowDown");
      act(next, row, part);
    } else if ((e.altKey && e.key === "ArrowRight") || (naming && e.key === "Tab" && !e.shiftKey))
      act(indent(lines, at), at, part);
    else if ((e.altKey && e.key === "ArrowLeft") || (naming && e.key === "Tab"))
      act(outdent(lines, at), at, part);
    else if (e.key === "Enter") {
      if (naming) act(insertAfter(lines, at, [newLine(0)]), endOf(lines, at), "name");
      else setFocus({ row: at, part: "name" });
    } else if (naming && e.key === "Escape") setFocus({ row: at, part: "row" });
    else if (onRow && e.key === "ArrowDown") setFocus({ row: at + 1, part: "row" });
    else if (onRow && e.key === "ArrowUp") setFocus({ row: Math.max(0, at - 1), part: "row" });
    else if (onRow && (e.key === "Delete" || e.key === "Backspace")) act(remove(lines, at), at);
    else if (onRow && e.key.toLowerCase() === "r") pick(e.currentTarget, "stands");
    else if (onRow && e.key.toLowerCase() === "w") pick(e.currentTarget, "rule");
    else return;
    e.preventDefault();
  };
  return (
    <>
      <Table aria-label="Outline of the plan">
        <TableHead>
          <TableRow>
            <TableCell>Folder</TableCell>
            <TableCell sx={{ width: 150 }}>Stands</TableCell>
            <TableCell sx={{ width: 118 }}>Who</TableCell>
            {!props.readOnly && (
              <TableCell sx={{ width: 34 }}>
                <span className="only-heard">What can be done</span>
              </TableCell>
            )}
          </TableRow>
        </TableHead>
        <TableBody ref={body}>
          {lines.map((l, i) => (
            <TableRow
              key={l.key ?? `new-${i}`}
              data-row={i}
              tabIndex={0}
              onKeyDown={(e) => onKeys(e, i)}
              hover
              sx={{ verticalAlign: "top" }}
            >
              <TableCell sx={{ pl: 1 + l.depth * 2.5, pt: 0.75 }}>
                <Name
                  line={l}
                  readOnly={props.readOnly}
                  onChange={(namePattern) => change(i, { namePattern })}
                  onPaste={(text) => props.onPasteList(text, i)}
                  number={i + 1}
                />
                {l.stands === "EachEntry" && (
                  <TextField
                    multiline
                    fullWidth
                    variant="standard"
                    disabled={props.readOnly}
                    value={(l.entries ?? []).join("\n")}
                    onChange={(e) => change(i, { entries: e.target.value.split("\n") })}
                    helperText="One entry a line"
                    slotProps={{ htmlInput: { "aria-label": `Entries of line ${i + 1}` } }}
                  />
                )}
              </TableCell>
              <TableCell>
                <Choice
                  part="stands"
                  label={`How often line ${i + 1} stands`}
                  value={l.stands}
                  words={standsWords}
                  readOnly={props.readOnly}
                  onChange={(stands) => change(i, stood(l, stands))}
                />
              </TableCell>
              <TableCell>
                <Choice
                  part="rule"
                  label={`Who may do what in line ${i + 1}`}
                  value={l.rule}
                  words={ruleWords}
                  readOnly={props.readOnly}
                  onChange={(rule) => change(i, { rule })}
                />
              </TableCell>
              {!props.readOnly && (
                <TableCell padding="none">
                  <Button
                    color="inherit"
                    sx={{ minWidth: 28, px: 0.5 }}
                    onClick={() => act(remove(lines, i), i)}
                    aria-label={`Take out line ${i + 1}, ${l.namePattern || "unnamed"}`}
                  >
                    ×
                  </Button>
                </TableCell>
              )}
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {!props.readOnly && (
        <Button sx={{ mt: 0.5 }} onClick={() => act([...lines, newLine(0)], lines.length, "name")}>
          Add a folder
        </Button>
      )}
    </>
  );
}

// A line that begins to stand for each of something needs to say which; its name gets the placeholder if it has none.
function stood(l: Line, stands: Line["stands"]): Partial<Line> {
  const first = placeholders[stands][0];
  const name = l.namePattern ?? "";
  return {
    stands,
    ...(first && !name.includes("{")
      ? {
          namePattern:
            stands === "EachStudent" || stands === "EachGroup" || name === ""
              ? `{${first}}`
              : `${name} {${first}}`,
        }
      : {}),
    ...(l.rule === "OneEach" || l.rule === "OnePerGroup" ? { rule: "ClassViews" as const } : {}),
    ...(stands === "EachStudent" ? { rule: "OneEach" as const } : {}),
    ...(stands === "EachGroup" ? { rule: "OnePerGroup" as const } : {}),
    ...(stands === "EachEntry" && (l.entries ?? []).length === 0 ? { entries: ["First", "Second"] } : {}),
  };
}

const pick = (row: HTMLElement, part: string) =>
  row.querySelector<HTMLElement>(`[data-part=${part}] select`)?.focus();

function Choice<T extends string>(props: {
  part: string;
  label: string;
  value: T;
  words: Record<T, string>;
  readOnly: boolean;
  onChange: (v: T) => void;
}) {
  if (props.readOnly) return <Box sx={{ pt: 0.5 }}>{props.words[props.value]}</Box>;
  return (
    <TextField
      select
      fullWidth
      variant="standard"
      data-part={props.part}
      value={props.value}
      onChange={(e) => props.onChange(e.target.value as T)}
      slotProps={{
        select: { native: true, disableUnderline: true, sx: { fontSize: "0.86rem", pt: 0.5 } },
        htmlInput: { "aria-label": props.label },
      }}
    >
      {(Object.keys(props.words) as T[]).map((w) => (
        <option key={w} value={w}>
          {props.words[w]}
        </option>
      ))}
    </TextField>
  );
}

// Placeholders are chips until the name is written; then they are text in braces.
function Name(props: {
  line: Line;
  number: number;
  readOnly: boolean;
  onChange: (v: string) => void;
  onPaste: (text: string) => void;
}) {
  const [writing, setWriting] = useState(false);
  const name = props.line.namePattern ?? "";
  const offered = placeholders[props.line.stands].filter((p) => !name.includes(`{${p}}`));
  if (props.readOnly) return <Pattern text={name} />;
  const onPaste = (e: ClipboardEvent) => {
    const text = e.clipboardData.getData("text");
    if (!/\n./.test(text)) return;
    e.preventDefault();
    props.onPaste(text);
  };
  return (
    <Box sx={{ position: "relative", minHeight: 26 }}>
      {!writing && name !== "" && (
        <Box sx={{ position: "absolute", inset: 0, pointerEvents: "none", pt: 0.25 }} aria-hidden="true">
          <Pattern text={name} />
        </Box>
      )}
      <TextField
        fullWidth
        variant="standard"
        value={name}
        placeholder="name of the folder"
        onChange={(e) => props.onChange(e.target.value)}
        onFocus={() => setWriting(true)}
        onBlur={() => setWriting(false)}
        onPaste={onPaste}
        slotProps={{
          input: {
            disableUnderline: !writing,
            sx: { opacity: writing || name === "" ? 1 : 0, fontWeight: 600 },
          },
          htmlInput: { "data-name": "", "aria-label": `Name of line ${props.number}` },
        }}
      />
      {writing && offered.length > 0 && (
        <Box sx={{ fontSize: "0.75rem", color: "text.secondary" }}>
          can say {offered.map((p) => `{${p}}`).join(" ")}
        </Box>
      )}
    </Box>
  );
}
