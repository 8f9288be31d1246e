import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useWorkspace } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { DropFiles } from "../../parts/DropFiles";
import { FolderTree } from "../../parts/folders/FolderTree";
import { useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { ThingTable } from "../../parts/ThingTable";
import { useInSight } from "../../parts/useInSight";
import { ruleWords, sayDate } from "../../parts/words";
import { AddLink } from "./AddLink";
import { KeptSlip } from "./KeptSlip";
import { DepartmentSlip } from "./DepartmentSlip";
import { FileAway } from "./FileAway";
import { FolderActs } from "./FolderActs";
import { draftOf, undoable, type Undoable } from "./folderDraft";
import { FolderForm } from "./FolderForm";
import { TalkPlace } from "./Talk/TalkPlace";
import { PageDesk, PageForm } from "./PageDesk";
import { ThingActs } from "./ThingActs";
import { useBringBack, type InBin } from "./bringBack";
import { WorkspaceSlip } from "./WorkspaceSlip";

const keyList: [string, string][] = [
  ["↑ ↓", "go from folder to folder"],
  ["← →", "shut or unfold a folder"],
  ["Home End", "go to the first or the last folder"],
  ["A … Z", "go to a folder by its first letters"],
  ["Enter", "look into the folder"],
  ["Ctrl X, Ctrl V", "take a folder up, put it into another"],
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
  const content = useInSight<HTMLDivElement>(showsUnfiled ? "unfiled" : chosen?.id);
  const [making, setMaking] = useState(false);
  const [binned, setBinned] = useState<Schemas["FolderView"] | null>(null);
  const back = useBringBack(id, () => setBinned(null));
  const [undo, setUndo] = useState<Undoable | null>(null);
  const putBack = useAct(
    (u: Undoable) => u.undo(id, u.folder.id),
    () => setUndo(null),
  );
  const move = useAct(
    ({ folder, into }: { folder: Schemas["FolderView"]; into: Schemas["FolderView"] | null }) =>
      take(
        api.PUT("/api/classes/{classId}/folders/{folderId}", {
          params: { path: { classId: id, folderId: folder.id } },
          body: { ...draftOf(folder), parent: into?.id ?? null },
        }),
      ),
    (_, { folder, into }) => {
      const siblings = w?.folders.filter((f) => f.parent === folder.parent) ?? [];
      setBinned(null);
      setUndo(
        undoable(
          `“${folder.name}” stands ${into ? `in “${into.name}”` : "at the top"}.`,
          folder,
          siblings.findIndex((f) => f.id === folder.id),
        ),
      );
    },
  );
  return (
    <Desk
      title={
        w?.head.kind === "Department"
          ? "Department"
          : w?.head.kind === "Kept"
            ? "Kept copy"
            : w?.head.state === "Archived"
              ? "In the loft"
              : "Set up"
      }
      wide
      lead={w && <ClassBar head={w.head} />}
      slip={
        w &&
        (w.head.kind === "Department" ? (
          <DepartmentSlip workspace={w} />
        ) : w.head.kind === "Kept" ? (
          <KeptSlip workspace={w} />
        ) : (
          <WorkspaceSlip workspace={w} />
        ))
      }
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
                onMove={
                  w.head.state === "Archived" ? undefined : (folder, into) => move.mutate({ folder, into })
                }
              />
            )}
            {w.head.state !== "Archived" && (
              <Box sx={{ mt: 1 }}>
                <Button onClick={() => setMaking(true)}>Make a folder…</Button>
                <Button component="a" href={`/api/classes/${id}/zip`} download>
                  Download all as zip
                </Button>
              </Box>
            )}
            {making && <FolderForm w={w} onClose={() => setMaking(false)} />}
            {undo && (
              <Typography variant="body2" role="status" sx={{ mt: 1 }}>
                {undo.said}{" "}
                <Link component="button" onClick={() => putBack.mutate(undo)}>
                  Undo
                </Link>
              </Typography>
            )}
            {binned && (
              <Typography variant="body2" role="status">
                “{binned.name}” is in the bin.{" "}
                <Link component="button" onClick={() => back.mutate({ kind: "Folder", ...binned })}>
                  Bring it back
                </Link>
              </Typography>
            )}
            <Problem error={back.error ?? putBack.error ?? move.error} />
            {unfiled.length > 0 && (
              <Button onClick={() => choose("unfiled")} sx={{ mt: 1 }}>
                <StateMark mark="attention">{unfiled.length} unfiled</StateMark>
              </Button>
            )}
            <Button component={RouterLink} to={`/classes/${id}/bin`}>
              Look into the bin
            </Button>
          </Box>
          <div ref={content} className="shrinks">
            {showsUnfiled ? (
              <FileAway classId={id} items={unfiled} folders={w.folders} />
            ) : (
              chosen && (
                <FolderView
                  key={chosen.id}
                  workspace={w}
                  folder={chosen}
                  page={Number(address.get("page")) || undefined}
                  onPage={(page) =>
                    setAddress(
                      page === null
                        ? { folder: String(chosen.id) }
                        : { folder: String(chosen.id), page: String(page) },
                    )
                  }
                  onBinned={(f) => {
                    setUndo(null);
                    setBinned(f);
                  }}
                  onChanged={(u) => {
                    setBinned(null);
                    setUndo(u);
                  }}
                />
              )
            )}
          </div>
        </Box>
      )}
    </Desk>
  );
}

