import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take } from "../../api/client";
import { CourseMark } from "../../parts/CourseMark";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayBytes } from "../../parts/words";
import { sayWeek, sayWholeDay, TodayList, useToday } from "../Assignments/TodayList";
import { later } from "../../parts/later";

const LetGo = later(() => import("../Closing/LetGo"), "LetGo");

/** A student's first screen: their day over all classes, then the classes, then what they can take home. */
export function MyClasses() {
  const mine = useQuery({ queryKey: ["my-classes"], queryFn: () => take(api.GET("/api/my-classes")) });
  const today = useToday().data;
  const homes = useQuery({
    queryKey: ["my-take-homes"],
    queryFn: () => take(api.GET("/api/my-take-homes")),
  });
  const [letting, setLetting] = useState<number | null>(null);
  const all = [...(mine.data ?? [])].reverse();
  const now = all.filter((k) => k.state === "Open" && k.standing !== "Left");
  const before = all.filter((k) => k.state !== "Open" || k.standing === "Left");
  return (
    <Desk
      title={today ? sayWholeDay(today.day) : "Today"}
      lead={
        mine.data && (
          <>
            {today && sayWeek(today)}. {count(now.length, "open class", "open classes")}.{" "}
            <Link component={RouterLink} to="/join" className="alone">
              Join a class with a code
            </Link>
          </>
        )
      }
    >
      <TodayList />
      <Problem error={mine.error} />
      {mine.data && all.length === 0 && (
        <Empty title="No class yet.">Your teachers open them when they are ready.</Empty>
      )}
      {now.length > 0 && (
        <PlainTable
          label="Open classes"
          space={{ mt: 4 }}
          rows={now}
          id={(k) => k.id}
          columns={[
            {
              head: "Class",
              cell: (k) => (
                <>
                  <CourseMark mark={k.mark} />{" "}
                  <Link component={RouterLink} to={`/classes/${k.id}`} sx={{ ml: 0.75, fontWeight: 600 }}>
                    {k.name}
                  </Link>
                </>
              ),
            },
            { head: "Teacher", cell: (k) => k.teacherShown },
            {
              head: "To hand in",
              says: "worth",
              by: (k) => k.toDo,
              cell: (k) =>
                k.toDo > 0 ? (
                  <StateMark mark="attention">{k.toDo}</StateMark>
                ) : (
                  <StateMark mark="done">nothing</StateMark>
                ),
            },
            { head: "Come back", cell: (k) => k.returned },
          ]}
        />
      )}
      {homes.data && homes.data.length > 0 && (
        <PlainTable
          label="Your take-homes"
          rows={homes.data}
          id={(t) => t.year}
          space={{ mt: 4 }}
          columns={[
            { head: "Your own work, to take home", cell: (t) => <>School year {t.yearLabel}</> },
            {
              head: "Holds",
              cell: (t) => (
                <>
                  {count(t.files, "file", "files")} of {count(t.classes, "class", "classes")},{" "}
                  {sayBytes(t.size)}
                </>
              ),
            },
            {
              head: "",
              cell: (t) => (
                <>
                  <Button component="a" variant="outlined" href={`/api/my-take-homes/${t.year}`} download>
                    Download your take-home of {t.yearLabel}
                  </Button>{" "}
                  <Button
                    color="inherit"
                    onClick={() => setLetting(t.year)}
                    aria-label={`Let go of your take-home of ${t.yearLabel}`}
                  >
                    Let go…
                  </Button>
                </>
              ),
              align: "right",
            },
          ]}
        />
      )}
      {letting !== null && <LetGo year={letting} student={null} onClose={() => setLetting(null)} />}
      {before.length > 0 && (
        <PlainTable
          label="Classes of earlier times"
          rows={before}
          id={(k) => k.id}
          space={{ mt: 4 }}
          columns={[
            {
              head: "Earlier",
              cell: (k) => (
                <>
                  <CourseMark mark={k.mark} />{" "}
                  <Link component={RouterLink} to={`/classes/${k.id}`} sx={{ ml: 0.75 }}>
                    {k.name}
                  </Link>
                </>
              ),
            },
            {
              head: "Take home",
              cell: (k) =>
                k.takeHomeReady ? (
                  <a href={`/api/classes/${k.id}/take-home`} download>
                    Download your work
                  </a>
                ) : k.standing === "Left" ? (
                  `${k.returned} returned to you`
                ) : (
                  "–"
                ),
            },
          ]}
        />
      )}
    </Desk>
  );
}
