import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useBoard, usePlans, useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { MarkChoice } from "../../parts/MarkChoice";
import { PlanChoice, TermChoice, YearChoice } from "../../parts/Choices";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { UnfoldingCounts, UnfoldingTree } from "../../parts/UnfoldingTree";
import { count } from "../../parts/words";
import { useGoOn, useTyped } from "../../parts/typed";
import { SetUpPlaces } from "./SetUpPlaces";
import { PickOne } from "../../parts/PickOne";

/** Makes a class: its name as it will read and its folders as they will stand, before anything is written. */
export function MakeClass({ me }: { me: Schemas["Me"] }) {
  const school = useSchool();
  const plans = usePlans();
  const courses = useQuery({ queryKey: ["courses"], queryFn: () => take(api.GET("/api/courses")) });
  const [course, setCourse] = useState("");
  const [section, setSection] = useState("");
  const [period, setPeriod] = useState("");
  const [yearAsked, setYear] = useState<number>();
  const [term, setTerm] = useState<number | "">("");
  const [planAsked, setPlan] = useState<number | "">();
  const [teacherShown, setTeacherShown] = useState(me.name);
  const [more, setMore] = useState({ level: "", room: "", endsOn: "", groups: "" });
  const [mark, setMark] = useState("sprig");
  useTyped(course !== "" || section !== "" || Object.values(more).some((t) => t !== ""));
  const [from, setFrom] = useState<number | "">("");
  const board = useBoard();
  const go = useGoOn();
  const year = yearAsked ?? school.data?.current;
  const plan = planAsked ?? plans.data?.[0]?.id ?? "";
  const body: Schemas["NewClass"] = {
    year: year ?? 0,
    course,
    section,
    period,
    term: term || null,
    plan: plan || null,
    teacherShown,
    level: more.level,
    room: more.room,
    endsOn: more.endsOn || null,
    groups: more.groups.split("\n").filter((g) => g.trim()),
    mark,
    from: from || null,
  };
  const known = courses.data?.find((c) => c.name.toLowerCase() === course.trim().toLowerCase());
  const preview = useQuery({
    queryKey: ["class-preview", body],
    enabled: year !== undefined && plans.data !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/class-preview", { body })),
  });
  const make = useAct(
    (_: void, headers) => take(api.POST("/api/classes", { body, headers })),
    (made) => go(`/classes/${made.id}/enroll`),
  );
  const name = preview.data?.name;
  const refusal = course === "" ? undefined : name?.refusal;
  const wrong = make.error instanceof ProblemError ? make.error.field : refusal?.field;
  return (
    <Desk
      title="Make a class"
      lead="It is in preparation until you open it: you arrange it in peace and students see nothing."
      wide
    >
      <SetUpPlaces />
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr", md: "minmax(300px, 400px) minmax(0, 1fr)" },
          gap: 4,
        }}
      >
        <Box
          component="form"
          sx={{ display: "flex", flexDirection: "column", gap: 2 }}
          onSubmit={(e) => {
            e.preventDefault();
            make.mutate();
          }}
        >
          <Autocomplete
            freeSolo
            options={(courses.data ?? []).map((c) => c.name)}
            inputValue={course}
            onInputChange={(_, v) => setCourse(v)}
            renderInput={(p) => (
              <TextField
                {...p}
                label="Course"
                autoFocus
                error={wrong === "course"}
                helperText="Choose one, or type a new one."
              />
            )}
          />
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2 }}>
            <TextField
              label="Section"
              value={section}
              error={wrong === "section"}
              onChange={(e) => setSection(e.target.value)}
              placeholder="6B"
            />
            <TextField
              label="Period"
              value={period}
              onChange={(e) => setPeriod(e.target.value)}
              placeholder="3"
            />
          </Box>
          {course.trim() !== "" && !known && (
            <MarkChoice label="Mark of the new course" value={mark} onChange={setMark} />
          )}
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2 }}>
            <TextField
              label="Level"
              value={more.level}
              onChange={(e) => setMore({ ...more, level: e.target.value })}
            />
            <TextField
              label="Room"
              value={more.room}
              onChange={(e) => setMore({ ...more, room: e.target.value })}
            />
          </Box>
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2 }}>
            <YearChoice
              value={year}
              onChange={(y) => {
                setYear(y);
                setTerm("");
              }}
            />
            <TermChoice year={year} value={term} onChange={setTerm} />
          </Box>
          <TextField
            type="date"
            label="Last day, if earlier than the term's"
            value={more.endsOn}
            error={wrong === "endsOn"}
            onChange={(e) => setMore({ ...more, endsOn: e.target.value })}
            slotProps={{ inputLabel: { shrink: true } }}
          />
          <TextField
            label="Students read the teacher's name as"
            value={teacherShown}
            onChange={(e) => setTeacherShown(e.target.value)}
          />
          <PickOne
            label="Set up like"
            none="a folder plan"
            options={board.data?.rows ?? []}
            value={from === "" ? null : from}
            onChange={(k) => setFrom(k ?? "")}
          />
          <PlanChoice value={plan} disabled={from !== ""} onChange={setPlan} />
          <TextField
            multiline
            label="Groups it begins with, one a line"
            helperText="For one workspace that several sections or year groups share."
            value={more.groups}
            onChange={(e) => setMore({ ...more, groups: e.target.value })}
          />
          <Problem error={make.error} />
          <Button
            type="submit"
            variant="contained"
            disabled={make.isPending || course.trim() === "" || !!refusal}
          >
            Make the class
          </Button>
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="caption" sx={{ color: "text.secondary" }}>
            It will be called
          </Typography>
          <Typography
            variant="h2"
            component="p"
            aria-live="polite"
            sx={{ mb: 0.5, overflowWrap: "anywhere", minHeight: 28 }}
          >
            {course.trim() === "" ? "…" : name?.name}
          </Typography>
          {refusal && (
            <Typography role="alert" sx={{ mb: 1 }}>
              <StateMark mark="blocked" strong>
                {refusal.what}
              </StateMark>{" "}
              {refusal.mend}
            </Typography>
          )}
          {name?.changes.map((c) => (
            <Typography key={c.was} variant="body2">
              <StateMark mark="attention">
                “{c.was}” is replaced: {c.why}
              </StateMark>
            </Typography>
          ))}
          {name?.advice && (
            <Typography variant="body2">
              <StateMark mark="attention">{name.advice}</StateMark>
            </Typography>
          )}
          <Problem error={preview.error} />
          {preview.data?.from && (
            <Box sx={{ mt: 2 }}>
              <Typography variant="h2">From “{preview.data.from.name}” come</Typography>
              <Typography>
                {count(preview.data.from.folders, "folder", "folders")},{" "}
                {count(preview.data.from.things, "file, link or page", "files, links and pages")},{" "}
                {count(preview.data.from.assignments, "assignment", "assignments")} as drafts without a date,
                and the welcome note.
              </Typography>
              <Table aria-label="What comes along" sx={{ mt: 1, maxWidth: 620 }}>
                <TableBody>
                  {preview.data.from.lines
                    .filter((l) => l.stays > 0)
                    .map((l) => (
                      <TableRow key={l.what}>
                        <TableCell>{l.what}</TableCell>
                        <TableCell align="right">{l.stays} stay</TableCell>
                        <TableCell sx={{ color: "text.secondary" }}>{l.why}</TableCell>
                      </TableRow>
                    ))}
                </TableBody>
              </Table>
            </Box>
          )}
          {preview.data?.folders ? (
            <Box sx={{ mt: 2 }}>
              <Typography variant="h2" sx={{ mb: 1 }}>
                Its folders will be
              </Typography>
              <UnfoldingCounts view={preview.data.folders} />
              <UnfoldingTree key={`${plan}-${year}-${term}`} tree={preview.data.folders.tree} />
            </Box>
          ) : (
            plan === "" &&
            from === "" && (
              <Typography sx={{ mt: 2, color: "text.secondary" }}>
                Without a plan the class begins with no folder.
              </Typography>
            )
          )}
        </Box>
      </Box>
    </Desk>
  );
}
