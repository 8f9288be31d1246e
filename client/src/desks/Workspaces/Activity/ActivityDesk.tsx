import Slider from "@mui/material/Slider";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../../api/client";
import { useHead } from "../../../api/queries";
import { ClassBar } from "../../../parts/ClassBar";
import { Desk, Empty } from "../../../parts/Desk";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { PlainTable } from "../../../parts/table/PlainTable";
import { count, sayDay } from "../../../parts/words";
import { levelOf, placesOf, sayRow, squareOf, weeksOf } from "./activity";
import { CameIn } from "./CameIn";
import "./activity.css";

type View = Schemas["ActivityView"];

/** Who opened, wrote and handed in, by school day: so that one sees at a glance who has gone quiet. */
export function ActivityDesk() {
  const classId = Number(useParams().id);
  const head = useHead(classId);
  const [address, setAddress] = useSearchParams();
  const from = Number(address.get("from")) || undefined;
  const to = Number(address.get("to")) || undefined;
  const activity = useQuery({
    queryKey: ["activity", classId, from ?? null, to ?? null],
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/activity", {
          params: { path: { classId }, query: { from, to } },
        }),
      ),
  });
  const v = activity.data;
  const quiet = v?.students.filter((s) => s.quiet) ?? [];
  return (
    <Desk
      title="Activity"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={v?.kept && v.students.length > 0 && <ActivitySlip classId={classId} view={v} quiet={quiet} />}
    >
      <Problem error={activity.error ?? head.error} />
      {v && !v.kept && (
        <Empty title="The school keeps no activity.">
          The coordinator switched it off in the school’s rules.
        </Empty>
      )}
      {v?.kept && v.weeks > 0 && (
        <Period
          key={`${v.fromWeek}-${v.toWeek}`}
          view={v}
          onChange={(a, b) => setAddress({ from: String(a), to: String(b) }, { replace: true })}
        />
      )}
      {v?.kept && v.days.length === 0 && (
        <Empty title="No school day of this class has come yet.">
          What students do stands here from the first one on.
        </Empty>
      )}
      {v?.kept && v.days.length > 0 && v.students.length === 0 && (
        <Empty title="Nobody is on the roster.">Enroll students first.</Empty>
      )}
      {v && v.students.length > 0 && (
        <>
          <Typography variant="body2" className="activity-key">
            {quiet.length > 0 ? (
              <StateMark mark="attention" strong wrap>
                {quiet.length} {quiet.length === 1 ? "has" : "have"} gone quiet: nothing for a week of school
              </StateMark>
            ) : (
              <StateMark mark="done">nobody has gone quiet</StateMark>
            )}
            <span>
              <Square level="wrote" /> wrote or handed in
            </span>
            <span>
              <Square level="opened" /> opened something
            </span>
            <span>
              <Square level="looked" /> opened the class
            </span>
            <span>
              <Square level="nothing" /> nothing
            </span>
          </Typography>
          <Students view={v} />
          <Typography variant="body2" className="activity-said">
            Kept for {v.keptDays} days. Students do not see this page; their class says that it is kept.
          </Typography>
        </>
      )}
    </Desk>
  );
}

/** The school weeks that are shown, chosen on the line of the year. */
function Period({ view: v, onChange }: { view: View; onChange: (from: number, to: number) => void }) {
  const [weeks, setWeeks] = useState<[number, number]>([v.fromWeek, v.toWeek]);
  return (
    <div className="activity-period">
      <span>School {weeks[0] === weeks[1] ? `week ${weeks[0]}` : `weeks ${weeks[0]} to ${weeks[1]}`}</span>
      <Slider
        value={weeks}
        min={1}
        max={v.weeks}
        step={1}
        marks={[
          { value: 1, label: "1" },
          ...(v.thisWeek != null && v.thisWeek > 1 ? [{ value: v.thisWeek, label: "now" }] : []),
        ]}
        getAriaLabel={(n) => (n === 0 ? "First school week" : "Last school week")}
        getAriaValueText={(n) => `school week ${n}`}
        onChange={(_, value) => setWeeks(value as [number, number])}
        onChangeCommitted={(_, value) => {
          const [a, b] = value as [number, number];
          onChange(a, b);
        }}
      />
    </div>
  );
}

