import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { draftOf, undoable, type Undoable } from "./folderDraft";
import { FolderForm } from "./FolderForm";
import { FolderSight } from "./FolderSight";
import { GiveOut } from "./GiveOut";
import { TalkSettings } from "./Talk/TalkSettings";
import { giveWords } from "./ThingActs";

type Folder = Schemas["FolderView"];

/** What staff do with a folder: change it, order it, see who sees it, bin it, make one in it. */
export function FolderActs(props: {
  workspace: Schemas["WorkspaceView"];
  folder: Folder;
  onBinned: (f: Folder) => void;
  onChanged: (u: Undoable) => void;
}) {
  const { workspace: w, folder } = props;
  const [asking, setAsking] = useState<"change" | "make" | "sight" | "bin" | "give" | "talk" | null>(null);
  const path = { params: { path: { classId: w.head.id, folderId: folder.id } } };
  const siblings = w.folders.filter((f) => f.parent === folder.parent);
  const place = siblings.findIndex((f) => f.id === folder.id);
  const changed = (said: string) => props.onChanged(undoable(said, folder, place));
  const order = useAct(
    (to: number) =>
      take(api.PUT("/api/classes/{classId}/folders/{folderId}", { ...path, body: draftOf(folder, to) })),
    () => changed(`“${folder.name}” stands elsewhere.`),
  );
  const bin = useAct(
    () => take(api.DELETE("/api/classes/{classId}/folders/{folderId}", path)),
    () => {
      setAsking(null);
      props.onBinned(folder);
    },
  );
  const keep = useAct((_: void, headers) =>
    take(
      api.POST("/api/classes/{classId}/kept-copies", {
        params: { path: { classId: w.head.id } },
        body: { folder: folder.id },
        headers,
      }),
    ),
  );
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
        {folder.ownOf == null && folder.group == null && (
          <Button onClick={() => setAsking("give")}>{giveWords(w)}</Button>
        )}
        {folder.ownOf == null && folder.group == null && w.head.kind !== "Kept" && (
          <Button disabled={keep.isPending || keep.isSuccess} onClick={() => keep.mutate()}>
            {keep.isSuccess ? "Kept" : "Keep a copy"}
          </Button>
        )}
        <Button component="a" href={`/api/classes/${w.head.id}/folders/${folder.id}/zip`} download>
          Download as zip
        </Button>
        {!folder.talks && w.head.kind === "Class" && (
          <Button onClick={() => setAsking("talk")}>Talk here…</Button>
        )}
        <Button color="inherit" onClick={() => setAsking("bin")}>
          Bin…
        </Button>
      </Box>
      <Problem error={order.error ?? keep.error} />
      {asking === "talk" && (
        <TalkSettings
          classId={w.head.id}
          folderId={folder.id}
          groups={w.groups}
          onClose={() => setAsking(null)}
        />
      )}
      {asking === "change" && (
        <FolderForm
          w={w}
          folder={folder}
          onClose={() => setAsking(null)}
          onChanged={() => changed(`“${folder.name}” is changed.`)}
        />
      )}
      {asking === "make" && <FolderForm w={w} inside={folder} onClose={() => setAsking(null)} />}
      {asking === "give" && <GiveOut workspace={w} folders={[folder]} onClose={() => setAsking(null)} />}
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
        {asking === "bin" && <Along classId={w.head.id} folderId={folder.id} />}
      </Ask>
    </>
  );
}

/** What goes to the bin with a folder, as the server counts it. */
function Along({ classId, folderId }: { classId: number; folderId: number }) {
  const along = useQuery({
    queryKey: ["binning", classId, folderId],
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/folders/{folderId}/binning", {
          params: { path: { classId, folderId } },
        }),
      ),
  });
  const a = along.data;
  if (!a) return <Problem error={along.error} />;
  return (
    <Typography component="div">
      {a.folders > 0 && `${count(a.folders, "folder", "folders")} in it go with it. `}
      {a.unfiled > 0
        ? `${count(a.unfiled, "thing stands", "things stand")} nowhere else: until you bring it back or file them, no student finds them.`
        : a.things > 0
          ? "What stands in it stands elsewhere too."
          : "Nothing stands in it."}{" "}
      It can be brought back.
      {a.assignments.map((t) => (
        <Box key={t}>
          <StateMark mark="attention">“{t}” is published and stands nowhere else</StateMark>
        </Box>
      ))}
    </Typography>
  );
}
