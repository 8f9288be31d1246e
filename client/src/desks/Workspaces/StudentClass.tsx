import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useEffect, useMemo, useState, type ReactNode } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, ProblemError, type Schemas } from "../../api/client";
import { useBinSpan, useWorkspace } from "../../api/queries";
import { Acknowledge } from "../../parts/Acknowledge";
import { CourseMark } from "../../parts/CourseMark";
import { Desk, Empty } from "../../parts/Desk";
import { sayDue } from "../../parts/due";
import { NoticeWords } from "../../parts/NoticeWords";
import { DropFiles } from "../../parts/DropFiles";
import { useInSight } from "../../parts/useInSight";
import { useYearOf } from "../../parts/yearShown";
import { FolderTree } from "../../parts/folders/FolderTree";
import { later } from "../../parts/later";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { ThingTable } from "../../parts/ThingTable";
import { Written } from "../../parts/Written";
import { count, rightWords } from "../../parts/words";
import { OwnAssignment } from "../Assignments/Own/OwnAssignment";
import { CameBack } from "./CameBack";
import { useBringBack, type InBin } from "./bringBack";
import { LeftClass } from "./LeftClass";
import { PageDesk, PageForm } from "./PageDesk";
import { ThingActs } from "./ThingActs";
import { UsedThings } from "./ThingsUsed";

const MakeInside = later(() => import("./MakeInside"), "MakeInside");
const ToAcknowledge = later(() => import("./Acknowledged/ToAcknowledge"), "ToAcknowledge");
const TalkPlace = later(() => import("./Talk/TalkPlace"), "TalkPlace");

/** A class as its student sees it: folders at the left, what stands in them, and one's own work. */
export function StudentClass() {
  const id = Number(useParams().id);
  const workspace = useWorkspace(id);
  const newest = workspace.data?.notices[0]?.id;
  // Whoever told something sees who has had it in view; where this does not get there, it is told at the next look.
  useEffect(() => {
    if (newest === undefined) return;
    api
      .POST("/api/classes/{classId}/notices/seen", { params: { path: { classId: id } } })
      .catch(() => undefined);
  }, [id, newest]);
  if (workspace.data) return <ClassAsSeen w={workspace.data} />;
  // Who has left still sees what was returned to them.
  if (workspace.error instanceof ProblemError && workspace.error.status === 403) return <LeftClass id={id} />;
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
  useYearOf(w.head.year);
  const choose = (folder: number) =>
    setAddress((a) => {
      a.set("folder", String(folder));
      a.delete("page");
      a.delete("show");
      return a;
    });
  const counts = useMemo(() => {
    const map = new Map<number, number>();
    for (const t of [...w.items, ...w.assignments])
      for (const f of t.folders) map.set(f, (map.get(f) ?? 0) + 1);
    return map;
  }, [w]);
  const back = address.get("show") === "back";
  const showBack = () => setAddress({ show: "back" });
  const viewsOnly = w.head.state === "Open" && w.head.posts === false;
  const chosen =
    w.folders.find((f) => f.id === Number(address.get("folder"))) ?? w.folders.find((f) => f.parent == null);
  const content = useInSight<HTMLDivElement>(chosen?.id);
  const shut = seenAs !== undefined || w.head.state !== "Open" || viewsOnly;
  const showPage = (page: number | null) =>
    setAddress((a) => {
      if (page === null) a.delete("page");
      else a.set("page", String(page));
      return a;
    });
  return (
    <Desk
      title={w.head.course}
      wide
      lead={
        <Box component="span" sx={{ display: "inline-flex", gap: 1, alignItems: "center" }}>
          <CourseMark mark={w.head.mark} /> {w.head.name} · {w.head.teacherShown}
          {w.head.state === "Archived" &&
            (w.head.afterArchive === "View"
              ? " · archived: you may look"
              : " · archived, closed to students")}
          {viewsOnly && " · you may look here, not post"}
        </Box>
      }
      slip={
        <>
          {seenAs}
          <Slip w={w} onFolder={choose} onBack={back ? undefined : showBack} />
        </>
      }
    >
      {w.welcome !== "" && (
        <Box
          component="section"
          aria-label="Welcome note"
          sx={{ borderTop: 1, borderBottom: 1, borderColor: "divider", py: 1.5, mb: 2 }}
        >
          <Written text={w.welcome} />
        </Box>
      )}
      {[...w.items, ...w.notices].some((t) => t.asked) && (
        <ToAcknowledge w={w} shut={seenAs !== undefined || w.head.state !== "Open"} onPage={showPage} />
      )}
      {w.folders.length === 0 && <Empty title="Nothing to see here.">This class shows you no folder.</Empty>}
      {back && (
        <>
          <Typography variant="h2" sx={{ mb: 1 }}>
            What came back
          </Typography>
          <CameBack assignments={w.assignments} onFolder={choose} />
          <Link component="button" className="alone" sx={{ mt: 2 }} onClick={() => setAddress({})}>
            Back to the folders
          </Link>
        </>
      )}
      {chosen && !back && (
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
          <div ref={content} className="shrinks">
            <FolderContent
              key={chosen.id}
              w={w}
              folder={chosen}
              page={Number(address.get("page")) || undefined}
              onPage={showPage}
              seenAs={seenAs !== undefined}
              shut={shut}
            />
          </div>
        </Box>
      )}
    </Desk>
  );
}

