import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take } from "../../api/client";
import { CourseMark } from "../../parts/CourseMark";
import { DayPart } from "../../parts/DayPart";
import { Empty } from "../../parts/Desk";
import { later } from "../../parts/later";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayBytes } from "../../parts/words";

const LetGo = later(() => import("../Closing/LetGo"), "LetGo");

/** A student's classes with what waits in each, those of earlier times, and what can be taken home. */
export function MyClasses() {
  const mine = useQuery({ queryKey: ["my-classes"], queryFn: () => take(api.GET("/api/my-classes")) });
  const homes = useQuery({
    queryKey: ["my-take-homes"],
    queryFn: () => take(api.GET("/api/my-take-homes")),
  });
  const [letting, setLetting] = useState<number | null>(null);
  const all = [...(mine.data ?? [])].reverse();
  const now = all.filter((k) => k.state === "Open" && k.standing !== "Left");
  const before = all.filter((k) => k.state !== "Open" || k.standing === "Left");
  return (
    <>
      <Problem error={mine.error ?? homes.error} />
      {mine.data && all.length === 0 && (
        <Empty title="No class yet.">Your teachers open them when they are ready.</Empty>
      )}
      {now.length > 0 && (
        <DayPart name="Your classes" figure={now.length}>
          {now.map((k) => (
            <li key={k.id}>
              <CourseMark mark={k.mark} />
              <div>
                <Link component={RouterLink} to={`/classes/${k.id}`} className="alone">
                  {k.name}
                </Link>
                <span>
                  {k.teacherShown}
                  {k.returned > 0 && (
                    <>
                      ,{" "}
                      <Link component={RouterLink} to={`/classes/${k.id}?show=back`} className="alone">
                        {count(k.returned, "piece", "pieces")} came back
                      </Link>
                    </>
                  )}
                </span>
              </div>
              <StateMark mark={k.toDo > 0 ? "attention" : "done"}>
                {k.toDo > 0 ? `${k.toDo} to hand in` : "nothing to hand in"}
              </StateMark>
            </li>
          ))}
        </DayPart>
      )}
      {homes.data && homes.data.length > 0 && (
        <DayPart name="Your own work, to take home" figure={homes.data.length}>
          {homes.data.map((t) => (
            <li key={t.year}>
              <span aria-hidden="true" />
              <div>
                <strong>School year {t.yearLabel}</strong>
                <span>
                  {count(t.files, "file", "files")} of {count(t.classes, "class", "classes")},{" "}
                  {sayBytes(t.size)}
                </span>
              </div>
              <div className="in-a-row">
                <Button component="a" variant="outlined" href={`/api/my-take-homes/${t.year}`} download>
                  Download your take-home of {t.yearLabel}
                </Button>
                <Button
                  color="inherit"
                  onClick={() => setLetting(t.year)}
                  aria-label={`Let go of your take-home of ${t.yearLabel}`}
                >
                  Let go…
                </Button>
              </div>
            </li>
          ))}
        </DayPart>
      )}
      {letting !== null && <LetGo year={letting} student={null} onClose={() => setLetting(null)} />}
      {before.length > 0 && (
        <DayPart name="Classes of earlier times" figure={before.length}>
          {before.map((k) => (
            <li key={k.id}>
              <CourseMark mark={k.mark} />
              <div>
                <Link component={RouterLink} to={`/classes/${k.id}`} className="alone">
                  {k.name}
                </Link>
                {k.standing === "Left" && !k.takeHomeReady && <span>{k.returned} returned to you</span>}
              </div>
              {k.takeHomeReady && (
                <a href={`/api/classes/${k.id}/take-home`} download>
                  Download your work
                </a>
              )}
            </li>
          ))}
        </DayPart>
      )}
    </>
  );
}
