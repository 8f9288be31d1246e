import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useWorkspace } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { useBegun } from "../../api/useBegun";
import { Ask } from "../../parts/Ask";
import { pathsOf } from "../../parts/folders/lines";
import { typedNumber } from "../../parts/typedNumber";
import { StateMark } from "../../parts/StateMark";

/** Makes an assignment, or changes one: what, until when, and in which folders students find it. */
export function MakeAssignment(props: { classId: number; assignmentId?: number; onClose: () => void }) {
  const workspace = useWorkspace(props.classId);
  if (!workspace.data) return null;
  return (
    <AssignmentForm
      w={workspace.data}
      was={workspace.data.assignments.find((a) => a.id === props.assignmentId)}
      onClose={props.onClose}
    />
  );
}

function AssignmentForm({
  w,
  was,
  onClose,
}: {
  w: Schemas["WorkspaceView"];
  was?: Schemas["AssignmentView"];
  onClose: () => void;
}) {
  const classId = w.head.id;
  const bank = w.head.kind === "Department";
  const [title, setTitle] = useState(was?.title ?? "");
  const [instructions, setInstructions] = useState(was?.instructions ?? "");
  const [points, setPoints] = useState(was ? String(was.points ?? "") : "20");
  const [dueOn, setDueOn] = useState(was?.dueOn ?? "");
  const [folders, setFolders] = useState<Schemas["FolderView"][]>(
    w.folders.filter((f) => was?.folders.includes(f.id) ?? (bank && f.name === "Bank")),
  );
  const [publish, setPublish] = useState(!bank);
  const [blind, setBlind] = useState<string[]>([]);
  const full = typedNumber(points);
  const noNumber = Number.isNaN(full);
  const begun = useBegun(was?.version ?? 0);
  const make = useAct(
    (version: number, headers) => {
      const body = {
        title,
        instructions,
        points: full,
        dueOn: dueOn || null,
        folders: folders.map((f) => f.id),
        students: null,
        publish: publish && !was,
      };
      return was
        ? take(
            api.PUT("/api/classes/{classId}/assignments/{assignmentId}", {
              params: { path: { classId, assignmentId: was.id }, query: { version } },
              body,
            }),
          )
        : take(
            api.POST("/api/classes/{classId}/assignments", { params: { path: { classId } }, body, headers }),
          );
    },
    (made) => (made.blindSpots.length > 0 && !bank ? setBlind(made.blindSpots) : onClose()),
  );
  const wrong = make.error instanceof ProblemError ? make.error.field : undefined;
  const all = w.folders;
  const paths = useMemo(() => pathsOf(all), [all]);
  if (blind.length > 0)
    return (
      <Ask
        open
        title={was ? "Changed, with a blind spot" : "Made, with a blind spot"}
        act="Understood"
        onAct={onClose}
        onClose={onClose}
      >
        <Typography>
          <StateMark mark="attention">
            {blind.length} students can&rsquo;t see any folder it is filed in:
          </StateMark>
        </Typography>
        <Typography>{blind.join(", ")}</Typography>
      </Ask>
    );
  return (
    <Ask
      open
      title={was ? `Change “${was.title}”` : "Make an assignment"}
      act={was ? "Change it" : publish ? "Make and publish" : bank ? "Put it in the bank" : "Keep as draft"}
      busy={make.isPending}
      disabled={noNumber}
      error={make.error}
      onAct={() => make.mutate(begun(make.error))}
      onClose={onClose}
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 2, pt: 1 }}>
        <TextField
          autoFocus
          label="Title"
          value={title}
          error={wrong === "title"}
          onChange={(e) => setTitle(e.target.value)}
        />
        <TextField
          multiline
          minRows={2}
          label="Instructions"
          value={instructions}
          onChange={(e) => setInstructions(e.target.value)}
        />
        <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2 }}>
          <TextField
            label="Points (empty for none)"
            value={points}
            error={wrong === "points" || noNumber}
            helperText={noNumber && `“${points.trim()}” is no number: type one like 20, or leave it empty.`}
            onChange={(e) => setPoints(e.target.value)}
          />
          <TextField
            type="date"
            label="Due"
            value={dueOn}
            onChange={(e) => setDueOn(e.target.value)}
            slotProps={{ inputLabel: { shrink: true } }}
          />
        </Box>
        <Autocomplete
          multiple
          autoHighlight
          disableCloseOnSelect
          options={all}
          value={folders}
          onChange={(_, v) => setFolders(v)}
          getOptionLabel={(f) => paths.get(f.id) ?? f.name}
          getOptionKey={(f) => f.id}
          isOptionEqualToValue={(a, b) => a.id === b.id}
          renderInput={(p) => (
            <TextField {...p} label="Filed in (one folder or several)" error={wrong === "folders"} />
          )}
        />
        {!was && !bank && (
          <FormControlLabel
            control={<Checkbox checked={publish} onChange={(e) => setPublish(e.target.checked)} />}
            label="Publish now: students see it as soon as the class is open"
          />
        )}
      </Box>
    </Ask>
  );
}
