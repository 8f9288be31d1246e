import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBoard } from "../../api/queries";
import { Desk, Empty } from "../../parts/Desk";
import { EnrollPlaces } from "../../parts/EnrollPlaces";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { DirectoryActs } from "./DirectoryActs";
import { PersonForm } from "./PersonForm";
import { roleNames } from "./roles";

type Row = Schemas["DirectoryRow"];

const pageSize = 100;
// So many people can be acted on at once.
const most = 500;

/** All people of the school: found by what one remembers of them, ticked to act on several. */
export function DirectoryDesk({ me }: { me: Schemas["Me"] }) {
  const [address, setAddress] = useSearchParams();
  const [ticked, setTicked] = useState<ReadonlyMap<number, Row>>(new Map());
  const [adding, setAdding] = useState<Row | "new" | null>(null);
  const board = useBoard();
  const get = (k: string) => address.get(k) ?? "";
  const skip = Number(get("skip")) || 0;
  const set = (k: string, v: string) =>
    setAddress(
      (a) => {
        if (v === "") a.delete(k);
        else a.set(k, v);
        if (k !== "skip") a.delete("skip");
        return a;
      },
      { replace: k === "text" },
    );
  const query = {
    ...(get("text") && { Text: get("text") }),
    ...(get("school") && { School: get("school") }),
    ...(get("grade") && { Grade: get("grade") }),
    ...(get("role") && { Role: get("role") as Schemas["SchoolRole"] }),
    ...(get("class") && { ClassId: Number(get("class")) }),
    ...(get("which") === "none" && { InNoClass: true }),
    ...(get("which") === "double" && { Duplicates: true }),
    ...(get("which") === "gone" && { Gone: true }),
    ...(skip > 0 && { Skip: skip }),
  };
  const page = useQuery({
    queryKey: ["people", query],
    placeholderData: keepPreviousData,
    queryFn: () => take(api.GET("/api/people", { params: { query } })),
  });
  const rows = page.data?.people ?? [];
  const coordinator = me.role === "Coordinator";
  const asked = JSON.stringify({ ...query, Skip: 0 });
  const all = useMutation({
    mutationFn: async () => {
      const found: Row[] = [];
      for (let at = 0; at < (page.data?.total ?? 0); at += pageSize)
        found.push(
          ...(await take(api.GET("/api/people", { params: { query: { ...query, Skip: at } } }))).people,
        );
      return { asked, found };
    },
    onSuccess: ({ found }) => setTicked((t) => new Map([...t, ...found.map((r) => [r.id, r] as const)])),
  });
  const total = page.data?.total ?? 0;
  const allTicked = all.data?.asked === asked && all.data.found.every((r) => ticked.has(r.id));
  const wholePage = rows.length > 0 && rows.every((r) => ticked.has(r.id));
  const tick = (r: Row) =>
    setTicked((t) => {
      const next = new Map(t);
      if (!next.delete(r.id)) next.set(r.id, r);
      return next;
    });
  return (
    <Desk
      title="Directory"
      wide
      lead="All people of the school, each once. Nobody types in a student who is already here."
      slip={
        <>
          <Typography variant="h2">
            {ticked.size === 0
              ? page.data
                ? count(page.data.total, "person", "people")
                : "…"
              : `${count(ticked.size, "person", "people")} ticked`}
          </Typography>
          {ticked.size > 0 ? (
            <DirectoryActs
              people={[...ticked.values()]}
              coordinator={coordinator}
              onDone={() => setTicked(new Map())}
            />
          ) : (
            <Typography>
              Tick people to add them to a class or a group, to print their sign-in slips, or to say who has
              left.
            </Typography>
          )}
          {ticked.size > 0 && (
            <Button color="inherit" onClick={() => setTicked(new Map())}>
              Untick all
            </Button>
          )}
          <Button variant={ticked.size > 0 ? "outlined" : "contained"} onClick={() => setAdding("new")}>
            Add somebody…
          </Button>
          {coordinator && (page.data?.duplicates ?? 0) > 0 && (
            <Typography>
              <Link component={RouterLink} to="/enroll/directory/duplicates">
                <StateMark mark="attention">
                  {count(page.data!.duplicates, "possible duplicate", "possible duplicates")}
                </StateMark>
              </Link>
            </Typography>
          )}
        </>
      }
    >
      <EnrollPlaces me={me} />
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", mb: 1, alignItems: "center" }}>
        <TextField
          autoFocus
          label="Name, number, e-mail"
          helperText="The first letters of each"
          value={get("text")}
          onChange={(e) => set("text", e.target.value)}
          sx={{ minWidth: 220 }}
        />
        <Choice label="Grade" value={get("grade")} onChange={(v) => set("grade", v)}>
          {(page.data?.grades ?? []).map((g) => (
            <MenuItem key={g} value={g}>
              grade {g}
            </MenuItem>
          ))}
        </Choice>
        <Choice label="Role" value={get("role")} onChange={(v) => set("role", v)}>
          {Object.entries(roleNames).map(([k, v]) => (
            <MenuItem key={k} value={k}>
              {v}
            </MenuItem>
          ))}
        </Choice>
        {(page.data?.schools.length ?? 0) > 1 && (
          <Choice label="School" value={get("school")} onChange={(v) => set("school", v)}>
            {page.data!.schools.map((s) => (
              <MenuItem key={s} value={s}>
                {s}
              </MenuItem>
            ))}
          </Choice>
        )}
        <Choice label="Class" value={get("class")} onChange={(v) => set("class", v)} wide>
          {(board.data?.rows ?? []).map((k) => (
            <MenuItem key={k.id} value={String(k.id)}>
              {k.name}
            </MenuItem>
          ))}
        </Choice>
        <Choice label="Which" value={get("which")} onChange={(v) => set("which", v)}>
          <MenuItem value="none">in no class</MenuItem>
          <MenuItem value="double">possible duplicate</MenuItem>
          <MenuItem value="gone">have left</MenuItem>
        </Choice>
      </Box>
      <Problem error={page.error ?? all.error} />
      {wholePage && total > rows.length && !allTicked && (
        <Box role="status" sx={{ display: "flex", gap: 1.5, alignItems: "center", minHeight: 34 }}>
          <Typography variant="body2">
            The {rows.length} on this page are ticked.
            {total > most && ` At most ${most} can be ticked at once: narrow the list to have them all.`}
          </Typography>
          {total <= most && (
            <Button variant="outlined" disabled={all.isPending} onClick={() => all.mutate()}>
              Tick all {total} that are found
            </Button>
          )}
        </Box>
      )}
      {page.data && rows.length === 0 ? (
        <Empty title="Nobody is found.">
          Try fewer letters, or another filter. Whoever is really not here can be added at the right.
        </Empty>
      ) : (
        <Table aria-label="People" sx={{ tableLayout: "auto" }}>
          <TableHead>
            <TableRow>
              <TableCell padding="checkbox">
                <Checkbox
                  size="small"
                  checked={wholePage}
                  indeterminate={!wholePage && rows.some((r) => ticked.has(r.id))}
                  onChange={(e) =>
                    setTicked((t) => {
                      const next = new Map(t);
                      for (const r of rows)
                        if (e.target.checked) next.set(r.id, r);
                        else next.delete(r.id);
                      return next;
                    })
                  }
                  slotProps={{ input: { "aria-label": "Tick all on this page" } }}
                />
              </TableCell>
              <TableCell>Name</TableCell>
              <TableCell>Role</TableCell>
              <TableCell>Number</TableCell>
              <TableCell>Signs in as</TableCell>
              <TableCell>Classes</TableCell>
              {coordinator && <TableCell />}
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map((r) => (
              <TableRow key={r.id} hover>
                <TableCell padding="checkbox">
                  <Checkbox
                    size="small"
                    checked={ticked.has(r.id)}
                    onChange={() => tick(r)}
                    slotProps={{ input: { "aria-label": `Tick ${r.sortName}` } }}
                  />
                </TableCell>
                <TableCell>
                  <strong>{r.sortName}</strong>
                  {!r.active && " has left"}
                </TableCell>
                <TableCell>
                  {roleNames[r.role]}
                  {r.grade && `, grade ${r.grade}`}
                </TableCell>
                <TableCell>{r.studentNumber}</TableCell>
                <TableCell>{r.userName}</TableCell>
                <TableCell
                  title={r.classes.join("\n")}
                  sx={{
                    color: "text.secondary",
                    maxWidth: 300,
                    overflow: "hidden",
                    textOverflow: "ellipsis",
                    whiteSpace: "nowrap",
                  }}
                >
                  {r.classes.length === 0
                    ? "in no class"
                    : r.classes.length === 1
                      ? r.classes[0]
                      : `${r.classes.length}: ${r.classes.map((k) => k.split(" · ")[0]).join(", ")}`}
                </TableCell>
                {coordinator && (
                  <TableCell align="right">
                    <Button color="inherit" onClick={() => setAdding(r)} aria-label={`Change ${r.sortName}`}>
                      Change…
                    </Button>
                  </TableCell>
                )}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {page.data && page.data.total > pageSize && (
        <Box sx={{ display: "flex", gap: 1.5, mt: 1, alignItems: "center" }}>
          <Button
            variant="outlined"
            disabled={skip === 0}
            onClick={() => set("skip", skip > pageSize ? String(skip - pageSize) : "")}
          >
            Before
          </Button>
          <Typography variant="body2">
            {skip + 1} to {Math.min(skip + pageSize, page.data.total)} of {page.data.total.toLocaleString()}
          </Typography>
          <Button
            variant="outlined"
            disabled={skip + pageSize >= page.data.total}
            onClick={() => set("skip", String(skip + pageSize))}
          >
            After
          </Button>
        </Box>
      )}
      {adding && (
        <PersonForm person={adding === "new" ? undefined : adding} me={me} onClose={() => setAdding(null)} />
      )}
    </Desk>
  );
}

function Choice(props: {
  label: string;
  value: string;
  wide?: boolean;
  onChange: (v: string) => void;
  children: React.ReactNode;
}) {
  return (
    <TextField
      select
      label={props.label}
      value={props.value}
      onChange={(e) => props.onChange(e.target.value)}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
      sx={{ minWidth: 108, maxWidth: props.wide ? 220 : 160, alignSelf: "flex-start" }}
    >
      <MenuItem value="">any</MenuItem>
      {props.children}
    </TextField>
  );
}
