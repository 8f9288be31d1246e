import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { TermChoice } from "../../parts/Choices";
import { MarkChoice } from "../../parts/MarkChoice";

/** What is said about a class: name, section, period, level, room, term, last day, the teacher's name, the course's mark. */
export function DetailsForm({ head, onClose }: { head: Schemas["ClassHead"]; onClose: () => void }) {
  const [d, setD] = useState({
    section: head.section ?? "",
    period: head.period ?? "",
    level: head.level ?? "",
    room: head.room ?? "",
    endsOn: head.endsOn ?? "",
    teacherShown: head.teacherShown,
  });
  const [term, setTerm] = useState<number | "">(head.term ?? "");
  const [mark, setMark] = useState(head.mark);
  const [name, setName] = useState(head.name);
  const path = { params: { path: { classId: head.id } } };
  const leads = head.may.includes("OpenClass");
  const save = useAct(async () => {
    let version = head.version;
    if (name.trim() !== head.name) {
      await take(api.PUT("/api/classes/{classId}/name", { ...path, body: { name, version } }));
      version += 1;
    }
    const same =
      d.section === (head.section ?? "") &&
      d.period === (head.period ?? "") &&
      d.level === (head.level ?? "") &&
      d.room === (head.room ?? "") &&
      d.endsOn === (head.endsOn ?? "") &&
      d.teacherShown === head.teacherShown &&
      (term || null) === (head.term ?? null);
    if (!same)
      await take(
        api.PUT("/api/classes/{classId}/details", {
          ...path,
          body: { ...d, endsOn: d.endsOn || null, term: term || null, version },
        }),
      );
    if (mark !== head.mark) await take(api.PUT("/api/classes/{classId}/mark", { ...path, body: { mark } }));
  }, onClose);
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  const field = (key: keyof typeof d, label: string, type = "text") => (
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
            value={name}
            error={wrong === "name"}
            onChange={(e) => setName(e.target.value)}
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
              <TermChoice year={head.year} value={term} error={wrong === "term"} onChange={setTerm} />
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
            <MarkChoice labelledBy="mark-of-course" value={mark} onChange={setMark} />
          </Box>
        )}
      </Box>
    </Ask>
  );
}
