import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBoard } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { EnrollReport } from "../../parts/EnrollReport";
import { Problem } from "../../parts/Problem";
import { useProviders } from "../../parts/ProviderDoors";
import { count } from "../../parts/words";
import { ForgetAccounts } from "./ForgetAccounts";
import { ErasePerson } from "./ErasePerson";
import { ChangeRole } from "./ChangeRole";
import { MarkAsLeft } from "./MarkAsLeft";
import type { StaffRole } from "./roles";
import { PickOne } from "../../parts/PickOne";

/** What can be done with the people ticked: into a class or a group, another role, left or back. */
export function DirectoryActs(props: {
  people: Schemas["DirectoryRow"][];
  coordinator: boolean;
  onDone: () => void;
}) {
  const { people } = props;
  const [asking, setAsking] = useState<"class" | "left" | "step" | "accounts" | "erase" | null>(null);
  const [role, setRole] = useState<StaffRole | "">("");
  const ids = people.map((p) => p.id);
  const staff = people.every((p) => p.role !== "Student");
  const students = people.every((p) => p.role === "Student");
  const gone = people.every((p) => !p.active);
  const back = useAct(
    (_: void, headers) =>
      take(
        api.PUT("/api/people/active", { body: { people: ids, active: true, offRosters: false }, headers }),
      ),
    props.onDone,
  );
  const one = people.length === 1 ? people[0]! : null;
  const withProviders = (useProviders().data?.length ?? 0) > 0;
  const endStep = useAct(
    (personId: number, headers) =>
      take(api.DELETE("/api/people/{personId}/second-step", { params: { path: { personId } }, headers })),
    () => setAsking(null),
  );
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}>
      {(staff || students) && !gone ? (
        <Button variant="contained" onClick={() => setAsking("class")}>
          Add to a class…
        </Button>
      ) : (
        !gone && <Typography variant="body2">Tick students alone, or staff alone, to enroll them.</Typography>
      )}
      {props.coordinator && staff && (
        <TextField
          select
          label="Role in the school"
          value={role}
          onChange={(e) => setRole(e.target.value as StaffRole)}
        >
          <MenuItem value="Staff">staff, without classes of their own</MenuItem>
          <MenuItem value="Teacher">teacher</MenuItem>
          <MenuItem value="Coordinator">coordinator</MenuItem>
        </TextField>
      )}
      {props.coordinator && !gone && (
        <Button
          variant="outlined"
          component={RouterLink}
          to={`/enroll/directory/slips?people=${ids.join(",")}`}
        >
          Sign-in {people.length === 1 ? "slip" : "slips"}
        </Button>
      )}
      {props.coordinator &&
        (gone ? (
          <Button variant="outlined" disabled={back.isPending} onClick={() => back.mutate()}>
            They are back
          </Button>
        ) : (
          <Button variant="outlined" onClick={() => setAsking("left")}>
            They have left…
          </Button>
        ))}
      {props.coordinator && one && (
        <Button variant="outlined" href={`/api/people/${one.id}/data`} download>
          All data of theirs
        </Button>
      )}
      {props.coordinator && one && staff && !gone && (
        <Button variant="outlined" onClick={() => setAsking("step")}>
          End second step…
        </Button>
      )}
      {props.coordinator && one && !gone && withProviders && (
        <Button variant="outlined" onClick={() => setAsking("accounts")}>
          Forget accounts…
        </Button>
      )}
      {props.coordinator && one && gone && (
        <Button variant="outlined" onClick={() => setAsking("erase")}>
          Erase…
        </Button>
      )}
      <Problem error={back.error} />
      {one && (
        <Ask
          open={asking === "step"}
          title={`End the second step of ${one.given} ${one.family}?`}
          act="End it"
          busy={endStep.isPending}
          error={endStep.error}
          onAct={() => endStep.mutate(one.id)}
          onClose={() => setAsking(null)}
        >
          <Typography>
            For whoever has lost phone and codes. Make sure that it is them who ask. They are signed out
            everywhere, sign in with their password alone, and a letter tells them.
          </Typography>
        </Ask>
      )}
      {one && asking === "accounts" && (
        <ForgetAccounts id={one.id} name={`${one.given} ${one.family}`} onClose={() => setAsking(null)} />
      )}
      {one && asking === "erase" && (
        <ErasePerson
          id={one.id}
          name={`${one.given} ${one.family}`}
          onDone={props.onDone}
          onClose={() => setAsking(null)}
        />
      )}
      {role !== "" && (
        <ChangeRole people={people} role={role} onDone={props.onDone} onClose={() => setRole("")} />
      )}
      {asking === "class" && (
        <AddToClass people={people} onDone={props.onDone} onClose={() => setAsking(null)} />
      )}
      {asking === "left" && (
        <MarkAsLeft people={people} onDone={props.onDone} onClose={() => setAsking(null)} />
      )}
    </Box>
  );
}

function AddToClass(props: { people: Schemas["DirectoryRow"][]; onDone: () => void; onClose: () => void }) {
  const board = useBoard();
  const [to, setTo] = useState<number | "">("");
  const [group, setGroup] = useState<number | "">("");
  const [report, setReport] = useState<Schemas["EnrollReport"]>();
  const student = props.people[0]!.role === "Student";
  const groups = useQuery({
    queryKey: ["groups", to],
    enabled: to !== "" && student,
    queryFn: () =>
      take(api.GET("/api/classes/{classId}/groups", { params: { path: { classId: Number(to) } } })),
  });
  const enroll = useAct(async (_: void, headers) => {
    const path = { params: { path: { classId: Number(to) } } };
    const out = await take(
      api.POST("/api/classes/{classId}/roster", {
        ...path,
        body: {
          people: props.people.map((p) => p.id),
          role: student ? "Student" : "CoTeacher",
          includeOpen: false,
        },
        headers,
      }),
    );
    const g = groups.data?.groups.find((x) => x.id === group);
    if (g)
      await take(
        api.PUT("/api/classes/{classId}/groups/{groupId}", {
          params: { path: { classId: Number(to), groupId: g.id } },
          body: {
            name: g.name,
            version: g.version,
            members: [
              ...new Set([
                ...g.members,
                ...out.decisions.filter((d) => d.outcome !== "Refused").map((d) => d.person),
              ]),
            ],
          },
        }),
      );
    return out;
  }, setReport);
  const wanted = new Set((board.data?.rows ?? []).filter((k) => k.state !== "Archived").map((k) => k.id));
  return (
    <Ask
      open
      title={`Add ${count(props.people.length, "person", "people")} to a class`}
      act={
        report
          ? "Done"
          : `Enroll ${count(props.people.length, student ? "student" : "co-teacher", student ? "students" : "co-teachers")}`
      }
      disabled={to === ""}
      busy={enroll.isPending}
      error={enroll.error}
      onAct={() => (report ? props.onDone() : enroll.mutate())}
      onClose={props.onClose}
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 2, pt: 1 }}>
        <PickOne
          label="Class"
          options={(board.data?.rows ?? []).filter((k) => wanted.has(k.id))}
          value={to === "" ? null : to}
          onChange={(k) => setTo(k ?? "")}
        />
        {(groups.data?.groups.length ?? 0) > 0 && (
          <TextField
            select
            label="And to a group of it"
            value={group}
            onChange={(e) => setGroup(Number(e.target.value) || "")}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          >
            <MenuItem value="">no group</MenuItem>
            {groups.data!.groups.map((g) => (
              <MenuItem key={g.id} value={g.id}>
                {g.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {report && <EnrollReport report={report} />}
      </Box>
    </Ask>
  );
}
