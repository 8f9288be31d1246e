import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { useBegun } from "../../api/useBegun";
import { Ask } from "../../parts/Ask";
import { pathsOf } from "../../parts/folders/lines";
import { later } from "../../parts/later";
import { GiveOut } from "./GiveOut";
import { ThingVersions } from "./ThingVersions";

const AskForm = later(() => import("./Acknowledged/AskForm"), "AskForm");

type Item = Schemas["ItemView"];

/** What can be done with one thing in a folder: rename, file, give to other classes, bin. */
export function ThingActs(props: {
  workspace: Schemas["WorkspaceView"];
  item: Item;
  onBinned: (item: Item) => void;
  staff: boolean;
}) {
  const { workspace: w, item } = props;
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [asking, setAsking] = useState<"rename" | "file" | "give" | "versions" | "acknowledge" | null>(null);
  const bin = useAct(
    () =>
      take(
        api.DELETE("/api/classes/{classId}/items/{itemId}", {
          params: { path: { classId: w.head.id, itemId: item.id } },
        }),
      ),
    () => props.onBinned(item),
  );
  const mayCopy = useAct((_: void, headers) =>
    take(
      api.PUT("/api/classes/{classId}/items/{itemId}/may-copy", {
        params: { path: { classId: w.head.id, itemId: item.id } },
        body: { mayCopy: !item.mayCopy },
        headers,
      }),
    ),
  );
  const ask = (what: typeof asking) => {
    setAnchor(null);
    setAsking(what);
  };
  if (!item.mayRename && !item.mayRemove) return null;
  const close = () => setAsking(null);
  return (
    <>
      <Button
        color="inherit"
        aria-haspopup="menu"
        aria-label={`Acts on ${item.name}`}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ fontWeight: 400 }}
      >
        Act ▾
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {item.mayRename && <MenuItem onClick={() => ask("rename")}>Rename…</MenuItem>}
        {item.mayRemove && <MenuItem onClick={() => ask("file")}>File in…</MenuItem>}
        {item.kind === "File" && item.version > 1 && (
          <MenuItem onClick={() => ask("versions")}>Earlier versions…</MenuItem>
        )}
        {props.staff && <MenuItem onClick={() => ask("give")}>{giveWords(w)}</MenuItem>}
        {props.staff && w.head.kind === "Class" && (
          <MenuItem onClick={() => ask("acknowledge")}>To be acknowledged…</MenuItem>
        )}
        {props.staff && (
          <MenuItem
            onClick={() => {
              setAnchor(null);
              mayCopy.mutate();
            }}
          >
            {item.mayCopy ? "No right to copy it: leave it behind" : "May be copied after all"}
          </MenuItem>
        )}
        {item.mayRemove && (
          <MenuItem
            onClick={() => {
              setAnchor(null);
              bin.mutate(undefined);
            }}
          >
            Bin
          </MenuItem>
        )}
      </Menu>
      {asking === "rename" && <Rename classId={w.head.id} item={item} onClose={close} />}
      {asking === "file" && <FileIn workspace={w} item={item} onClose={close} />}
      {asking === "versions" && (
        <Ask open wide title={`“${item.name}” as it was`} act="Done" onAct={close} onClose={close}>
          <ThingVersions
            kind={item.kind}
            classId={w.head.id}
            itemId={item.id}
            version={item.version}
            mayChange={item.mayRename}
            onDone={close}
          />
        </Ask>
      )}
      {asking === "acknowledge" && <AskForm classId={w.head.id} item={item} onClose={close} />}
      {asking === "give" && <GiveOut workspace={w} items={[item]} onClose={close} />}
    </>
  );
}

/** A bank's things are used in classes; a class's are given to others. */
export const giveWords = (w: Schemas["WorkspaceView"]) =>
  w.head.kind === "Department" ? "Use in classes…" : "Give to other classes…";

function Rename({ classId, item, onClose }: { classId: number; item: Item; onClose: () => void }) {
  const [name, setName] = useState(item.name);
  const [url, setUrl] = useState(item.url ?? "");
  const begun = useBegun(item.version);
  const save = useAct(
    (version: number) =>
      take(
        api.PUT("/api/classes/{classId}/items/{itemId}/name", {
          params: { path: { classId, itemId: item.id } },
          body: { name, url: item.kind === "Link" ? url : null, version },
        }),
      ),
    onClose,
  );
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  return (
    <Ask
      open
      title={`Rename “${item.name}”`}
      act="Rename it"
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate(begun(save.error))}
      onClose={onClose}
    >
      <TextField
        fullWidth
        autoFocus
        label={item.kind === "File" ? "Name" : "Title"}
        value={name}
        error={wrong === "name" || wrong === "title"}
        onChange={(e) => setName(e.target.value)}
        sx={{ my: 1 }}
      />
      {item.kind === "Link" && (
        <TextField
          fullWidth
          label="Address"
          value={url}
          error={wrong === "url"}
          onChange={(e) => setUrl(e.target.value)}
        />
      )}
    </Ask>
  );
}

function FileIn({
  workspace: w,
  item,
  onClose,
}: {
  workspace: Schemas["WorkspaceView"];
  item: Item;
  onClose: () => void;
}) {
  const paths = useMemo(() => pathsOf(w.folders), [w.folders]);
  const [folders, setFolders] = useState(w.folders.filter((f) => item.folders.includes(f.id)));
  const save = useAct(
    () =>
      take(
        api.PUT("/api/classes/{classId}/items/{itemId}/folders", {
          params: { path: { classId: w.head.id, itemId: item.id } },
          body: { folders: folders.map((f) => f.id) },
        }),
      ),
    onClose,
  );
  return (
    <Ask
      open
      title={`File “${item.name}”`}
      act={
        folders.length === 0
          ? "Take it out of all folders"
          : `File it in ${folders.length === 1 ? "1 folder" : `${folders.length} folders`}`
      }
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate(undefined)}
      onClose={onClose}
    >
      <Box sx={{ pt: 1 }}>
        <Autocomplete
          multiple
          autoHighlight
          options={w.folders.filter((f) => f.right !== "View" && f.right !== "None")}
          value={folders}
          onChange={(_, v) => setFolders(v)}
          getOptionLabel={(f) => paths.get(f.id) ?? f.name}
          getOptionKey={(f) => f.id}
          isOptionEqualToValue={(a, b) => a.id === b.id}
          renderInput={(p) => <TextField {...p} autoFocus label="Stands in" />}
        />
        <Typography variant="body2" sx={{ color: "text.secondary", mt: 1 }}>
          It is there once, however many folders it stands in. Who sees any of them sees it.
          {folders.length === 0 && " In no folder, only staff find it, among the unfiled things."}
        </Typography>
      </Box>
    </Ask>
  );
}
