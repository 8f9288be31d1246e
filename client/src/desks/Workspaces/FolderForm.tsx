import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { useBegun } from "../../api/useBegun";
import { Ask } from "../../parts/Ask";
import { pickable, within } from "../../parts/folders/lines";
import { ruleWords } from "../../parts/words";
import { PickOne } from "../../parts/PickOne";

type Folder = Schemas["FolderView"];
const byHand: Schemas["FolderRule"][] = ["StaffOnly", "ClassViews", "ClassAdds", "ClassEdits", "AsAbove"];

/** Makes a folder, or changes one: its name, where it stands, who may do what. */
export function FolderForm({
  w,
  folder,
  inside,
  onClose,
  onChanged,
}: {
  w: Schemas["WorkspaceView"];
  folder?: Folder;
  inside?: Folder;
  onClose: () => void;
  onChanged?: () => void;
}) {
  const [name, setName] = useState(folder?.name ?? "");
  const [parent, setParent] = useState<number | "">(folder ? (folder.parent ?? "") : (inside?.id ?? ""));
  const [rule, setRule] = useState<Schemas["FolderRule"]>(
    folder?.rule ?? (inside ? "AsAbove" : w.head.kind === "Department" ? "StaffOnly" : "ClassViews"),
  );
  const [group, setGroup] = useState<number | "">(folder?.group ?? w.groups[0]?.id ?? "");
  const [may, setMay] = useState(folder?.members ?? { add: true, rename: true, remove: true });
  const classId = w.head.id;
  const grouped = rule === "OnePerGroup";
  const begun = useBegun(folder?.version ?? 0);
  const save = useAct(
    async (version: number, headers) => {
      const body = {
        name,
        parent: parent === "" ? null : parent,
        rule,
        place: null,
        version,
        group: grouped && group !== "" ? group : null,
        members: grouped ? may : null,
      };
      if (folder)
        await take(
          api.PUT("/api/classes/{classId}/folders/{folderId}", {
            params: { path: { classId, folderId: folder.id } },
            body,
          }),
        );
      else
        await take(
          api.POST("/api/classes/{classId}/folders", { params: { path: { classId } }, body, headers }),
        );
    },
    () => {
      onChanged?.();
      onClose();
    },
  );
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  const own = folder?.ownOf != null;
  const rules =
    w.head.kind === "Department"
      ? (["StaffOnly", "AsAbove"] as const)
      : w.groups.length > 0
        ? [...byHand, "OnePerGroup" as const]
        : byHand;
  const barred = folder ? within(w.folders, folder.id) : new Set<number>();
  return (
    <Ask
      open
      title={folder ? `Change “${folder.name}”` : "Make a folder"}
      act={folder ? "Change it" : "Make the folder"}
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate(begun(save.error))}
      onClose={onClose}
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 2, pt: 1 }}>
        <TextField
          autoFocus
          label="Name"
          value={name}
          error={wrong === "name"}
          onChange={(e) => setName(e.target.value)}
        />
        <PickOne
          label="Stands in"
          none="the top"
          error={wrong === "parent"}
          options={pickable(w.folders).filter((f) => !barred.has(f.id))}
          value={parent === "" ? null : parent}
          onChange={(f) => setParent(f ?? "")}
        />
        <TextField
          select
          label="Who may do what"
          value={rule}
          disabled={own}
          error={wrong === "rule"}
          onChange={(e) => setRule(e.target.value as Schemas["FolderRule"])}
        >
          {(own ? (["OneEach"] as const) : rules).map((r) => (
            <MenuItem key={r} value={r}>
              {ruleWords[r]}
            </MenuItem>
          ))}
        </TextField>
        {grouped && (
          <>
            <TextField
              select
              label="Group"
              value={group}
              error={wrong === "group"}
              onChange={(e) => setGroup(Number(e.target.value))}
            >
              {w.groups.map((g) => (
                <MenuItem key={g.id} value={g.id}>
                  {g.name}
                </MenuItem>
              ))}
            </TextField>
            <Box role="group" aria-label="Its members may">
              <Typography variant="body2">Its members see it. They may</Typography>
              {(
                [
                  ["add", "put things in"],
                  ["rename", "rename what others put in"],
                  ["remove", "bin what others put in"],
                ] as const
              ).map(([key, words]) => (
                <FormControlLabel
                  key={key}
                  control={
                    <Checkbox
                      checked={may[key]}
                      onChange={(e) => setMay({ ...may, [key]: e.target.checked })}
                    />
                  }
                  label={words}
                />
              ))}
            </Box>
          </>
        )}
      </Box>
    </Ask>
  );
}
