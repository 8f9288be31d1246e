import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { count, ruleWords } from "../../parts/words";
import { FolderSight } from "./FolderSight";

type Folder = Schemas["FolderView"];
const byHand: Schemas["FolderRule"][] = ["StaffOnly", "ClassViews", "ClassAdds", "ClassEdits", "AsAbove"];

/** What staff do with a folder: change it, order it, see who sees it, bin it, make one in it. */
export function FolderActs(props: {
  workspace: Schemas["WorkspaceView"];
  folder: Folder;
  onBinned: (f: Folder) => void;
}) {
  const { workspace: w, folder } = props;
  const [asking, setAsking] = useState<"change" | "make" | "sight" | "bin" | null>(null);
  const path = { params: { path: { classId: w.head.id, folderId: folder.id } } };
  const siblings = w.folders.filter((f) => f.parent === folder.parent);
  const place = siblings.findIndex((f) => f.id === folder.id);
  const order = useAct((to: number) =>
    take(
      api.PUT("/api/classes/{classId}/folders/{folderId}", {
        ...path,
        body: {
          name: folder.name,
          parent: folder.parent,
          rule: folder.rule,
          place: to,
          version: folder.version,
        },
      }),
    ),
  );
  const bin = useAct(
    () => take(api.DELETE("/api/classes/{classId}/folders/{folderId}", path)),
    () => {
      setAsking(null);
      props.onBinned(folder);
    },
  );
  const inside = within(w.folders, folder.id);
  const things = [...w.items, ...w.assignments].filter(
    (t) => t.folders.length > 0 && t.folders.every((f) => inside.has(f)),
  ).length;
  return (
    <>
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", ml: -1.75, mb: 1 }}>
        <Button onClick={() => setAsking("change")}>Change…</Button>
        <Button onClick={() => setAsking("make")}>Make a folder in it…</Button>
        <Button onClick={() => setAsking("sight")}>Who sees it?</Button>
        <Button disabled={place <= 0 || order.isPending} onClick={() => order.mutate(place - 1)}>
          Earlier
        </Button>
        <Button
          disabled={place >= siblings.length - 1 || order.isPending}
          onClick={() => order.mutate(place + 1)}
        >
          Later
        </Button>
        <Button color="inherit" onClick={() => setAsking("bin")}>
          Bin…
        </Button>
      </Box>
      <Problem error={order.error} />
      {asking === "change" && <FolderForm w={w} folder={folder} onClose={() => setAsking(null)} />}
      {asking === "make" && <FolderForm w={w} inside={folder} onClose={() => setAsking(null)} />}
      {asking === "sight" && (
        <FolderSight classId={w.head.id} folder={folder} onClose={() => setAsking(null)} />
      )}
      <Ask
        open={asking === "bin"}
        title={`Bin “${folder.name}”?`}
        act="Put it in the bin"
        busy={bin.isPending}
        error={bin.error}
        onAct={() => bin.mutate(undefined)}
        onClose={() => setAsking(null)}
      >
        <Typography>
          {inside.size > 1 && `${count(inside.size - 1, "folder", "folders")} in it go with it. `}
          {things > 0
            ? `${count(things, "thing stands", "things stand")} nowhere else: until you bring it back or file them, no student finds them.`
            : "Nothing stands in it alone."}{" "}
          It can be brought back.
        </Typography>
      </Ask>
    </>
  );
}

/** A folder and all folders that stand in it, by id. */
function within(folders: Folder[], top: number): Set<number> {
  const found = new Set([top]);
  for (let before = 0; before !== found.size;) {
    before = found.size;
    for (const f of folders) if (f.parent != null && found.has(f.parent)) found.add(f.id);
  }
  return found;
}

/** Makes a folder, or changes one: its name, where it stands, who may do what. */
export function FolderForm({
  w,
  folder,
  inside,
  onClose,
}: {
  w: Schemas["WorkspaceView"];
  folder?: Folder;
  inside?: Folder;
  onClose: () => void;
}) {
  const [name, setName] = useState(folder?.name ?? "");
  const [parent, setParent] = useState<number | "">(folder ? (folder.parent ?? "") : (inside?.id ?? ""));
  const [rule, setRule] = useState<Schemas["FolderRule"]>(
    folder?.rule ?? (inside ? "AsAbove" : "ClassViews"),
  );
  const classId = w.head.id;
  const save = useAct(async (_: void, headers) => {
    const body = {
      name,
      parent: parent === "" ? null : parent,
      rule,
      place: null,
      version: folder?.version ?? 0,
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
  }, onClose);
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  const own = folder?.ownOf != null;
  const barred = folder ? within(w.folders, folder.id) : new Set<number>();
  return (
    <Ask
      open
      title={folder ? `Change “${folder.name}”` : "Make a folder"}
      act={folder ? "Change it" : "Make the folder"}
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate()}
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
        <TextField
          select
          label="Stands in"
          value={parent}
          error={wrong === "parent"}
          onChange={(e) => setParent(e.target.value === "" ? "" : Number(e.target.value))}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">the top</MenuItem>
          {w.folders
            .filter((f) => !barred.has(f.id) && f.ownOf == null)
            .map((f) => (
              <MenuItem key={f.id} value={f.id}>
                {pathOf(w.folders, f)}
              </MenuItem>
            ))}
        </TextField>
        <TextField
          select
          label="Who may do what"
          value={rule}
          disabled={own}
          error={wrong === "rule"}
          onChange={(e) => setRule(e.target.value as Schemas["FolderRule"])}
        >
          {(own ? (["OneEach"] as const) : byHand).map((r) => (
            <MenuItem key={r} value={r}>
              {ruleWords[r]}
            </MenuItem>
          ))}
        </TextField>
      </Box>
    </Ask>
  );
}

function pathOf(all: Folder[], f: Folder): string {
  const above = all.find((x) => x.id === f.parent);
  return above ? `${pathOf(all, above)} / ${f.name}` : f.name;
}
