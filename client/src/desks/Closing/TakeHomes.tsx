import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { useRun } from "../../api/useRun";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { RunAgain } from "../../parts/RunAgain";
import { StateMark } from "../../parts/StateMark";
import { TickTable } from "../../parts/table/TickTable";
import { count, sayBytes, sayDate, sayMoment } from "../../parts/words";
import { ClosePlaces } from "./ClosePlaces";
import { LetGo } from "./LetGo";
import { ReturnMany } from "./ReturnMany";

/** Take-homes: each student's own work over all classes of the year as one download. */
export function TakeHomes({ me }: { me: Schemas["Me"] }) {
  const school = useSchool();
  const [address, setAddress] = useSearchParams();
  const year = address.get("year") ? Number(address.get("year")) : undefined;
  const desk = useRun({
    key: ["take-homes", year],
    read: () => take(api.GET("/api/take-homes", { params: { query: { year } } })),
    stateOf: (v) => v.run?.state,
  });
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [find, setFind] = useState("");
  const d = desk.data;
  const make = useAct(
    (students: number[] | null, headers) =>
      take(api.POST("/api/take-homes/runs", { body: { year: d!.year, students }, headers })),
    () => setTicked(new Set()),
  );
  const rows = (d?.students ?? []).filter((s) =>
    `${s.sortName} ${s.grade ?? ""}`.toLowerCase().includes(find.trim().toLowerCase()),
  );
  const made = d?.students.filter((s) => s.madeAt != null).length ?? 0;
  const stale = d?.students.filter((s) => s.stale).length ?? 0;
  const held = d?.students.filter((s) => s.held > 0).length ?? 0;
  const working = d?.run?.state === "Working";
  const one = ticked.size === 1 ? d?.students.find((s) => ticked.has(s.student)) : undefined;
  const [letting, setLetting] = useState(false);
  const [returning, setReturning] = useState<Schemas["TakeHomeLine"] | null>(null);
  return (
    <Desk
      title="Take-homes"
      wide
      lead={
        d && (
          <>
            School year {d.yearLabel}: <strong>{made}</strong> of{" "}
            {count(d.students.length, "student", "students")} have one
            {stale > 0 && `, ${stale} no longer all of it`}.
          </>
        )
      }
      slip={
        d && (
          <>
            <Typography variant="h2">
              {working
                ? "Being made"
                : ticked.size > 0
                  ? `${count(ticked.size, "student", "students")} ticked`
                  : "For everybody"}
            </Typography>
            <Typography>
              One zip for each student: all their work and own folders of the year, with a page that opens
              offline. They fetch it themselves; the coordinator can hand it out too.
            </Typography>
            {held > 0 && (
              <StateMark mark="attention">{count(held, "student has", "students have")} held work</StateMark>
            )}
            <Button
              variant="contained"
              disabled={working || make.isPending || d.students.length === 0}
              onClick={() => make.mutate(ticked.size > 0 ? [...ticked] : null)}
            >
              Make {count(ticked.size || d.students.length, "take-home", "take-homes")}
            </Button>
            {d.run && (
              <Box role="status">
                {working && (
                  <LinearProgress
                    variant="determinate"
                    value={(100 * (d.run.made + d.run.empty + d.run.failed)) / Math.max(1, d.run.students)}
                    aria-label="Making take-homes"
                  />
                )}
                <Typography variant="body2" sx={{ color: "text.secondary" }}>
                  {working ? "So far" : "The last run"}: {d.run.made} made, {d.run.empty} with nothing to take
                  home{d.run.failed > 0 && `, ${d.run.failed} failed`}.
                </Typography>
                {d.run.reason == null &&
                  d.run.reasons.map((r) => (
                    <Typography key={r} variant="body2" color="error">
                      {r}
                    </Typography>
                  ))}
              </Box>
            )}
            <Typography variant="body2" sx={{ color: "text.secondary" }}>
              A leaver&rsquo;s is kept for {school.data?.leaverDays ?? "…"} days from the day they left, and
              then goes only if all that is in it stands elsewhere too.
            </Typography>
            <Problem error={make.error} />
            {me.role === "Coordinator" && one?.madeAt != null && (
              <Button sx={{ alignSelf: "start", ml: -1.75 }} onClick={() => setLetting(true)}>
                Let go of this take-home…
              </Button>
            )}
            {d.run?.state === "Failed" && (
              <RunAgain
                run={d.run.id}
                reason={d.run.reason}
                what={count(d.run.failed, "failed one", "failed ones")}
              />
            )}
          </>
        )
      }
    >
      <ClosePlaces me={me} />
      <Problem error={desk.error} />
      <TextField
        select
        variant="standard"
        label="School year"
        value={d?.year ?? ""}
        onChange={(e) => {
          setTicked(new Set());
          setAddress({ year: e.target.value });
        }}
        sx={{ minWidth: 110, mr: 2, mb: 0.5 }}
      >
        {(school.data?.years ?? []).map((y) => (
          <MenuItem key={y.id} value={y.id}>
            {y.label}
          </MenuItem>
        ))}
      </TextField>
      {d === undefined ? null : d.students.length === 0 ? (
        <Empty title="No student in a class of yours that was opened this year." />
      ) : (
        <>
          <TextField
            variant="standard"
            label="Name or grade"
            value={find}
            onChange={(e) => setFind(e.target.value)}
            sx={{ width: 220, mb: 0.5 }}
          />
          <TickTable
            label="Take-homes"
            rows={rows}
            id={(s) => s.student}
            ticks={{
              ticked,
              set: setTicked,
              label: (s) => `Tick ${s.sortName}`,
              all: "Tick all students shown",
            }}
            columns={[
              { head: "Student", cell: (s) => s.sortName },
              { head: "Grade", cell: (s) => s.grade ?? "–" },
              { head: "Classes", cell: (s) => s.classes, align: "right" },
              {
                head: "Take-home",
                by: (s) => s.madeAt,
                cell: (s) =>
                  s.madeAt == null ? (
                    <StateMark mark="notYet">not yet</StateMark>
                  ) : s.stale ? (
                    <StateMark mark="attention">
                      made {sayMoment(s.madeAt)}, no longer all of it: make it anew
                    </StateMark>
                  ) : (
                    <StateMark mark="done">
                      {count(s.files ?? 0, "file", "files")}, {sayBytes(s.size ?? 0)}
                      {!s.active && s.keepUntil && `, kept until ${sayDate(s.keepUntil)}`}
                    </StateMark>
                  ),
              },
              {
                head: "Held",
                says: "worth",
                by: (s) => s.held,
                cell: (s) =>
                  s.heldIn.length > 0 ? (
                    <Button
                      onClick={() => setReturning(s)}
                      aria-label={`Return what is held of ${s.sortName}`}
                    >
                      Return {s.held}…
                    </Button>
                  ) : s.held > 0 ? (
                    `${s.held} held`
                  ) : (
                    "–"
                  ),
              },
              {
                head: "Fetched",
                says: "worth",
                by: (s) => s.fetchedAt,
                cell: (s) => (s.fetchedAt != null ? sayMoment(s.fetchedAt) : "–"),
              },
              {
                head: "",
                cell: (s) =>
                  s.madeAt != null &&
                  me.role === "Coordinator" && (
                    <Link
                      href={`/api/take-homes/${d.year}/${s.student}`}
                      download
                      aria-label={`Hand out to ${s.sortName}`}
                    >
                      Hand out
                    </Link>
                  ),
                align: "right",
              },
            ]}
          />
          <ReturnMany
            open={returning !== null}
            classes={returning?.heldIn ?? []}
            student={returning?.student ?? null}
            onClose={() => setReturning(null)}
          />
          {letting && one && <LetGo year={d.year} student={one.student} onClose={() => setLetting(false)} />}
        </>
      )}
    </Desk>
  );
}
