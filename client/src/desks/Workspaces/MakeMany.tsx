import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState, type ClipboardEvent } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { usePlans, useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { PlanChoice, YearChoice } from "../../parts/Choices";
import { Desk } from "../../parts/Desk";
import { useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { useDraft } from "../../parts/useDraft";
import { count } from "../../parts/words";
import { ArrangementSight } from "./ArrangementSight";
import { SetUpPlaces } from "./SetUpPlaces";

type Row = Schemas["TableRow"];
const columns: [keyof Row, string, number][] = [
  ["course", "Course", 150],
  ["section", "Section", 60],
  ["period", "Period", 54],
  ["level", "Level", 84],
  ["room", "Room", 92],
  ["term", "Term", 70],
  ["lead", "Lead teacher", 130],
  ["plan", "Folder plan", 110],
];
const blank: Row = {
  course: "",
  section: "",
  period: "",
  level: "",
  room: "",
  term: "",
  lead: "",
  plan: "",
};
const keyList: [string, string][] = [
  ["Tab, Enter", "the next cell, the next row"],
  ["Ctrl V", "paste a table from a spreadsheet into any cell"],
];

/** Many classes at once: a table that is typed or pasted, and beside each row what will come of it. */
export function MakeMany() {
  const school = useSchool();
  const plans = usePlans();
  const { draft, change, drop } = useDraft<{ rows: Row[]; plan: number | ""; year: number | null }>(
    "class-table",
    { rows: [{ ...blank }], plan: 0, year: null },
  );
  const [made, setMade] = useState<number[] | null>(null);
  useKeyList(keyList);
  const year = draft.year ?? school.data?.current;
  const plan = draft.plan === 0 ? (plans.data?.[0]?.id ?? "") : draft.plan;
  const filled = draft.rows.filter((r) => Object.values(r).some((v) => v?.trim()));
  const body = { year: year ?? 0, plan: plan || null, rows: filled };
  const preview = useQuery({
    queryKey: ["class-table", body],
    enabled: year !== undefined && filled.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => take(api.POST("/api/class-table/preview", { body })),
  });
  const make = useAct(
    (_: void, headers) => take(api.POST("/api/class-table", { body, headers })),
    (out) => {
      setMade(out.classes);
      drop();
    },
  );
  const read = useAct((text: string) => take(api.POST("/api/class-table/reading", { body: { text } })));
  const paste = (text: string, at: number) =>
    read.mutate(text, {
      onSuccess: (rows) => {
        setMade(null);
        const before = draft.rows.slice(0, at).filter((r) => Object.values(r).some((v) => v?.trim()));
        change({ ...draft, rows: [...before, ...rows.map((r) => ({ ...blank, ...r })), { ...blank }] });
      },
    });
  const put = (at: number, key: keyof Row, value: string) => {
    setMade(null);
    const rows = draft.rows.map((r, i) => (i === at ? { ...r, [key]: value } : r));
    // Ten more rows as one goes on would be a wall; one is always free below.
    if (at === rows.length - 1 && value.trim() !== "") rows.push({ ...blank });
    change({ ...draft, rows });
  };
  const index = new Map(filled.map((r, i) => [r, i]));
  const p = preview.data;
  return (
    <Desk
      title="Make many classes"
      wide
      lead="Type or paste a table, one class a row. Nothing is made before you say so."
      slip={
        <>
          <Typography variant="h2">
            {filled.length === 0 ? "No class yet" : count(filled.length, "class", "classes")}
          </Typography>
          {filled.length === 0 ? (
            <Typography>
              Copy the rows in your spreadsheet and paste them into the first cell. A header names the
              columns; without one they stand in the order shown.
            </Typography>
          ) : (
            <Typography>
              {p && p.refused > 0
                ? `${p.refused} can't be made as they stand: each says why.`
                : "Each gets its name, its folders and its lead teacher, and stays in preparation: no student sees it. Making them can't be undone."}
            </Typography>
          )}
          <YearChoice value={year} onChange={(y) => change({ ...draft, year: y })} />
          <PlanChoice
            label="Folder plan, where a row names none"
            value={plan}
            onChange={(p) => change({ ...draft, plan: p })}
          />
          <Button
            variant="contained"
            disabled={make.isPending || filled.length === 0 || !p || p.refused > 0}
            onClick={() => make.mutate()}
          >
            {filled.length === 0 ? "Make the classes" : `Make ${count(filled.length, "class", "classes")}`}
          </Button>
          <Problem error={make.error ?? read.error ?? preview.error} />
          {made && (
            <Typography role="status" component="div">
              <StateMark mark="done">{count(made.length, "class", "classes")} made, in preparation</StateMark>
              <Button component={RouterLink} to="/enroll" sx={{ ml: -1.75 }}>
                See them on the board
              </Button>
            </Typography>
          )}
          {draft.rows.length > 1 && (
            <Button color="inherit" sx={{ alignSelf: "start", ml: -1.75 }} onClick={drop}>
              Empty the table
            </Button>
          )}
        </>
      }
    >
      <SetUpPlaces />
      <Box sx={{ overflowX: "auto" }}>
        <Table aria-label="Classes to be made" sx={{ minWidth: 860 }}>
          <TableHead>
            <TableRow>
              {columns.map(([key, name, width]) => (
                <TableCell key={key} sx={{ width }}>
                  {name}
                </TableCell>
              ))}
              <TableCell sx={{ minWidth: 200 }}>Will be called</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {draft.rows.map((r, i) => {
              const d = index.has(r) ? p?.rows[index.get(r)!] : undefined;
              return (
                <TableRow key={i} sx={{ verticalAlign: "top" }}>
                  {columns.map(([key, name]) => (
                    <TableCell key={key} padding="none" sx={{ px: 0.5 }}>
                      <TextField
                        fullWidth
                        variant="standard"
                        value={r[key] ?? ""}
                        error={d?.refusal?.field === key}
                        onChange={(e) => put(i, key, e.target.value)}
                        onPaste={(e: ClipboardEvent) => {
                          const text = e.clipboardData.getData("text");
                          if (!/[\t\n]./.test(text)) return;
                          e.preventDefault();
                          paste(text, i);
                        }}
                        onKeyDown={(e) => {
                          if (e.key !== "Enter") return;
                          e.preventDefault();
                          const row = (e.target as HTMLElement).closest("tr")?.nextElementSibling;
                          row?.querySelector("input")?.focus();
                        }}
                        slotProps={{
                          htmlInput: { "aria-label": `${name} of row ${i + 1}` },
                          input: { sx: { fontSize: "0.88rem", minHeight: 34 } },
                        }}
                      />
                    </TableCell>
                  ))}
                  <TableCell>
                    {d && (
                      <>
                        {d.refusal ? (
                          <Typography
                            variant="body2"
                            component="div"
                            sx={{ "& span": { whiteSpace: "normal" } }}
                          >
                            <StateMark mark="blocked">{d.refusal.what}</StateMark> {d.refusal.mend}
                          </Typography>
                        ) : (
                          <strong>{d.name}</strong>
                        )}
                        {!d.refusal && (
                          <Typography variant="caption" component="div" sx={{ color: "text.secondary" }}>
                            {d.note ?? `led by ${d.leadName}`}
                          </Typography>
                        )}
                      </>
                    )}
                  </TableCell>
                </TableRow>
              );
            })}
          </TableBody>
        </Table>
      </Box>
      {plan !== "" && <ArrangementSight plan={plan} year={year} />}
    </Desk>
  );
}
