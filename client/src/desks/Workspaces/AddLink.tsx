import TextField from "@mui/material/TextField";
import { useState } from "react";
import { api, ProblemError, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";

/** A link under a name that makes sense. */
export function AddLink({
  classId,
  folderId,
  onClose,
}: {
  classId: number;
  folderId: number;
  onClose: () => void;
}) {
  const [title, setTitle] = useState("");
  const [url, setUrl] = useState("https://");
  const add = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/folders/{folderId}/links", {
          params: { path: { classId, folderId } },
          body: { title, url },
          headers,
        }),
      ),
    onClose,
  );
  const wrong = add.error instanceof ProblemError ? add.error.field : undefined;
  return (
    <Ask
      open
      title="Add a link"
      act="Add the link"
      busy={add.isPending}
      error={add.error}
      onAct={() => add.mutate()}
      onClose={onClose}
    >
      <TextField
        fullWidth
        autoFocus
        label="Title that makes sense to students"
        value={title}
        error={wrong === "title"}
        onChange={(e) => setTitle(e.target.value)}
        sx={{ my: 1 }}
      />
      <TextField
        fullWidth
        label="Address"
        value={url}
        error={wrong === "url"}
        onChange={(e) => setUrl(e.target.value)}
      />
    </Ask>
  );
}