function Slip({
  w,
  onFolder,
  onBack,
}: {
  w: Schemas["WorkspaceView"];
  onFolder: (id: number) => void;
  /** Leads to what came back; undefined where that is in view. */
  onBack?: () => void;
}) {
  const came = w.assignments.filter((a) => a.own?.returnedAt).length;
  const waiting = w.assignments.filter(
    (a) => a.dueState !== "Closed" && (!a.own || a.own.state === "Working"),
  );
  return (
    <>
      {w.head.state === "Open" && w.head.posts === false && (
        <Typography>
          Your teacher has set that you look at this class and do not post. What you have begun stays yours.
          Ask your teacher if you think that is a mistake.
        </Typography>
      )}
      {w.head.state === "Open" &&
        w.head.posts !== false &&
        w.head.standing === "Student" &&
        w.assignments.length > 0 && (
          <>
            <Typography variant="h2">
              {waiting.length === 0
                ? "Nothing to hand in"
                : `${count(waiting.length, "piece", "pieces")} to hand in`}
            </Typography>
            {waiting.map((a) => (
              <Typography key={a.id} variant="body2" component="div">
                <Link
                  component="button"
                  className="alone"
                  onClick={() => a.folders[0] !== undefined && onFolder(a.folders[0])}
                >
                  {a.title}
                </Link>
                {a.dueOn &&
                  (a.dueState === "Late" ? (
                    <Box>
                      <StateMark mark="attention">was {sayDue(a)}</StateMark>
                    </Box>
                  ) : (
                    `, ${sayDue(a)}`
                  ))}
              </Typography>
            ))}
          </>
        )}
      {came > 0 && onBack && (
        <Typography component="div">
          <Link component="button" className="alone" onClick={onBack}>
            Came back: {came}
          </Link>
        </Typography>
      )}
      {w.takeHomeReady && (
        <Typography>
          <a href={`/api/classes/${w.head.id}/take-home`} download>
            Download all your work of this class
          </a>
        </Typography>
      )}
      {w.calendar && (
        <Typography variant="body2">
          <a href={w.calendar}>Class calendar</a>, for a calendar program
        </Typography>
      )}
      {w.uses.length > 0 && (
        <>
          <Typography variant="h2">This class uses</Typography>
          <UsedThings things={w.uses} />
        </>
      )}
      {w.head.standing === "Student" && (
        <Typography variant="body2">
          <Link component={RouterLink} to={`/classes/${w.head.id}/bin`}>
            Bin
          </Link>
          , what was binned of yours
        </Typography>
      )}
      {w.head.standing === "Student" && w.activityDays != null && (
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          Your teachers see on which school days you opened, wrote or handed in something here. It is kept for{" "}
          {w.activityDays} days.
        </Typography>
      )}
      <Typography variant="h2">Notices</Typography>
      {w.notices.length === 0 && <Typography sx={{ color: "text.secondary" }}>None yet.</Typography>}
      {w.notices.map((n) => (
        <NoticeWords key={n.id} notice={n} />
      ))}
    </>
  );
}

