import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { TermChoice } from "../../parts/Choices";
import { MarkChoice } from "../../parts/MarkChoice";

type About = Schemas["AboutClass"];

type TextPart = "name" | "section" | "period" | "level" | "room" | "endsOn" | "teacherShown";

const about = (h: Schemas["ClassHead"]) => ({
  name: h.name,
  section: h.section ?? null,
  period: h.period ?? null,
  level: h.level ?? null,
  room: h.room ?? null,
  term: h.term ?? null,
  endsOn: h.endsOn ?? null,
  teacherShown: h.teacherShown,
  mark: h.mark,
});

// As fields hold it: what is not said is blank.
const blanks = (a: About) => ({
  name: a.name ?? "",
  section: a.section ?? "",
  period: a.period ?? "",
  level: a.level ?? "",
  room: a.room ?? "",
  term: a.term ?? ("" as const),
  endsOn: a.endsOn ?? "",
  teacherShown: a.teacherShown ?? "",
});

type Fields = ReturnType<typeof blanks>;

/** The fields that were typed into since. */
function changedOf(was: About, now: Fields): Partial<Fields> {
  const then: Record<string, unknown> = blanks(was);
  return Object.fromEntries(
    Object.entries(blanks({ ...was, ...now, term: now.term || null })).filter(([k, v]) => then[k] !== v),
  );
}

/** What is said about a class: name, section, period, level, room, term, last day, the teacher's name, the course's mark. */
export function DetailsForm({ head, onClose }: { head: Schemas["ClassHead"]; onClose: () => void }) {
  // What the form began with: what others changed meanwhile and this one did not is left as they made it.
  const [was, setWas] = useState(() => about(head));
  const [d, setD] = useState(() => ({ ...was, ...blanks(was) }));
  const path = { params: { path: { classId: head.id } } };
  const leads = head.may.includes("OpenClass");
  const queries = useQueryClient();
  const save = useAct(async (_: void, headers) => {
    const mine = { ...d, endsOn: d.endsOn || null, term: d.term || null };
    try {
      await take(api.PUT("/api/classes/{classId}/about", { ...path, body: { was, mine }, headers }));
    } catch (e) {
      // It was said what the other made of it: saved once more, it is held against that.
      if (e instanceof ProblemError && e.code === "about-changed") {
        const now = await take(api.GET("/api/classes/{classId}", path));
        const others = about(now);
        setD((x) => ({
          ...blanks(others),
          ...changedOf(was, x),
          mark: x.mark === was.mark ? others.mark : x.mark,
        }));
        setWas(others);
        void queries.invalidateQueries({ queryKey: ["head", head.id] });
      }
      throw e;
    }
  }, onClose);
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  const field = (key: TextPart, label: string, type = "text") => (
    <TextField
      label={label}
      type={type}
      value={d[key]}
      error={wrong === key}
      onChange={(e) => setD({ ...d, [key]: e.target.value })}
      slotProps={type === "date" ? { inputLabel: { shrink: true } } : undefined}
    />
  );
  const department = head.kind === "Department";
  return (
    <Ask
      open
      title={department ? "About this department" : "About this class"}
      act="Save"
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate(undefined)}
      onClose={onClose}
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 2, pt: 1 }}>
        {leads && (
          <TextField
            label="Name"
            value={d.name}
            error={wrong === "name"}
            onChange={(e) => setD({ ...d, name: e.target.value })}
            helperText={
              department
                ? undefined
                : "A name that came from the school's pattern follows section, period and term by itself."
            }
          />
        )}
        {!department && (
          <>
            <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2 }}>
              {field("section", "Section")}
              {field("period", "Period")}
              {field("level", "Level")}
              {field("room", "Room")}
              <TermChoice
                year={head.year}
                value={d.term}
                error={wrong === "term"}
                onChange={(term) => setD({ ...d, term })}
              />
              {field("endsOn", "Last day, if earlier", "date")}
            </Box>
            {field("teacherShown", "Students read the teacher's name as")}
          </>
        )}
        {leads && (
          <Box>
            <Typography variant="body2" id="mark-of-course" sx={{ mb: 0.5 }}>
              Mark of {head.course}
              {!department && ", worn by all its classes"}
            </Typography>
            <MarkChoice
              labelledBy="mark-of-course"
              value={d.mark}
              onChange={(mark) => setD({ ...d, mark })}
            />
          </Box>
        )}
      </Box>
    </Ask>
  );
}
