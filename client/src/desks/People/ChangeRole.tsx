import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { roleNames, type StaffRole } from "./roles";

const means: Record<StaffRole, string> = {
  Staff: "They make no classes and see no year board. In a class they keep the place they have there.",
  Teacher:
    "They make classes, see the year board of their own, and find people in the directory to enroll them.",
  Coordinator:
    "They see and change every class of the school, its directory, deliveries, year and loft, and read the audit trail.",
};

/** Gives staff another role in the school: what it lets them do, and for whom it is a change. */
export function ChangeRole(props: {
  people: Schemas["DirectoryRow"][];
  role: StaffRole;
  onDone: () => void;
  onClose: () => void;
}) {
  const { people, role } = props;
  const change = useAct(
    (_: void, headers) =>
      take(api.PUT("/api/people/role", { body: { people: people.map((p) => p.id), role }, headers })),
    props.onDone,
  );
  const changed = people.filter((p) => p.role !== role);
  return (
    <Ask
      open
      title={`Role in the school: ${roleNames[role]}`}
      act={`Change ${count(changed.length, "role", "roles")}`}
      busy={change.isPending}
      disabled={changed.length === 0}
      error={change.error}
      onAct={() => change.mutate()}
      onClose={props.onClose}
    >
      <Typography>{means[role]}</Typography>
      <Box component="ul" aria-label="Whose role it is" sx={{ listStyle: "none", p: 0, m: 0, mt: 1 }}>
        {people.map((p) => (
          <li key={p.id}>
            <StateMark mark={p.role === role ? "none" : role === "Coordinator" ? "attention" : "done"}>
              {p.sortName}
            </StateMark>{" "}
            <Box component="span" sx={{ color: "text.secondary" }}>
              {p.role === role ? `is ${roleNames[role]} already` : `is ${roleNames[p.role]} now`},{" "}
              {p.classes.length === 0 ? "in no class" : `in ${count(p.classes.length, "class", "classes")}`}
            </Box>
          </li>
        ))}
      </Box>
    </Ask>
  );
}
