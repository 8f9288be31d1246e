import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

/** The people of a class that lives in another program, by the code it has there. */
export function TakeOutside(props: {
  classId: number;
  students: boolean;
  onTake: (people: Schemas["FoundPerson"][]) => void;
  onClose: () => void;
}) {
  const [code, setCode] = useState("");
  const look = useMutation({
    mutationFn: () =>
      take(
        api.POST("/api/classes/{classId}/outside", {
          params: { path: { classId: props.classId } },
          body: { code },
        }),
      ),
  });
  const k = look.data;
  const here = (k?.people ?? []).filter((p) => p.isTeacher !== props.students);
  const coming = here
    .filter((p) => p.knowledge === "Known" && p.people[0]?.inThisClass == null)
    .map((p) => p.people[0]!);
  return (
    <Ask
      open
      wide
      title="From another program"
      act={k ? `Put ${count(coming.length, "person", "people")} on the list` : "Put them on the list"}
      disabled={coming.length === 0}
      error={look.error}
      onAct={() => {
        props.onTake(coming);
        props.onClose();
      }}
      onClose={props.onClose}
    >
      <Box sx={{ display: "flex", gap: 1.5, pt: 1 }}>
        <TextField
          autoFocus
          label="Code of the class over there"
          value={code}
          onChange={(e) => setCode(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            look.mutate();
          }}
        />
        <Button
          variant="outlined"
          disabled={code.trim() === "" || look.isPending}
          onClick={() => look.mutate()}
        >
          Look it up
        </Button>
      </Box>
      {k && (
        <Box role="status" aria-label="The class over there" sx={{ mt: 1.5 }}>
          <Typography variant="h3">{k.name}</Typography>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            {count(
              here.length,
              props.students ? "student" : "teacher",
              props.students ? "students" : "teachers",
            )}
            {k.people.length > here.length &&
              `; ${k.people.length - here.length} more as ${props.students ? "teachers" : "students"}`}
          </Typography>
          {here.map((p, i) => (
            <Box key={i} sx={{ borderTop: 1, borderColor: "divider", minHeight: 34, py: 0.5 }}>
              <strong>{p.name}</strong>{" "}
              {p.knowledge === "Known" ? (
                <StateMark mark="done">
                  {p.people[0]?.inThisClass != null
                    ? "on this roster already"
                    : `${p.people[0]!.sortName}${p.people[0]!.grade ? `, grade ${p.people[0]!.grade}` : ""}, ${p.why}`}
                </StateMark>
              ) : (
                <StateMark mark={p.knowledge === "Unknown" ? "blocked" : "attention"}>
                  {p.why}
                  {p.people.length > 0 && `: ${p.people.map((x) => x.sortName).join(" or ")}`}
                </StateMark>
              )}
            </Box>
          ))}
          <Typography variant="body2" sx={{ color: "text.secondary", mt: 1 }}>
            Who is not clear is left out: pick them from the directory by name.
          </Typography>
        </Box>
      )}
    </Ask>
  );
}
