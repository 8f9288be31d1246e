import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { BlindSpots } from "./BlindSpots";
import { Problem } from "../../parts/Problem";
import { count, sayMoment } from "../../parts/words";

/** The slip of the set-up desk: where the class stands, the step of opening, notices. */
export function WorkspaceSlip({ workspace }: { workspace: Schemas["WorkspaceView"] }) {
  const { head } = workspace;
  const [opening, setOpening] = useState(false);
  const [text, setText] = useState("");
  const classId = head.id;
  const open = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/opening", {
          params: { path: { classId } },
          body: { version: head.version },
          headers,
        }),
      ),
    () => setOpening(false),
  );
  const post = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/notices", {
          params: { path: { classId } },
          body: { text },
          headers,
        }),
      ),
    () => setText(""),
  );
  return (
    <>
      {head.state === "InPreparation" && (
        <>
          <Typography variant="h2">In preparation</Typography>
          <Typography>
            Students see nothing of this class yet.{" "}
            {head.students === 0
              ? "Nobody is on the roster."
              : `${count(head.students, "student is", "students are")} on the roster.`}
          </Typography>
          {head.students === 0 && (
            <Button variant="contained" component={RouterLink} to={`/classes/${classId}/enroll`}>
              Enroll students
            </Button>
          )}
          {head.may.includes("OpenClass") ? (
            <Button variant={head.students === 0 ? "outlined" : "contained"} onClick={() => setOpening(true)}>
              Open the class…
            </Button>
          ) : (
            <Typography variant="body2" sx={{ color: "text.secondary" }}>
              The lead teacher opens it.
            </Typography>
          )}
        </>
      )}
      {head.state === "Open" && (
        <>
          <Typography variant="h2">Open</Typography>
          <Typography>
            {count(head.students, "student sees", "students see")} this class. They read the teacher&rsquo;s
            name as “{head.teacherShown}”.
          </Typography>
        </>
      )}
      {head.state === "Archived" && (
        <>
          <Typography variant="h2">Archived</Typography>
          <Typography>Read-only for everybody. It can be restored from the loft.</Typography>
        </>
      )}
      {head.planName && (
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          Folder plan: {head.planName}
        </Typography>
      )}
      {head.state !== "Archived" && <BlindSpots classId={classId} />}
      <Button variant="outlined" component={RouterLink} to={`/classes/${classId}/see-as`}>
        See as a student…
      </Button>
      <Typography variant="h3" component="h2" sx={{ mt: 1 }}>
        Notices
      </Typography>
      {head.state !== "Archived" && (
        <>
          <TextField
            multiline
            minRows={2}
            label="Notice to the class"
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          <Problem error={post.error} />
          <Button
            variant="outlined"
            disabled={text.trim() === "" || post.isPending}
            onClick={() => post.mutate()}
          >
            Post notice
          </Button>
        </>
      )}
      {workspace.notices.slice(0, 4).map((n) => (
        <Typography key={n.postedAt + n.text} variant="body2">
          {n.text}
          <br />
          <Typography component="span" variant="caption" sx={{ color: "text.secondary" }}>
            {n.author}, {sayMoment(n.postedAt)}
          </Typography>
        </Typography>
      ))}
      {workspace.notices.length === 0 && (
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          None yet.
        </Typography>
      )}
      <Ask
        open={opening}
        title={`Open ${head.name}?`}
        act="Open the class"
        busy={open.isPending}
        error={open.error}
        onAct={() => open.mutate()}
        onClose={() => setOpening(false)}
      >
        <Typography>
          Is this period {head.period ?? "–"}? <strong>{count(head.students, "student", "students")}</strong>{" "}
          will see it from now on, with {count(workspace.folders.length, "folder", "folders")} and{" "}
          {count(
            workspace.assignments.filter((a) => a.published).length,
            "published assignment",
            "published assignments",
          )}
          .
        </Typography>
        <Typography sx={{ mt: 1, color: "text.secondary" }}>
          An open class does not go back into preparation. Everything else can still be changed.
        </Typography>
      </Ask>
    </>
  );
}