function FolderContent({
  w,
  folder,
  page,
  onPage,
  shut,
  seenAs,
}: {
  w: Schemas["WorkspaceView"];
  folder: Schemas["FolderView"];
  page?: number;
  onPage: (id: number | null) => void;
  shut: boolean;
  /** Looked at by staff, who would read what is hidden from students. */
  seenAs: boolean;
}) {
  const span = useBinSpan();
  const [binned, setBinned] = useState<InBin | null>(null);
  const back = useBringBack(w.head.id, () => setBinned(null));
  const [writing, setWriting] = useState(false);
  const [making, setMaking] = useState(false);
  const items = w.items.filter((i) => i.folders.includes(folder.id));
  // What is still to be done stands first, what came back last.
  const order = { Working: 0, HandedIn: 1, Returned: 2 };
  const assignments = w.assignments
    .filter((a) => a.folders.includes(folder.id))
    .sort((a, b) => order[a.own?.state ?? "Working"] - order[b.own?.state ?? "Working"]);
  const mayAdd = !shut && (folder.right === "Add" || folder.right === "Edit");
  const opened = w.items.find((i) => i.id === page);
  if (opened)
    return (
      <>
        <PageDesk
          classId={w.head.id}
          itemId={opened.id}
          mayChange={opened.mayRename && !shut}
          onBack={() => onPage(null)}
        />
        {opened.asked && (
          <Acknowledge
            classId={w.head.id}
            asked={opened.asked}
            title={opened.name}
            shut={seenAs || w.head.state !== "Open"}
          />
        )}
      </>
    );
  const list = items.length > 0 && (
    <ThingTable
      classId={w.head.id}
      folder={folder.name}
      items={items}
      onPage={onPage}
      acts={shut ? undefined : (i) => <ThingActs workspace={w} item={i} onBinned={setBinned} staff={false} />}
    />
  );
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography variant="h2">{folder.name}</Typography>
      <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
        {folder.mine
          ? "Your own folder: you and staff see it."
          : folder.rule === "OnePerGroup"
            ? `Your group's folder: ${rightWords[folder.right]}.`
            : rightWords[folder.right]}
        {items.length > 0 && (
          <>
            {" · "}
            <a href={`/api/classes/${w.head.id}/folders/${folder.id}/zip`} download>
              Download it as zip
            </a>
          </>
        )}
      </Typography>
      {binned && (
        <Typography role="status" variant="body2">
          “{binned.name}” is in the{" "}
          <Link component={RouterLink} to={`/classes/${w.head.id}/bin`}>
            bin
          </Link>{" "}
          for {span}. <Button onClick={() => back.mutate(binned)}>Bring it back</Button>
        </Typography>
      )}
      <Problem error={back.error} />
      {assignments.map((a) => (
        <OwnAssignment key={a.id} classId={w.head.id} assignment={a} shut={shut} />
      ))}
      {mayAdd && writing ? (
        <PageForm classId={w.head.id} folderId={folder.id} onDone={() => setWriting(false)} />
      ) : mayAdd ? (
        <>
          <DropFiles to={`/api/classes/${w.head.id}/folders/${folder.id}/files`} label="Add files…">
            {list ||
              (assignments.length === 0 && !folder.talks && (
                <Empty title="Nothing in here yet.">You may add files here.</Empty>
              ))}
          </DropFiles>
          <Button variant="outlined" sx={{ mt: 1 }} onClick={() => setWriting(true)}>
            Write a page…
          </Button>
          {folder.right === "Edit" && (
            <Button variant="outlined" sx={{ mt: 1, ml: 1.5 }} onClick={() => setMaking(true)}>
              Make a folder…
            </Button>
          )}
          {making && (
            <MakeInside
              classId={w.head.id}
              folderId={folder.id}
              folder={folder.name}
              onClose={() => setMaking(false)}
            />
          )}
        </>
      ) : (
        list ||
        (assignments.length === 0 && !folder.talks && (
          <Empty title="Nothing in here yet.">Your teacher puts things here.</Empty>
        ))
      )}
      {folder.talks && seenAs && (
        <Typography variant="body2">
          A place to talk: what is written in it stands on the set-up desk.
        </Typography>
      )}
      {folder.talks && !seenAs && (
        <TalkPlace
          key={folder.id}
          classId={w.head.id}
          folderId={folder.id}
          groups={[]}
          staff={false}
          shut={shut}
        />
      )}
    </Box>
  );
}
