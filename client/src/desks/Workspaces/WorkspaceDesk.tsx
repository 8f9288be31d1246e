import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useWorkspace } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { DropFiles, ItemName } from "../../parts/DropFiles";
import { FolderTree } from "../../parts/FolderTree";
import { useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { ruleWords, sayDate } from "../../parts/words";
import { AddLink } from "./AddLink";
import { FileAway } from "./FileAway";
import { FolderActs, FolderForm } from "./FolderActs";
import { WorkspaceSlip } from "./WorkspaceSlip";

const keyList: [string, string][] = [
  ["↑ ↓", "go from folder to folder"],
  ["← →", "shut or unfold a folder"],
  ["Enter", "look into the folder"],
];

/** The set-up desk of a class: its folders, what stands in them, and the step of opening. */
export function WorkspaceDesk() {
  const id = Number(useParams().id);
  const workspace = useWorkspace(id);
  const [address, setAddress] = useSearchParams();
  useKeyList(keyList);
  const w = workspace.data;
  const unfiled = useMemo(() => w?.items.filter((i) => i.folders.length === 0) ?? [], [w]);
  const counts = useMemo(() => countThings(w), [w]);
  const showsUnfiled = address.get("folder") === "unfiled";
  const chosen =
    w?.folders.find((f) => f.id === Number(address.get("folder"))) ??
    w?.folders.find((f) => f.parent == null);
  const choose = (folder: string) => setAddress({ folder });
  const [making, setMaking] = useState(false);
  const [binned, setBinned] = useState<Schemas["FolderView"] | null>(null);
  const back = useAct(
    (folderId: number) =>
      take(
        api.POST("/api/classes/{classId}/folders/{folderId}/bring-back", {
          params: { path: { classId: id, folderId } },
        }),
      ),
    () => setBinned(null),
  );
  return (
    <Desk
      title="Set up"
      wide
      lead={w && <ClassBar head={w.head} />}
      slip={w && <WorkspaceSlip workspace={w} />}
    >
      <Problem error={workspace.error} />
      {w && (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "1fr", md: "minmax(220px, 330px) minmax(0, 1fr)" },
            gap: 3,
          }}
        >
          <Box sx={{ minWidth: 0 }}>
            {w.folders.length === 0 ? (
              <Empty title="No folder yet.">This class was made without a folder plan.</Empty>
            ) : (
              <FolderTree
                folders={w.folders}
                counts={counts}
                chosen={showsUnfiled ? undefined : chosen?.id}
                onChoose={(f) => choose(String(f))}
                staff
              />
            )}
            {w.head.state !== "Archived" && (
              <Button onClick={() => setMaking(true)} sx={{ mt: 1 }}>
                Make a folder…
              </Button>
            )}
            {making && <FolderForm w={w} onClose={() => setMaking(false)} />}
            {binned && (
              <Typography variant="body2" role="status">
                “{binned.name}” is in the bin.{" "}
                <Link component="button" onClick={() => back.mutate(binned.id)}>
                  Bring it back
                </Link>
              </Typography>
            )}
            <Problem error={back.error} />
            {unfiled.length > 0 && (
              <Button onClick={() => choose("unfiled")} sx={{ mt: 1 }}>
                <StateMark mark="attention">{unfiled.length} unfiled</StateMark>
              </Button>
            )}
          </Box>
          {showsUnfiled ? (
            <FileAway classId={id} items={unfiled} folders={w.folders} />
          ) : (
            chosen && <FolderView key={chosen.id} workspace={w} folder={chosen} onBinned={setBinned} />
          )}
        </Box>
      )}
    </Desk>
  );
}

