import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take } from "../../api/client";
import { CourseMark } from "../../parts/CourseMark";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayBytes } from "../../parts/words";
import { later } from "../../parts/later";

const LetGo = later(() => import("../Closing/LetGo"), "LetGo");

/** A student's classes, with what waits in each. */
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
    <Desk
      title="My classes"
      lead={
        mine.data && (
          <>
            {now.length} open now.{" "}
            <Link component={RouterLink} to="/join">
              Join a class with a code
            </Link>
          </>
        )
      }
    >
      <Problem error={mine.error} />
      {mine.data && all.length === 0 && (
        <Empty title="No class yet.">Your teachers open them when they are ready.</Empty>
      )}
      {now.length > 0 && (
        <Table aria-label="Open classes">
          <TableHead>
            <TableRow>
              <TableCell>Class</TableCell>
              <TableCell>Teacher</TableCell>
              <TableCell>To hand in</TableCell>
              <TableCell>Come back</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {now.map((k) => (
              <TableRow key={k.id} hover>
                <TableCell>
                  <CourseMark mark={k.mark} />{" "}
                  <Link component={RouterLink} to={`/classes/${k.id}`} sx={{ ml: 0.75, fontWeight: 600 }}>
                    {k.name}
                  </Link>
                </TableCell>
                <TableCell>{k.teacherShown}</TableCell>
                <TableCell>
                  {k.toDo > 0 ? (
                    <StateMark mark="attention">{k.toDo}</StateMark>
                  ) : (
                    <StateMark mark="done">nothing</StateMark>
                  )}
                </TableCell>
                <TableCell>{k.returned}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {homes.data && homes.data.length > 0 && (
        <Table aria-label="Your take-homes" sx={{ mt: 4 }}>
          <TableHead>
            <TableRow>
              <TableCell>Your own work, to take home</TableCell>
              <TableCell>Holds</TableCell>
              <TableCell />
            </TableRow>
          </TableHead>
          <TableBody>
            {homes.data.map((t) => (
              <TableRow key={t.year} hover>
                <TableCell>School year {t.yearLabel}</TableCell>
                <TableCell>
                  {count(t.files, "file", "files")} of {count(t.classes, "class", "classes")},{" "}
                  {sayBytes(t.size)}
                </TableCell>
                <TableCell align="right">
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
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {letting !== null && <LetGo year={letting} student={null} onClose={() => setLetting(null)} />}
      {before.length > 0 && (
        <Table aria-label="Classes of earlier times" sx={{ mt: 4 }}>
          <TableHead>
            <TableRow>
              <TableCell>Earlier</TableCell>
              <TableCell>Take home</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {before.map((k) => (
              <TableRow key={k.id}>
                <TableCell>
                  <CourseMark mark={k.mark} />{" "}
                  <Link component={RouterLink} to={`/classes/${k.id}`} sx={{ ml: 0.75 }}>
                    {k.name}
                  </Link>
                </TableCell>
                <TableCell>
                  {k.takeHomeReady ? (
                    <a href={`/api/classes/${k.id}/take-home`} download>
                      Download your work
                    </a>
                  ) : k.standing === "Left" ? (
                    `${k.returned} returned to you`
                  ) : (
                    "–"
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Desk>
  );
}
