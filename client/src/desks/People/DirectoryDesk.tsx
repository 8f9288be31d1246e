import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
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
import { TickTable } from "../../parts/table/TickTable";
import { count } from "../../parts/words";
import { DirectoryActs } from "./DirectoryActs";
import { PersonForm } from "./PersonForm";
import { roleNames } from "./roles";
import { PickOne } from "../../parts/PickOne";

type Row = Schemas["DirectoryRow"];

/** What can be put in order, over all that are found. */
const heads: Record<Schemas["DirectoryOrder"], string> = {
  Name: "Name",
  Role: "Role",
  Number: "Number",
  UserName: "Signs in as",
};

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
    ...(get("order") && { Order: get("order") as Schemas["DirectoryOrder"] }),
    ...(get("down") && { Down: true }),
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
        <PickOne
          label="Class"
          none="any"
          minWidth={220}
          options={board.data?.rows ?? []}
          value={Number(get("class")) || null}
          onChange={(k) => set("class", k === null ? "" : String(k))}
        />
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
        <TickTable
          label="People"
          rows={rows}
          id={(r) => r.id}
          sorting={{
            by: get("order")
              ? { head: heads[get("order") as keyof typeof heads], down: get("down") !== "" }
              : null,
            ask: (by) =>
              setAddress((a) => {
                for (const k of ["order", "down", "skip"]) a.delete(k);
                const order = Object.entries(heads).find(([, head]) => head === by?.head)?.[0];
                if (order) a.set("order", order);
                if (by?.down) a.set("down", "yes");
                return a;
              }),
          }}
          ticks={{
            ticked: new Set(ticked.keys()),
            set: (next) =>
              setTicked((t) => {
                const people = new Map([...t, ...rows.map((r) => [r.id, r] as const)]);
                return new Map([...next].map((id) => [id, people.get(id)!]));
              }),
            elsewhere: true,
            label: (r) => `Tick ${r.sortName}`,
            all: "Tick all on this page",
          }}
          columns={[
            {
              head: heads.Name,
              cell: (r) => (
                <>
                  <strong>{r.sortName}</strong>
                  {!r.active && " has left"}
                </>
              ),
            },
            {
              head: heads.Role,
              cell: (r) => (
                <>
                  {roleNames[r.role]}
                  {r.grade && `, grade ${r.grade}`}
                </>
              ),
            },
            { head: heads.Number, cell: (r) => r.studentNumber },
            { head: heads.UserName, cell: (r) => r.userName },
            {
              head: "Classes",
              cell: (r) =>
                r.classes.length === 0
                  ? "in no class"
                  : r.classes.length === 1
                    ? r.classes[0]
                    : `${r.classes.length}: ${r.classes.map((k) => k.split(" · ")[0]).join(", ")}`,
              title: (r) => r.classes.join("\n"),
              says: (r) => r.classes.join("; "),
              unsorted: true,
              look: "soft short",
            },
            coordinator && {
              head: "",
              cell: (r) => (
                <Button color="inherit" onClick={() => setAdding(r)} aria-label={`Change ${r.sortName}`}>
                  Change…
                </Button>
              ),
              align: "right",
            },
          ]}
        />
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