function Students({ view: v }: { view: View }) {
  const square = squareOf(v.days.length);
  const places = placesOf(v.days, square);
  const width = (places[places.length - 1] ?? 0) + square;
  return (
    <PlainTable
      label="Activity of students"
      name="activity"
      rows={v.students}
      id={(s) => s.student}
      columns={[
        { head: "Student", main: true, cell: (s) => s.sortName },
        {
          head: "School days",
          beneath: weeksOf(v.days, places)
            .map((w) => w.week)
            .join(" · "),
          unsorted: true,
          says: (s) => sayRow(s, v.days),
          cell: (s) => (
            <svg
              className="activity-days"
              width={width}
              height="20"
              role="img"
              aria-label={sayRow(s, v.days)}
            >
              {v.days.map((d, n) => (
                <DaySquare key={d.day} x={places[n]!} square={square} level={levelOf(s.did[n] ?? 0)} />
              ))}
            </svg>
          ),
        },
        {
          head: "Days here",
          align: "right",
          by: (s) => s.daysHere,
          cell: (s) => `${s.daysHere} of ${v.days.length}`,
        },
        {
          head: "Handed in",
          by: (s) => (s.due === 0 ? null : s.in / s.due),
          cell: (s) =>
            s.due === 0 ? (
              ""
            ) : (
              <StateMark mark={s.in === s.due ? "done" : "attention"}>
                {s.in} of {s.due}
              </StateMark>
            ),
        },
        {
          head: "Last here",
          by: (s) => s.lastHere,
          cell: (s) => {
            const said = s.lastHere ? sayDay(s.lastHere) : "never, as far as it is kept";
            return s.quiet ? <StateMark mark="attention">{said}</StateMark> : said;
          },
        },
      ]}
    />
  );
}

// They differ by height and outline, not only by tint.
function DaySquare(props: { x: number; square: number; level: ReturnType<typeof levelOf> }) {
  const { square } = props;
  const gap = square > 6 ? 1 : 0.4;
  const x = props.x + gap;
  const width = square - 2 * gap;
  const rx = square > 6 ? 2 : 0;
  switch (props.level) {
    case "wrote":
      return <rect x={x} y="2" width={width} height="16" rx={rx} className="wrote" />;
    case "opened":
      return <rect x={x} y="8" width={width} height="10" rx={rx} className="opened" />;
    case "looked":
      return square > 6 ? (
        <rect x={x + 0.75} y="13.75" width={width - 1.5} height="3.5" rx="1.5" className="looked" />
      ) : (
        <rect x={x} y="14" width={width} height="4" className="wrote" />
      );
    default:
      return <line x1={x + width / 5} x2={x + (width * 4) / 5} y1="17.5" y2="17.5" className="nothing" />;
  }
}

function Square({ level }: { level: ReturnType<typeof levelOf> }) {
  return (
    <svg className="activity-days" width="13" height="20" aria-hidden="true">
      <DaySquare x={0} square={13} level={level} />
    </svg>
  );
}

function ActivitySlip(props: { classId: number; view: View; quiet: readonly Schemas["ActivityRow"][] }) {
  const { view: v, quiet } = props;
  return (
    <>
      <Typography variant="h2">
        {quiet.length === 0
          ? "Everybody was here"
          : count(quiet.length, "student is quiet", "students are quiet")}
      </Typography>
      {quiet.map((s) => (
        <div key={s.student}>
          <Link component={RouterLink} to={`/classes/${props.classId}/marking?student=${s.student}`}>
            {s.sortName}
          </Link>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            {s.lastHere ? `last here ${sayDay(s.lastHere)}` : "not here yet"}
            {s.due > s.in && `, ${s.due - s.in} not handed in`}
          </Typography>
        </div>
      ))}
      {v.assignments.map((a) => (
        <CameIn key={a.id} assignment={a} />
      ))}
    </>
  );
}
