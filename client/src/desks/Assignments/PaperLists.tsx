import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { Ask } from "../../parts/Ask";
import { PickOne } from "../../parts/PickOne";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayDate } from "../../parts/words";

const weeksToChoose = [1, 2, 3, 4, 6, 8, 12];
const papers = ["A4", "Letter"] as const;

/** Lists on paper: for homes what is due and what came back, for the wall folders and dates. */
export function PaperLists({ classId, onClose }: { classId: number; onClose: () => void }) {
  const [weeks, setWeeks] = useState(3);
  const [marks, setMarks] = useState(true);
  const [nothingToo, setNothingToo] = useState(false);
  const [student, setStudent] = useState<number | null>(null);
  const [languageChosen, setLanguage] = useState<string>();
  const lists = useQuery({
    queryKey: ["home-lists", classId, weeks],
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/home-lists", {
          params: { path: { classId }, query: { weeks } },
        }),
      ),
  });
  const v = lists.data;
  const usual = v?.languages[0];
  const language = languageChosen ?? usual?.code ?? "";
  const rows = (v?.students ?? []).filter((s) => student === null || s.student === student);
  const toSay = (s: Schemas["HomeListRow"]) => s.due + s.late + s.back > 0;
  const printed = rows.filter((s) => toSay(s) || nothingToo || student !== null);
  const pages = printed.reduce((sum, s) => sum + s.languages.length, 0);
  const other = [...new Set(printed.flatMap((s) => s.languages))].filter((l) => l !== usual?.name);
  const nothing = rows.filter((s) => !toSay(s)).length;
  const of = (what: "due" | "late" | "back") => rows.filter((s) => s[what] > 0).length;
  const address = `/api/classes/${classId}/home-lists/pdf?weeks=${weeks}&marks=${marks}&nothingToo=${nothingToo}${student === null ? "" : `&student=${student}`}`;
  return (
    <Ask open title="Lists on paper" act="Close" looks onAct={onClose} onClose={onClose}>
      <Typography variant="h3" component="h2" sx={{ mb: 1.5 }}>
        For homes: what is due, and what came back
      </Typography>
      <Problem error={lists.error} />
      {v && v.students.length === 0 ? (
        <Typography>There is no student in this class yet. Enroll students first.</Typography>
      ) : (
        v && (
          <>
            <PickOne
              label="Student"
              fullWidth
              none="All students"
              options={v.students.map((s) => ({ id: s.student, name: s.name }))}
              value={student}
              onChange={setStudent}
            />
            <TextField
              select
              label="Due in the next"
              value={weeks}
              onChange={(e) => setWeeks(Number(e.target.value))}
              sx={{ my: 1, minWidth: 160 }}
            >
              {weeksToChoose.map((w) => (
                <MenuItem key={w} value={w}>
                  {count(w, "week", "weeks")}
                </MenuItem>
              ))}
            </TextField>
            <FormControlLabel
              control={<Checkbox checked={marks} onChange={(_, on) => setMarks(on)} />}
              label="with the marks of what came back"
            />
            <Typography role="status">
              Until {sayDate(v.until)}: {of("due")} of {count(rows.length, "student has", "students have")}{" "}
              something to hand in, {of("late")} something late, and {of("back")} got something back in the
              last two weeks. {count(pages, "list", "lists")}
              {other.length > 0 && `, also in ${other.join(", ")}`}.
            </Typography>
            {nothing > 0 && student === null && (
              <FormControlLabel
                control={<Checkbox checked={nothingToo} onChange={(_, on) => setNothingToo(on)} />}
                label={`also for the ${nothing} of whom there is nothing to say`}
              />
            )}
            {pages === 0 ? (
              <StateMark mark="notYet" wrap>
                Nothing to print: choose more weeks, or tick those of whom there is nothing to say.
              </StateMark>
            ) : (
              <Typography>
                Download as PDF:{" "}
                {papers.map((p, i) => (
                  <span key={p}>
                    {i > 0 && " · "}
                    <Link href={`${address}&paper=${p}`} download aria-label={`Lists for homes, ${p}`}>
                      {p}
                    </Link>
                  </span>
                ))}
              </Typography>
            )}
          </>
        )
      )}
      <Typography variant="h3" component="h2" sx={{ mt: 2 }}>
        For the wall: dates and folders
      </Typography>
      <Typography>
        What everybody in the class sees, from today on. No student’s name stands on it.
      </Typography>
      <TextField
        select
        label="Language"
        value={language}
        onChange={(e) => setLanguage(e.target.value)}
        sx={{ my: 1, minWidth: 160 }}
      >
        {(v?.languages ?? []).map((l) => (
          <MenuItem key={l.code} value={l.code} lang={l.code}>
            {l.name}
          </MenuItem>
        ))}
      </TextField>
      <Typography>
        Download as PDF:{" "}
        {papers.map((p, i) => (
          <span key={p}>
            {i > 0 && " · "}
            <Link
              href={`/api/classes/${classId}/wall-list?language=${language}&paper=${p}`}
              download
              aria-label={`List for the wall, ${p}`}
            >
              {p}
            </Link>
          </span>
        ))}
      </Typography>
    </Ask>
  );
}
