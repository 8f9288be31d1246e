import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Tick } from "../../../parts/Tick";

const none: Schemas["TalkSetting"] = {
  writers: "Readers",
  group: null,
  question: null,
  closed: false,
  version: 0,
};

/** Makes a folder a place to talk, or changes who writes in it and what it asks. */
export function TalkSettings(props: {
  classId: number;
  folderId: number;
  was?: Schemas["TalkSetting"];
  groups: readonly Schemas["GroupName"][];
  onClose: () => void;
}) {
  const was = props.was ?? none;
  const [typed, setTyped] = useState({ ...was, question: was.question ?? "" });
  const save = useAct(
    (_: void, headers) =>
      take(
        api.PUT("/api/classes/{classId}/folders/{folderId}/talk", {
          params: { path: { classId: props.classId, folderId: props.folderId } },
          body: typed,
          headers,
        }),
      ),
    props.onClose,
  );
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  return (
    <Ask
      open
      title={props.was ? "Who writes here" : "Make it a place to talk"}
      act={props.was ? "Change it" : "Make it one"}
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate()}
      onClose={props.onClose}
    >
      <Typography variant="body2">
        Whoever sees the folder reads. What is written goes into the archive of the class; staff can hide it.
      </Typography>
      <TextField
        select
        fullWidth
        margin="dense"
        label="Who writes"
        value={typed.writers}
        onChange={(e) => setTyped({ ...typed, writers: e.target.value as typeof typed.writers })}
      >
        <MenuItem value="Readers">everybody who sees it</MenuItem>
        <MenuItem value="Staff">staff only</MenuItem>
        {props.groups.length > 0 && <MenuItem value="Group">one group, and staff</MenuItem>}
      </TextField>
      {typed.writers === "Group" && (
        <TextField
          select
          fullWidth
          margin="dense"
          label="Group"
          value={typed.group ?? ""}
          error={wrong === "group"}
          onChange={(e) => setTyped({ ...typed, group: Number(e.target.value) })}
        >
          {props.groups.map((g) => (
            <MenuItem key={g.id} value={g.id}>
              {g.name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <TextField
        fullWidth
        margin="dense"
        label="A question for each school day"
        helperText="For attendance or a check-in. Empty for none."
        value={typed.question}
        error={wrong === "question"}
        onChange={(e) => setTyped({ ...typed, question: e.target.value })}
      />
      {props.was && (
        <Tick
          label="Closed: everybody reads, nobody writes"
          value={typed.closed}
          onChange={(closed) => setTyped({ ...typed, closed })}
        />
      )}
    </Ask>
  );
}
