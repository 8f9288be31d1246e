import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Desk, Empty } from "../../parts/Desk";
import { PatternField } from "../../parts/PatternField";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { useVersioned } from "../../parts/useVersioned";
import { count } from "../../parts/words";
import { Behind } from "../../parts/Behind";

/** How new user names are made: the pattern, and what it would have given the students of the directory. */
export function UserNames({ me }: { me: Schemas["Me"] }) {
  const naming = useQuery({
    queryKey: ["user-naming"],
    queryFn: () => take(api.GET("/api/naming/user-names")),
  });
  return naming.data ? <Names naming={naming.data} me={me} /> : <Problem error={naming.error} />;
}

function Names({ naming, me }: { naming: Schemas["UserNamingView"]; me: Schemas["Me"] }) {
  const { draft, begun, change, changed, drop, behind, keep } = useVersioned(
    "user-naming",
    naming.version,
    naming.pattern,
  );
  const preview = useQuery({
    queryKey: ["user-naming-preview", draft],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      take(api.POST("/api/naming/user-names/preview", { body: { pattern: draft, version: naming.version } })),
  });
  const set = useAct(
    () => take(api.PUT("/api/naming/user-names", { body: { pattern: draft, version: begun } })),
    drop,
  );
  const p = preview.data;
  const wrong = preview.error instanceof ProblemError;
  return (
    <Desk
      title="User names"
      wide
      lead="One rule for the whole school, built on the student number: every teacher naming in their own way is how a student ends up with several accounts."
      slip={
        <>
          <Typography variant="h2">
            {p ? `Tried on ${count(p.people, "student", "students")}` : "Tried on the directory"}
          </Typography>
          {p && (
            <Typography>
              {p.toldApart === 0
                ? "No two would have the same name."
                : `${count(p.toldApart, "student", "students")} would need a number to be told apart.`}{" "}
              {p.replaced > 0 && `${count(p.replaced, "name has", "names have")} letters replaced.`}
            </Typography>
          )}
          {p?.advice && (
            <Typography sx={{ "& span": { whiteSpace: "normal" } }}>
              <StateMark mark="attention">{p.advice}</StateMark>
            </Typography>
          )}
          <Button
            variant="contained"
            disabled={!changed || set.isPending || wrong}
            onClick={() => set.mutate(undefined)}
          >
            Save the pattern
          </Button>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            It names accounts made from now on. A user name that was given stays, and is never given to
            another person.
          </Typography>
          <Problem error={set.error} />
        </>
      }
    >
      <PlanPlaces me={me} />
      <Box sx={{ maxWidth: 640 }}>
        <PatternField value={draft} placeholders={naming.placeholders} error={wrong} onChange={change} />
      </Box>
      <Behind behind={behind} theirs={`Theirs is “${naming.pattern}”.`} onTheirs={drop} onMine={keep} />
      <Problem error={preview.error} />
      {p && p.people === 0 && (
        <Empty title="Nobody is in the directory yet.">The pattern is waiting for the first.</Empty>
      )}
      {p && p.rows.length > 0 && (
        <PlainTable
          label="User names as they would be"
          rows={p.rows}
          id={(r) => r.would}
          columns={[
            { head: "Student", cell: (r) => r.person },
            { head: "Signs in as", cell: (r) => r.has, look: "soft" },
            { head: "Would sign in as", cell: (r) => <strong>{r.would}</strong> },
            {
              head: "",
              cell: (r) =>
                r.toldApart ? (
                  <StateMark mark="attention">told apart by a number</StateMark>
                ) : (
                  r.said && <StateMark mark="none">from “{r.said}”</StateMark>
                ),
            },
          ]}
        />
      )}
    </Desk>
  );
}