function FolderView({
  workspace,
  folder,
  onBinned,
}: {
  workspace: Schemas["WorkspaceView"];
  folder: Schemas["FolderView"];
  onBinned: (f: Schemas["FolderView"]) => void;
}) {
  const id = workspace.head.id;
  const [linking, setLinking] = useState(false);
  const [binned, setBinned] = useState<{ id: number; name: string } | null>(null);
  const bin = useAct(
    (item: { id: number; name: string }) =>
      take(
        api.DELETE("/api/classes/{classId}/items/{itemId}", {
          params: { path: { classId: id, itemId: item.id } },
        }),
      ),
    (_, item) => setBinned(item),
  );
  const back = useAct(
    (item: { id: number }) =>
      take(
        api.POST("/api/classes/{classId}/items/{itemId}/bring-back", {
          params: { path: { classId: id, itemId: item.id } },
        }),
      ),
    () => setBinned(null),
  );
  const items = workspace.items.filter((i) => i.folders.includes(folder.id));
  const assignments = workspace.assignments.filter((a) => a.folders.includes(folder.id));
  const shut = workspace.head.state === "Archived";
  const list = items.length + assignments.length > 0 && (
    <Table aria-label={`In ${folder.name}`}>
      <TableBody>
        {assignments.map((a) => (
          <TableRow key={`a${a.id}`}>
            <TableCell>
              <strong>{a.title}</strong> <span>{a.published ? "" : "(draft)"}</span>
            </TableCell>
            <TableCell sx={{ color: "text.secondary" }}>
              assignment{a.folders.length > 1 ? `, in ${a.folders.length} folders` : ""}
            </TableCell>
            <TableCell sx={{ color: "text.secondary" }}>
              {a.dueOn ? `due ${sayDate(a.dueOn)}` : "no date"}
            </TableCell>
            <TableCell />
          </TableRow>
        ))}
        {items.map((i) => (
          <TableRow key={i.id}>
            <TableCell>
              <ItemName item={i} classId={id} />
            </TableCell>
            <TableCell sx={{ color: "text.secondary" }}>{i.kind === "Link" ? "link" : "file"}</TableCell>
            <TableCell sx={{ color: "text.secondary" }}>{i.addedBy}</TableCell>
            <TableCell align="right">
              {i.mayRemove && !shut && (
                <Button
                  onClick={() => bin.mutate(i)}
                  disabled={bin.isPending}
                  aria-label={`Bin ${i.name}`}
                  color="inherit"
                >
                  Bin
                </Button>
              )}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography variant="h2">{folder.name}</Typography>
      <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
        {ruleWords[folder.rule]}
        {folder.ownOf && `, ${folder.ownOf} and staff`}
        {folder.bent && ", changed since its plan made it"}
      </Typography>
      {!shut && <FolderActs workspace={workspace} folder={folder} onBinned={onBinned} />}
      <Problem error={bin.error ?? back.error} />
      {binned && (
        <Typography role="status" variant="body2" sx={{ mb: 1 }}>
          “{binned.name}” is in the bin. <Button onClick={() => back.mutate(binned)}>Bring it back</Button>
        </Typography>
      )}
      {shut ? (
        list || <Empty title="Nothing was put in here." />
      ) : (
        <>
          <DropFiles
            to={`/api/classes/${id}/folders/${folder.id}/files`}
            label="Add files…"
            tree={{ classId: id, folderId: folder.id }}
          >
            {list || (
              <Empty title="Nothing in here yet.">Drop the papers that belong here, several at once.</Empty>
            )}
          </DropFiles>
          <Button variant="outlined" onClick={() => setLinking(true)} sx={{ mt: 1 }}>
            Add a link…
          </Button>
        </>
      )}
      {linking && <AddLink classId={id} folderId={folder.id} onClose={() => setLinking(false)} />}
    </Box>
  );
}

function countThings(w?: Schemas["WorkspaceView"]): Map<number, number> {
  const counts = new Map<number, number>();
  for (const thing of [...(w?.items ?? []), ...(w?.assignments ?? [])])
    for (const f of thing.folders) counts.set(f, (counts.get(f) ?? 0) + 1);
  return counts;
}
