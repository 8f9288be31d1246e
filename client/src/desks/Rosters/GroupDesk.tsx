import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState, type KeyboardEvent } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useHead } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { useBegun } from "../../api/useBegun";
import { Ask } from "../../parts/Ask";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { useKeyList } from "../../parts/keys";
import { MakeGroups } from "./MakeGroups";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

const keyList: [string, string][] = [
  ["↑ ↓ ← →", "go from student to student and from group to group"],
  ["Space", "put the student in the group, or take them out"],
];

/** The groups of a class: students against groups, worked with the arrow keys. */
export function GroupDesk() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const path = { params: { path: { classId: id } } };
  const groups = useQuery({
    queryKey: ["groups", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/groups", path)),
  });
  const [name, setName] = useState("");
  const [many, setMany] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  useKeyList(keyList);
  const make = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/groups", {
          ...path,
          body: { name, members: [], version: 0 },
          headers,
        }),
      ),
    (made) => {
      setSaid(`“${name.trim()}” is made${unfolded(made.folders)}.`);
      setName("");
    },
  );
  const ofGrades = useAct(
    (_: void, headers) => take(api.POST("/api/classes/{classId}/groups-of-grades", { ...path, headers })),
    (made) => setSaid(`${count(made.groups, "group", "groups")} made${unfolded(made.folders)}.`),
  );
  const g = groups.data;
  const shut = head.data?.state === "Archived";
  const without = g?.groups.filter((x) => x.folders.length === 0).length ?? 0;
  return (
    <Desk
      title="Groups"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        g && (
          <>
            <Typography variant="h2">{count(g.groups.length, "group", "groups")}</Typography>
            <Typography>
              {g.inNone === 0
                ? "Every student is in a group."
                : `${count(g.inNone, "student is", "students are")} in no group.`}
            </Typography>
            <Typography variant="body2" sx={{ color: "text.secondary" }}>
              {g.groups.length > 0 && without === 0
                ? "Each group has a folder that only its members and staff open."
                : "A folder for each group unfolds by itself where the folder plan has one. By hand: make a folder at set up, and let one per group decide who sees it."}
            </Typography>
            {!shut && (
              <>
                <TextField
                  label="Name of a new group"
                  value={name}
                  onChange={(e) => setName(e.target.value)}
                  onKeyDown={(e) => e.key === "Enter" && name.trim() !== "" && make.mutate()}
                />
                <Button
                  variant="contained"
                  disabled={name.trim() === "" || make.isPending}
                  onClick={() => make.mutate()}
                >
                  Make the group
                </Button>
                <Button variant="outlined" disabled={ofGrades.isPending} onClick={() => ofGrades.mutate()}>
                  Make a group of each grade
                </Button>
                <Button variant="outlined" disabled={g.students.length === 0} onClick={() => setMany(true)}>
                  Make many: by chance, balanced, from a list…
                </Button>
                <Problem error={make.error ?? ofGrades.error} />
                {said && (
                  <Typography role="status">
                    <StateMark mark="done">{said}</StateMark>
                  </Typography>
                )}
              </>
            )}
            <Button
              component={RouterLink}
              to={`/classes/${id}/set-up`}
              sx={{ alignSelf: "start", ml: -1.75 }}
            >
              Back to set up
            </Button>
          </>
        )
      }
    >
      <Problem error={head.error ?? groups.error} />
      {many && g && (
        <MakeGroups
          classId={id}
          students={g.students}
          onMade={(made) => {
            setMany(false);
            setSaid(`${count(made.groups, "group", "groups")} made${unfolded(made.folders)}`);
          }}
          onClose={() => setMany(false)}
        />
      )}
      {g && g.groups.length === 0 && (
        <Empty title="No group yet.">
          Groups are some students of one class, with folders that only they open. Make the first at the
          right.
        </Empty>
      )}
      {g && g.groups.length > 0 && g.students.length === 0 && (
        <Empty title="Nobody is on the roster yet.">
          Members come from the roster: <RouterLink to={`/classes/${id}/enroll`}>enroll students</RouterLink>.
        </Empty>
      )}
      {g && g.groups.length > 0 && <Matrix classId={id} view={g} shut={shut} />}
    </Desk>
  );
}

const unfolded = (folders: number) =>
  folders > 0 ? `, ${count(folders, "folder", "folders")} unfolded` : "";

