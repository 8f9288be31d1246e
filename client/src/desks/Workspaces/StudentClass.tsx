import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useMemo, type ReactNode } from "react";
import { useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useSchool, useWorkspace } from "../../api/queries";
import { CourseMark } from "../../parts/CourseMark";
import { Desk, Empty } from "../../parts/Desk";
import { DropFiles, ItemName } from "../../parts/DropFiles";
import { FolderTree } from "../../parts/FolderTree";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, rightWords, sayDay, sayMoment } from "../../parts/words";
import { OwnAssignment } from "../Assignments/OwnAssignment";

/** A class as its student sees it: folders at the left, what stands in them, and one's own work. */
export function StudentClass() {
  const workspace = useWorkspace(Number(useParams().id));
  if (workspace.data) return <ClassAsSeen w={workspace.data} />;
  return (
    <Desk title="Class">
      <Problem error={workspace.error} />
    </Desk>
  );
}

/**
 * A workspace as it is given: one's own, or another's that staff look into.
 * @param seenAs What the slip says of whose eyes these are; then nothing can be changed.
 */
export function ClassAsSeen({ w, seenAs }: { w: Schemas["WorkspaceView"]; seenAs?: ReactNode }) {
  const [address, setAddress] = useSearchParams();
  const choose = (folder: number) =>
    setAddress((a) => {
      a.set("folder", String(folder));
      return a;
    });
  const counts = useMemo(() => {
    const map = new Map<number, number>();
    for (const t of [...w.items, ...w.assignments])
      for (const f of t.folders) map.set(f, (map.get(f) ?? 0) + 1);
    return map;
  }, [w]);
  const chosen =
    w.folders.find((f) => f.id === Number(address.get("folder"))) ?? w.folders.find((f) => f.parent == null);
  return (
    <Desk
      title={w.head.course}
      wide
      lead={
        <Box component="span" sx={{ display: "inline-flex", gap: 1, alignItems: "center" }}>
          <CourseMark mark={w.head.mark} /> {w.head.name} · {w.head.teacherShown}
          {w.head.state === "Archived" && " · archived: you may look"}
        </Box>
      }
      slip={
        <>
          {seenAs}
          <Slip w={w} onFolder={choose} />
        </>
      }
    >
      {w.folders.length === 0 && <Empty title="Nothing to see here.">This class shows you no folder.</Empty>}
      {chosen && (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "1fr", md: "minmax(200px, 280px) minmax(0, 1fr)" },
            gap: 3,
          }}
        >
          <FolderTree
            folders={w.folders}
            counts={counts}
            chosen={chosen.id}
            onChoose={choose}
            staff={false}
          />
          <FolderContent
            key={chosen.id}
            w={w}
            folder={chosen}
            shut={seenAs !== undefined || w.head.state !== "Open"}
          />
        </Box>
      )}
    </Desk>
  );
}

function Slip({ w, onFolder }: { w: Schemas["WorkspaceView"]; onFolder: (id: number) => void }) {
  const today = useSchool().data?.today;
  const waiting = w.assignments.filter((a) => !a.own || a.own.state === "Working");
  return (
    <>
      {w.head.state === "Open" && w.assignments.length > 0 && (
        <>
          <Typography variant="h2">
            {waiting.length === 0
              ? "Nothing to hand in"
              : `${count(waiting.length, "piece", "pieces")} to hand in`}
          </Typography>
          {waiting.map((a) => (
            <Typography key={a.id} variant="body2" component="div">
              <Link component="button" onClick={() => a.folders[0] !== undefined && onFolder(a.folders[0])}>
                {a.title}
              </Link>
              {a.dueOn &&
                (today && a.dueOn < today ? (
                  <Box>
                    <StateMark mark="attention">was due {sayDay(a.dueOn)}</StateMark>
                  </Box>
                ) : (
                  `, due ${sayDay(a.dueOn)}`
                ))}
            </Typography>
          ))}
        </>
      )}
      {w.takeHomeReady && (
        <Typography>
          <a href={`/api/classes/${w.head.id}/take-home`} download>
            Download all your work of this class
          </a>
        </Typography>
      )}
      <Typography variant="h2">Notices</Typography>
      {w.notices.length === 0 && <Typography sx={{ color: "text.secondary" }}>None yet.</Typography>}
      {w.notices.map((n) => (
        <Typography key={n.postedAt + n.text} variant="body2">
          {n.text}
          <br />
          <Typography component="span" variant="caption" sx={{ color: "text.secondary" }}>
            {n.author}, {sayMoment(n.postedAt)}
          </Typography>
        </Typography>
      ))}
    </>
  );
}

function FolderContent({
  w,
  folder,
  shut,
}: {
  w: Schemas["WorkspaceView"];
  folder: Schemas["FolderView"];
  shut: boolean;
}) {
  const items = w.items.filter((i) => i.folders.includes(folder.id));
  // What is still to be done stands first, what came back last.
  const order = { Working: 0, HandedIn: 1, Returned: 2 };
  const assignments = w.assignments
    .filter((a) => a.folders.includes(folder.id))
    .sort((a, b) => order[a.own?.state ?? "Working"] - order[b.own?.state ?? "Working"]);
  const mayAdd = !shut && (folder.right === "Add" || folder.right === "Edit");
  const list = items.length > 0 && (
    <Table aria-label={`In ${folder.name}`}>
      <TableBody>
        {items.map((i) => (
          <TableRow key={i.id}>
            <TableCell>
              <ItemName item={i} classId={w.head.id} />
            </TableCell>
            <TableCell sx={{ color: "text.secondary" }}>{i.addedBy}</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography variant="h2">{folder.name}</Typography>
      <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
        {folder.mine ? "Your own folder: you and staff see it." : rightWords[folder.right]}
      </Typography>
      {assignments.map((a) => (
        <OwnAssignment key={a.id} classId={w.head.id} assignment={a} shut={shut} />
      ))}
      {mayAdd ? (
        <DropFiles to={`/api/classes/${w.head.id}/folders/${folder.id}/files`} label="Add files…">
          {list ||
            (assignments.length === 0 && <Empty title="Nothing in here yet.">You may add files here.</Empty>)}
        </DropFiles>
      ) : (
        list ||
        (assignments.length === 0 && (
          <Empty title="Nothing in here yet.">Your teacher puts things here.</Empty>
        ))
      )}
    </Box>
  );
}
