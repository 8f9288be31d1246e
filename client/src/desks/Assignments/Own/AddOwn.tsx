import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { api, ProblemError, take } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { DropFiles } from "../../../parts/DropFiles";

/** Ways to put something into one's own work: files, a photo where there is a camera, a link, a page written in place. */
export function AddOwn(props: { classId: number; assignmentId: number; title: string; onWrite: () => void }) {
  const [link, setLink] = useState(false);
  const { classId, assignmentId, title } = props;
  return (
    <>
      <DropFiles
        to={`/api/classes/${classId}/assignments/${assignmentId}/own-work/files`}
        label={`Add files to ${title}…`}
        camera
        more={
          <>
            <Button variant="outlined" onClick={() => setLink(true)}>
              Add a link…
            </Button>
            <Button variant="outlined" onClick={props.onWrite}>
              Write a page
            </Button>
          </>
        }
      />
      {link && <AddOwnLink classId={classId} assignmentId={assignmentId} onClose={() => setLink(false)} />}
    </>
  );
}

function AddOwnLink(props: { classId: number; assignmentId: number; onClose: () => void }) {
  const [title, setTitle] = useState("");
  const [url, setUrl] = useState("");
  const add = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/assignments/{assignmentId}/own-work/links", {
          params: { path: { classId: props.classId, assignmentId: props.assignmentId } },
          body: { title, url },
          headers,
        }),
      ),
    props.onClose,
  );
  const wrong = add.error instanceof ProblemError ? add.error.field : undefined;
  return (
    <Ask
      open
      title="Add a link to your work"
      act="Add the link"
      busy={add.isPending}
      error={add.error}
      onAct={() => add.mutate()}
      onClose={props.onClose}
    >
      <TextField
        fullWidth
        autoFocus
        margin="dense"
        slotProps={{ htmlInput: { inputMode: "url" } }}
        label="Address"
        placeholder="https://"
        value={url}
        error={wrong === "url"}
        onChange={(e) => setUrl(e.target.value)}
      />
      <TextField
        fullWidth
        margin="dense"
        label="What it is"
        value={title}
        error={wrong === "title"}
        onChange={(e) => setTitle(e.target.value)}
      />
    </Ask>
  );
}
