import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { CourseMark } from "../../parts/CourseMark";
import { MarkChoice } from "../../parts/MarkChoice";
import { Desk, Empty } from "../../parts/Desk";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count } from "../../parts/words";
import { useGoOn } from "../../parts/typed";

/** Departments: all their teachers, their papers, and one bank of assignments and materials that classes draw on. */
export function Departments({ me }: { me: Schemas["Me"] }) {
  const list = useQuery({ queryKey: ["departments"], queryFn: () => take(api.GET("/api/departments")) });
  const [making, setMaking] = useState(false);
  const all = list.data ?? [];
  const changed = all.reduce((n, d) => n + d.changed, 0);
  return (
    <Desk
      title="Departments"
      wide
      lead="A thing that many classes use exists once, in the bank of its department, and is found in one place."
      slip={
        <>
          <Typography variant="h2">{count(all.length, "department", "departments")}</Typography>
          <Typography>
            {changed === 0
              ? "Every copy in a class is as its bank has it, or was changed there by its teacher."
              : `${count(changed, "copy", "copies")} in classes could be brought up to date with a bank.`}
          </Typography>
          <Button variant="contained" onClick={() => setMaking(true)}>
            Make a department…
          </Button>
        </>
      }
    >
      <PlanPlaces me={me} />
      <Problem error={list.error} />
      {list.data && all.length === 0 && (
        <Empty title="No department yet.">
          It has its staff as members, folders for its meetings&rsquo; papers, and a bank of assignments and
          materials.
        </Empty>
      )}
      {all.length > 0 && (
        <PlainTable
          label="Departments"
          rows={all}
          id={(d) => d.id}
          columns={[
            {
              head: "Department",
              cell: (d) => (
                <>
                  <Box component="span" sx={{ mr: 1 }}>
                    <CourseMark mark={d.mark} />
                  </Box>
                  {d.member || me.role === "Coordinator" ? (
                    <Link component={RouterLink} to={`/classes/${d.id}/set-up`} color="text.primary">
                      <strong>{d.name}</strong>
                    </Link>
                  ) : (
                    d.name
                  )}
                </>
              ),
            },
            { head: "Members", cell: (d) => d.members, align: "right" },
            { head: "Folders", cell: (d) => d.folders, align: "right" },
            { head: "Assignments in the bank", cell: (d) => d.assignments, align: "right" },
            { head: "Materials", cell: (d) => d.things, align: "right" },
            {
              head: "Used in classes",
              cell: (d) => (
                <>
                  {count(d.copies, "copy", "copies")}
                  {d.changed > 0 && (
                    <>
                      {", "}
                      <StateMark mark="underway">{d.changed} could follow</StateMark>
                    </>
                  )}
                </>
              ),
            },
          ]}
        />
      )}
      {making && <MakeDepartment onClose={() => setMaking(false)} />}
    </Desk>
  );
}

function MakeDepartment({ onClose }: { onClose: () => void }) {
  const [name, setName] = useState("");
  const [mark, setMark] = useState("sprig");
  const go = useGoOn();
  const make = useAct(
    (_: void, headers) => take(api.POST("/api/departments", { body: { name, mark, members: [] }, headers })),
    (made) => go(`/classes/${made.id}/enroll`),
  );
  const wrong = make.error instanceof ProblemError ? make.error.field : undefined;
  return (
    <Ask
      open
      title="Make a department"
      act="Make it, then add its members"
      busy={make.isPending}
      disabled={name.trim() === ""}
      error={make.error}
      onAct={() => make.mutate()}
      onClose={onClose}
    >
      <TextField
        fullWidth
        autoFocus
        label="Name"
        placeholder="Crafts department"
        value={name}
        error={wrong === "name"}
        onChange={(e) => setName(e.target.value)}
        sx={{ my: 1 }}
      />
      <MarkChoice label="Mark" value={mark} onChange={setMark} />
      <Typography variant="body2" sx={{ color: "text.secondary", mt: 1 }}>
        You lead it. It begins with folders for meetings, the bank and shared papers, and it stays from year
        to year.
      </Typography>
    </Ask>
  );
}