function FolderView({
  workspace,
  folder,
  page,
  onPage,
  onBinned,
  onChanged,
}: {
  workspace: Schemas["WorkspaceView"];
  folder: Schemas["FolderView"];
  page?: number;
  onPage: (id: number | null) => void;
  onBinned: (f: Schemas["FolderView"]) => void;
  onChanged: (u: Undoable) => void;
}) {
  const id = workspace.head.id;
  const [adding, setAdding] = useState<"link" | "page" | null>(null);
  const [binned, setBinned] = useState<InBin | null>(null);
  const back = useBringBack(id, () => setBinned(null));
  const items = workspace.items.filter((i) => i.folders.includes(folder.id));
  const assignments = workspace.assignments.filter((a) => a.folders.includes(folder.id));
  const shut = workspace.head.state === "Archived";
  const opened = workspace.items.find((i) => i.id === page);
  if (opened)
    return (
      <PageDesk
        classId={id}
        itemId={opened.id}
        mayChange={opened.mayRename && !shut}
        onBack={() => onPage(null)}
      />
    );
  const list = items.length + assignments.length > 0 && (
    <ThingTable
      classId={id}
      folder={folder.name}
      items={items}
      onPage={onPage}
      acts={shut ? undefined : (i) => <ThingActs workspace={workspace} item={i} onBinned={setBinned} staff />}
      before={assignments.map((a) => (
        <TableRow key={`a${a.id}`}>
          <TableCell>
            <Link
              component={RouterLink}
              to={`/classes/${id}/work?assignment=${a.id}`}
              underline="hover"
              color="text.primary"
            >
              <strong>{a.title}</strong>
            </Link>{" "}
            <span>{a.published ? "" : "(draft)"}</span>
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
    />
  );
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography variant="h2">{folder.name}</Typography>
      <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
        {ruleWords[folder.rule]}
        {folder.ownOf && `, ${folder.ownOf} and staff`}
        {folder.group &&
          `, ${workspace.groups.find((g) => g.id === folder.group)?.name ?? "a group"} and staff`}
        {folder.bent && ", changed since its plan made it"}
      </Typography>
      {!shut && (
        <FolderActs workspace={workspace} folder={folder} onBinned={onBinned} onChanged={onChanged} />
      )}
      <Problem error={back.error} />
      {binned && (
        <Typography role="status" variant="body2" sx={{ mb: 1 }}>
          “{binned.name}” is in the bin. <Button onClick={() => back.mutate(binned)}>Bring it back</Button>
        </Typography>
      )}
      {shut ? (
        list || <Empty title="Nothing was put in here." />
      ) : adding === "page" ? (
        <PageForm
          classId={id}
          folderId={folder.id}
          groups={workspace.groups.length}
          onDone={() => setAdding(null)}
        />
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
          <Box sx={{ display: "flex", gap: 1.5, mt: 1 }}>
            <Button variant="outlined" onClick={() => setAdding("link")}>
              Add a link…
            </Button>
            <Button variant="outlined" onClick={() => setAdding("page")}>
              Write a page…
            </Button>
          </Box>
        </>
      )}
      {folder.talks && (
        <TalkPlace
          key={folder.id}
          classId={id}
          folderId={folder.id}
          groups={workspace.groups}
          staff
          shut={shut}
        />
      )}
      {adding === "link" && <AddLink classId={id} folderId={folder.id} onClose={() => setAdding(null)} />}
    </Box>
  );
}

function countThings(w?: Schemas["WorkspaceView"]): Map<number, number> {
  const counts = new Map<number, number>();
  for (const thing of [...(w?.items ?? []), ...(w?.assignments ?? [])])
    for (const f of thing.folders) counts.set(f, (counts.get(f) ?? 0) + 1);
  return counts;
}
