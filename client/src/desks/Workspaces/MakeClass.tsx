import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { usePlans, useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { UnfoldingCounts, UnfoldingTree } from "../../parts/UnfoldingTree";

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
  const go = useNavigate();
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
  };
  const preview = useQuery({
    queryKey: ["class-preview", body],
    enabled: year !== undefined && plans.data !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/class-preview", { body })),
  });
  const make = useAct(
    (_: void, headers) => take(api.POST("/api/classes", { body, headers })),
    (made) => void go(`/classes/${made.id}/enroll`),
  );
  const name = preview.data?.name;
  const refusal = course === "" ? undefined : name?.refusal;
  const wrong = make.error instanceof ProblemError ? make.error.field : refusal?.field;
  const terms = school.data?.years.find((y) => y.id === year)?.terms ?? [];
  return (
    <Desk
      title="Make a class"
      lead="It is in preparation until you open it: you arrange it in peace and students see nothing."
      wide
    >
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
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2 }}>
            <TextField
              select
              label="School year"
              value={year ?? ""}
              onChange={(e) => {
                setYear(Number(e.target.value));
                setTerm("");
              }}
            >
              {(school.data?.years ?? []).map((y) => (
                <MenuItem key={y.id} value={y.id}>
                  {y.label}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              select
              label="Term"
              value={term}
              onChange={(e) => setTerm(Number(e.target.value) || "")}
              slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
            >
              <MenuItem value="">whole year</MenuItem>
              {terms.map((t) => (
                <MenuItem key={t.id} value={t.id}>
                  {t.name}
                </MenuItem>
              ))}
            </TextField>
          </Box>
          <TextField
            label="Students read the teacher's name as"
            value={teacherShown}
            onChange={(e) => setTeacherShown(e.target.value)}
          />
          <TextField
            select
            label="Folder plan"
            value={plan}
            onChange={(e) => setPlan(Number(e.target.value) || "")}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          >
            {(plans.data ?? []).map((p) => (
              <MenuItem key={p.id} value={p.id}>
                {p.name}
              </MenuItem>
            ))}
            <MenuItem value="">no plan, no folders</MenuItem>
          </TextField>
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
          {preview.data?.folders ? (
            <Box sx={{ mt: 2 }}>
              <Typography variant="h2" sx={{ mb: 1 }}>
                Its folders will be
              </Typography>
              <UnfoldingCounts view={preview.data.folders} />
              <UnfoldingTree key={`${plan}-${year}-${term}`} tree={preview.data.folders.tree} />
            </Box>
          ) : (
            plan === "" && (
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
