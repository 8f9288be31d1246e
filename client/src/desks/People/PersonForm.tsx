import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { Tick } from "../../parts/Tick";

/** Somebody whom the directory lacks, after a look at who they might already be; or one who is there, changed. */
export function PersonForm(props: {
  person?: Schemas["DirectoryRow"];
  me: Schemas["Me"];
  onClose: () => void;
}) {
  const p = props.person;
  const [draft, setDraft] = useState<Schemas["PersonDraft"]>({
    given: p?.given ?? "",
    family: p?.family ?? "",
    role: p?.role ?? "Student",
    grade: p?.grade ?? "",
    studentNumber: p?.studentNumber ?? "",
    email: p?.email ?? "",
    school: p?.school ?? "",
  });
  const [evenSo, setEvenSo] = useState(false);
  const set = (k: keyof typeof draft) => (v: string) => {
    setDraft((d) => ({ ...d, [k]: v }));
    setEvenSo(false);
  };
  const ready = (draft.given ?? "").trim() !== "";
  const look = useQuery({
    queryKey: ["look", draft],
    enabled: !p && ready,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/people/look", { body: draft })),
  });
  const save = useAct(
    async (_: void, headers) => {
      if (p)
        await take(
          api.PUT("/api/people/{personId}", { params: { path: { personId: p.id } }, body: draft, headers }),
        );
      else await take(api.POST("/api/people", { body: { person: draft, evenSo }, headers }));
    },
    () => props.onClose(),
  );
  const found = !p && ready ? look.data : undefined;
  const maybe = found && found.knowledge !== "Unknown";
  const wrong = [save.error, look.error].find((e) => e instanceof ProblemError)?.field;
  const field = (k: keyof typeof draft, label: string, more?: object) => (
    <TextField
      label={label}
      value={draft[k] ?? ""}
      error={wrong === k}
      onChange={(e) => set(k)(e.target.value)}
      {...more}
    />
  );
  return (
    <Ask
      open
      wide
      title={p ? `Change ${p.sortName}` : "Add somebody to the directory"}
      act={p ? "Save" : "Add to the directory"}
      busy={save.isPending}
      disabled={!ready || (maybe && !evenSo)}
      error={save.error ?? look.error}
      onAct={() => save.mutate()}
      onClose={props.onClose}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 2, pt: 1 }}>
        {field("given", "Given name", { autoFocus: true })}
        {field("family", "Family name")}
        <TextField
          select
          label="Role"
          value={draft.role}
          onChange={(e) => set("role")(e.target.value)}
          error={wrong === "role"}
        >
          <MenuItem value="Student">student</MenuItem>
          <MenuItem value="Teacher">teacher</MenuItem>
          <MenuItem value="Staff">staff, without classes of their own</MenuItem>
          {props.me.role === "Coordinator" && <MenuItem value="Coordinator">coordinator</MenuItem>}
        </TextField>
        {draft.role === "Student" && field("grade", "Grade")}
        {draft.role === "Student" && field("studentNumber", "Student number")}
        {field("email", "E-mail")}
        {field("school", "School")}
      </Box>
      {p && p.school !== (draft.school || null) && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          Moving school keeps the account, the user name {p.userName}, all work and all marks.
        </Typography>
      )}
      {found && (
        <Box role="status" sx={{ mt: 2 }} aria-label="Who they might be">
          {maybe ? (
            <>
              <StateMark mark="attention">
                {found.knowledge === "Known" ? "Already here" : "May already be here"}: {found.why}
              </StateMark>
              <Box component="ul" sx={{ my: 0.5, pl: 3 }}>
                {found.people.map((x) => (
                  <li key={x.id}>
                    <strong>{x.sortName}</strong>
                    {x.grade && `, grade ${x.grade}`}
                    {x.studentNumber && `, number ${x.studentNumber}`}, signs in as {x.userName},{" "}
                    {x.classes.length > 0 ? `in ${x.classes.join(", ")}` : "in no class"}
                  </li>
                ))}
              </Box>
              <Tick label="This is another person" value={evenSo} onChange={setEvenSo} />
            </>
          ) : (
            <StateMark mark="done">Nobody like that is here yet.</StateMark>
          )}
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            Will sign in as <strong>{found.userName}</strong>; the first password stands on the slip.
          </Typography>
        </Box>
      )}
    </Ask>
  );
}
