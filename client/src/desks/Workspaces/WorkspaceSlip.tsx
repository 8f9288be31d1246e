import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { count, sayBytes, sayDate } from "../../parts/words";
import { NoticeWords } from "../../parts/NoticeWords";
import { useDraft } from "../../parts/useDraft";
import { BankOffers } from "./BankOffers";
import { BlindSpots } from "./BlindSpots";
import { ClassCalendar } from "./ClassCalendar";
import { DetailsForm } from "./DetailsForm";
import { GiveOut } from "./GiveOut";
import { SetUpFile } from "./SetUpFile";
import { OpenClass } from "./OpenClass";
import { ChooseThings, UsedThings } from "./ThingsUsed";
import { WelcomeNote } from "./WelcomeNote";

/** The slip of the set-up desk: where the class stands, the step of opening, notices. */
export function WorkspaceSlip({ workspace }: { workspace: Schemas["WorkspaceView"] }) {
  const { head } = workspace;
  const [asking, setAsking] = useState<
    "open" | "details" | "welcome" | "give" | "uses" | "calendar" | "file" | null
  >(null);
  const close = () => setAsking(null);
  const shut = head.state === "Archived";
  const classId = head.id;
  const { draft: text, change: setText, drop } = useDraft(`notice:${classId}`, "");
  const post = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/notices", {
          params: { path: { classId } },
          body: { text },
          headers,
        }),
      ),
    drop,
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
            <Button
              variant={head.students === 0 ? "outlined" : "contained"}
              onClick={() => setAsking("open")}
            >
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
      <Facts workspace={workspace} />
      {head.planName && (
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          Folder plan: {head.planName}
        </Typography>
      )}
      {!shut && <BlindSpots classId={classId} />}
      {!shut && <BankOffers classId={classId} />}
      <Box
        sx={{
          display: "flex",
          flexDirection: "column",
          alignItems: "start",
          ml: -1.75,
          "& .MuiButton-root": { minHeight: 28, py: 0.25 },
        }}
      >
        {!shut && <Button onClick={() => setAsking("details")}>About this class…</Button>}
        {!shut && <Button onClick={() => setAsking("welcome")}>Welcome note…</Button>}
        {!shut && workspace.welcome !== "" && (
          <Button onClick={() => setAsking("give")}>Give the note to others…</Button>
        )}
        {!shut && <Button onClick={() => setAsking("uses")}>What it uses…</Button>}
        {!shut && <Button onClick={() => setAsking("calendar")}>Class calendar…</Button>}
        {!shut && (
          <Button component={RouterLink} to={`/classes/${classId}/past`}>
            Draw on the past…
          </Button>
        )}
        <Button onClick={() => setAsking("file")}>Set-up as a file…</Button>
        {head.kind === "Class" && (
          <Button component={RouterLink} to={`/classes/${classId}/acknowledged`}>
            Acknowledged
          </Button>
        )}
        <Button component={RouterLink} to={`/classes/${classId}/groups`}>
          Groups
        </Button>
        <Button component={RouterLink} to={`/classes/${classId}/see-as`}>
          See as a student…
        </Button>
      </Box>
      {workspace.uses.length > 0 && <UsedThings things={workspace.uses} />}
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
        <NoticeWords key={n.id} notice={n} />
      ))}
      <Button component={RouterLink} to={`/work/notices?classes=${classId}`}>
        All notices, to several classes…
      </Button>
      {workspace.notices.length === 0 && (
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          None yet.
        </Typography>
      )}
      {asking === "open" && <OpenClass head={head} onClose={close} />}
      {asking === "details" && <DetailsForm head={head} onClose={close} />}
      {asking === "welcome" && <WelcomeNote workspace={workspace} onClose={close} />}
      {asking === "file" && <SetUpFile classId={classId} name={head.name} shut={shut} onClose={close} />}
      {asking === "give" && <GiveOut workspace={workspace} welcome onClose={close} />}
      {asking === "calendar" && <ClassCalendar workspace={workspace} onClose={close} />}
      {asking === "uses" && <ChooseThings classId={classId} onClose={close} />}
    </>
  );
}

// What the class is, in a line or two.
function Facts({ workspace: { head, room } }: { workspace: Schemas["WorkspaceView"] }) {
  const said = [
    head.period && `period ${head.period}`,
    head.level,
    head.room && `room ${head.room}`,
    head.endsOn && `until ${sayDate(head.endsOn)}`,
    room && `files take ${sayBytes(room.used)}${room.most == null ? "" : ` of ${sayBytes(room.most)}`}`,
  ].filter(Boolean);
  if (said.length === 0) return null;
  return (
    <Typography variant="body2" sx={{ color: "text.secondary" }}>
      {said.join(" · ")}
    </Typography>
  );
}
