import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { noteWords } from "./openingWords";

/** The step of opening, with the check before it: is this really that period's roster, and what will they see? */
export function OpenClass({ head, onClose }: { head: Schemas["ClassHead"]; onClose: () => void }) {
  const path = { params: { path: { classId: head.id } } };
  const check = useQuery({
    queryKey: ["opening-check", head.id],
    queryFn: () => take(api.GET("/api/classes/{classId}/opening-check", path)),
  });
  const open = useAct(
    (_: void, headers) =>
      take(api.POST("/api/classes/{classId}/opening", { ...path, body: { version: head.version }, headers })),
    onClose,
  );
  const c = check.data;
  return (
    <Ask
      open
      title={`Open ${head.name}?`}
      act="Open the class"
      busy={open.isPending}
      disabled={!c}
      error={open.error ?? check.error}
      onAct={() => open.mutate()}
      onClose={onClose}
    >
      {c && (
        <>
          <Typography>
            Is this {c.period ? `period ${c.period}` : "the right roster"}
            {c.room && `, room ${c.room}`}? <strong>{count(c.students, "student", "students")}</strong>
            {c.first && c.last && c.students > 1 ? (
              <>
                , from <strong>{c.first}</strong> to <strong>{c.last}</strong>.
              </>
            ) : (
              "."
            )}
          </Typography>
          <Box component="ul" sx={{ listStyle: "none", p: 0, my: 1 }}>
            {c.also.slice(0, 5).map((a) => (
              <li key={a}>
                <StateMark mark="attention">{a}</StateMark>
              </li>
            ))}
            {c.also.length > 5 && <li>and {c.also.length - 5} more who are in two classes of this course</li>}
            <li>
              <StateMark mark={c.foldersSeen > 0 ? "done" : "attention"}>
                any student sees {c.foldersSeen} of {count(c.folders, "folder", "folders")}
              </StateMark>
            </li>
            <li>
              <StateMark mark={c.blindSpots === 0 ? "done" : "attention"}>
                {c.blindSpots === 0 ? "no blind spots" : count(c.blindSpots, "blind spot", "blind spots")}
              </StateMark>
            </li>
            {(c.noSignIn ?? 0) > 0 && (
              <li>
                <StateMark mark="attention">
                  {noteWords("NoSignIn", c)}:{" "}
                  <Link component={RouterLink} to={`/classes/${head.id}/slips`}>
                    make their slips
                  </Link>
                </StateMark>
              </li>
            )}
            {c.notes?.includes("NobodyLeads") && (
              <li>
                <StateMark mark="attention">
                  {noteWords("NobodyLeads", c)}:{" "}
                  <Link component={RouterLink} to={`/classes/${head.id}/enroll`}>
                    say who does
                  </Link>
                </StateMark>
              </li>
            )}
            <li>
              <StateMark mark={c.hasWelcome ? "done" : "notYet"}>
                {c.hasWelcome ? "a welcome note" : "no welcome note"}
              </StateMark>
            </li>
            <li>
              <StateMark mark={c.published > 0 ? "done" : "notYet"}>
                {count(c.published, "published assignment", "published assignments")}
              </StateMark>
            </li>
          </Box>
          <Typography>They read the teacher&rsquo;s name as “{c.teacherShown}”.</Typography>
          <Typography sx={{ mt: 1, color: "text.secondary" }}>
            An open class does not go back into preparation. Everything else can still be changed.
          </Typography>
        </>
      )}
    </Ask>
  );
}