function Matrix({ classId, view, shut }: { classId: number; view: Schemas["GroupsView"]; shut: boolean }) {
  const [changing, setChanging] = useState<Schemas["GroupView"] | null>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  const { members, toggle, error } = useMemberships(classId, view);
  const onKeys = (e: KeyboardEvent) => {
    const by = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[e.key];
    const at = (e.target as HTMLElement).dataset.at?.split(" ").map(Number);
    if (!by || !at) return;
    e.preventDefault();
    body.current?.querySelector<HTMLElement>(`[data-at="${at[0]! + by[0]!} ${at[1]! + by[1]!}"]`)?.focus();
  };
  return (
    <>
      <Problem error={error} />
      <Table aria-label="Students and groups" stickyHeader sx={{ width: "auto" }}>
        <TableHead>
          <TableRow>
            <TableCell sx={{ minWidth: 220 }}>Student</TableCell>
            <TableCell>Grade</TableCell>
            {view.groups.map((x) => (
              <TableCell key={x.id} align="center">
                <Button
                  color="inherit"
                  disabled={shut}
                  onClick={() => setChanging(x)}
                  sx={{ flexDirection: "column", p: 0.5 }}
                  aria-label={`Change group ${x.name}`}
                >
                  {x.name}
                  <Box component="span" sx={{ fontWeight: 400, fontSize: 12 }}>
                    {members(x).length === 0 ? "nobody" : members(x).length}
                  </Box>
                </Button>
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody ref={body} onKeyDown={onKeys}>
          {view.students.map((s, row) => (
            <TableRow key={s.id} hover>
              <TableCell>{s.sortName}</TableCell>
              <TableCell sx={{ color: "text.secondary" }}>{s.grade}</TableCell>
              {view.groups.map((x, column) => {
                return (
                  <TableCell key={x.id} align="center" padding="none">
                    <Checkbox
                      checked={members(x).includes(s.id)}
                      disabled={shut}
                      onChange={() => toggle(x, s.id)}
                      slotProps={{
                        input: {
                          "aria-label": `${s.sortName} in ${x.name}`,
                          ...({ "data-at": `${row} ${column}` } as object),
                        },
                      }}
                    />
                  </TableCell>
                );
              })}
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {changing && <ChangeGroup classId={classId} group={changing} onClose={() => setChanging(null)} />}
    </>
  );
}

// One may tick on without waiting: what is ticked is shown at once and sent in its turn.
function useMemberships(classId: number, view: Schemas["GroupsView"]) {
  type Group = Schemas["GroupView"];
  const queries = useQueryClient();
  const [ticked, setTicked] = useState<ReadonlyMap<number, number[]>>(new Map());
  const [error, setError] = useState<unknown>(null);
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const waiting = useRef(0);
  const sent = useRef(new Map<number, number>());
  const members = (group: Group) => ticked.get(group.id) ?? group.members;
  const toggle = (group: Group, student: number) => {
    const now = members(group);
    const next = now.includes(student) ? now.filter((m) => m !== student) : [...now, student];
    setTicked((t) => new Map(t).set(group.id, next));
    setError(null);
    waiting.current += 1;
    turn.current = turn.current
      .then(async () => {
        const version = sent.current.get(group.id) ?? view.groups.find((g) => g.id === group.id)!.version;
        await take(
          api.PUT("/api/classes/{classId}/groups/{groupId}", {
            params: { path: { classId, groupId: group.id } },
            body: { name: group.name, members: next, version },
          }),
        );
        sent.current.set(group.id, version + 1);
      })
      .catch(setError)
      .finally(async () => {
        waiting.current -= 1;
        if (waiting.current > 0) return;
        await queries.invalidateQueries();
        sent.current.clear();
        setTicked(new Map());
      });
  };
  return { members, toggle, error };
}

function ChangeGroup({
  classId,
  group,
  onClose,
}: {
  classId: number;
  group: Schemas["GroupView"];
  onClose: () => void;
}) {
  const [name, setName] = useState(group.name);
  const path = { params: { path: { classId, groupId: group.id } } };
  const begun = useBegun(group.version);
  const save = useAct(
    (version: number) =>
      take(
        api.PUT("/api/classes/{classId}/groups/{groupId}", {
          ...path,
          body: { name, members: group.members, version },
        }),
      ),
    onClose,
  );
  const bin = useAct(() => take(api.DELETE("/api/classes/{classId}/groups/{groupId}", path)), onClose);
  return (
    <Ask
      open
      title={`Group ${group.name}`}
      act="Rename it"
      busy={save.isPending || bin.isPending}
      disabled={name.trim() === "" || name === group.name}
      error={save.error ?? bin.error}
      onAct={() => save.mutate(begun(save.error))}
      onClose={onClose}
    >
      <TextField
        fullWidth
        autoFocus
        label="Name of the group"
        value={name}
        onChange={(e) => setName(e.target.value)}
        sx={{ my: 1 }}
      />
      <Typography variant="body2">
        {group.folders.length === 0
          ? "It has no folder of its own."
          : `Its own: ${group.folders.join(", ")}. Folders keep their names when the group is renamed.`}
      </Typography>
      <Button color="inherit" sx={{ ml: -1.75 }} onClick={() => bin.mutate(undefined)}>
        Take the group away
      </Button>
      <Typography variant="body2" sx={{ color: "text.secondary" }}>
        Its empty folders go to the bin; those with something in them stay, for staff alone.
      </Typography>
    </Ask>
  );
}
