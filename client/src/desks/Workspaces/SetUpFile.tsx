import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, sendFile, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { saveText } from "../../parts/copy";
import { FileButton } from "../../parts/FileButton";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count } from "../../parts/words";

/** What was chosen: a structure, which is read here, or a cartridge, which the server reads. */
type Chosen = { structure: Schemas["StructureFile"] } | { cartridge: File };

interface At {
  classId: number;
  name: string;
}

/** What either of them does. */
interface Taken {
  folders: number;
  things: number;
  assignments: number;
  groups: number;
  there: number;
  forStaff: string[];
  left: { name: string; why: string }[];
}

/** The set-up of a class as a file. From one that is archived it can only be taken along; into any other it can come too. */
export function SetUpFile({ shut, ...at }: At & { shut: boolean; onClose: () => void }) {
  return shut ? (
    <Ask open looks title="The set-up as a file" act="Close" onAct={at.onClose} onClose={at.onClose}>
      <Downloads {...at} />
      <Typography>Neither holds people, work or dates. Nothing comes into an archived class.</Typography>
    </Ask>
  ) : (
    <TakeIn {...at} />
  );
}

// Both kinds of file, each with what it carries.
function Downloads({ classId, name }: At) {
  const fetch = useAct(
    async (_: void, headers) =>
      take(api.GET("/api/classes/{classId}/structure", { params: { path: { classId } }, headers })),
    (out) => saveText(`${name}, structure.json`, JSON.stringify(out, null, 2), "application/json"),
  );
  return (
    <>
      <Typography>
        <strong>Common Cartridge 1.3</strong>, for other programs: folders, files, pages, links, assignments
        with instructions, points and what is attached. Criteria, groups, dates and who may do what stay
        behind; what only staff see is marked as theirs.
      </Typography>
      <Button
        component="a"
        variant="outlined"
        href={`/api/classes/${classId}/cartridge`}
        download
        sx={{ my: 1 }}
      >
        Download a cartridge
      </Button>
      <Typography>
        <strong>Structure file</strong>, for this program: folders with who may do what, links, pages,
        assignments as drafts, groups by name. No files.
      </Typography>
      <Button variant="outlined" sx={{ my: 1 }} onClick={() => fetch.mutate()}>
        Download a structure file
      </Button>
      <Problem error={fetch.error} />
    </>
  );
}

// Downloaded, or taken in from one after saying what it will make.
function TakeIn({ classId, name, onClose }: At & { onClose: () => void }) {
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [unreadable, setUnreadable] = useState<string | null>(null);
  const path = { path: { classId } };
  const send = async (
    what: Chosen,
    apply: boolean,
    headers?: { "Idempotency-Key": string },
  ): Promise<Taken> => {
    if ("cartridge" in what) {
      const address = `/api/classes/${classId}/cartridge?apply=${apply}`;
      const read = await sendFile<Schemas["CartridgeTaken"]>(address, what.cartridge, () => undefined);
      return { ...read, groups: 0 };
    }
    const params = { ...path, query: { apply } };
    const read = await take(
      api.POST("/api/classes/{classId}/structure", { params, body: what.structure, headers }),
    );
    return { ...read, forStaff: [], left: [] };
  };
  const preview = useAct<Chosen, Taken>((what) => send(what, false));
  const act = useAct<void, Taken>((_, headers) => send(chosen!, true, headers));
  const choose = async (file: File) => {
    act.reset();
    preview.reset();
    setChosen(null);
    setUnreadable(null);
    let what: Chosen = { cartridge: file };
    if (/\.json$/i.test(file.name)) {
      try {
        what = { structure: JSON.parse(await file.text()) as Schemas["StructureFile"] };
      } catch {
        setUnreadable(
          `“${file.name}” is no JSON that can be read. Download it again from where it was made.`,
        );
        return;
      }
    }
    setChosen(what);
    preview.mutate(what);
  };
  const p = act.data ?? preview.data;
  return (
    <Ask
      open
      title="The set-up as a file"
      act={act.isSuccess ? "Close" : "Take it into this class"}
      disabled={!act.isSuccess && (!preview.data || preview.isPending)}
      busy={act.isPending}
      error={act.error}
      onAct={() => (act.isSuccess ? onClose() : act.mutate())}
      onClose={onClose}
    >
      <Downloads classId={classId} name={name} />
      <Typography sx={{ mb: 1 }}>
        Neither holds people, work or dates. Taken in, what is missing is made and what stands here stays as
        it is.
      </Typography>
      <FileButton
        accept=".imscc,.zip,.json,application/json,application/zip"
        onFiles={([file]) => void (file && choose(file))}
      >
        Choose a cartridge or a structure file…
      </FileButton>
      {unreadable && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {unreadable}
        </Typography>
      )}
      <Problem error={preview.error} />
      {preview.isPending && <Typography role="status">Being read…</Typography>}
      {p && (
        <>
          <Typography role="status" sx={{ mt: 1 }}>
            <StateMark mark={act.isSuccess ? "done" : "underway"}>
              {act.isSuccess ? "made:" : "will make:"}
            </StateMark>{" "}
            {count(p.folders, "folder", "folders")}, {count(p.things, "thing", "things")},{" "}
            {count(p.assignments, "draft", "drafts")}, {count(p.groups, "group", "groups")}. {p.there} stand
            here already and are left as they are.
          </Typography>
          {p.forStaff.length > 0 && <Typography>Only staff see: {p.forStaff.join("; ")}.</Typography>}
          {p.left.length > 0 && (
            <PlainTable
              label="What can't be taken in"
              heading="What can’t be taken in"
              rows={p.left}
              id={(l, at) => `${l.name} ${at}`}
              columns={[
                { head: "What", cell: (l) => l.name },
                { head: "Why", cell: (l) => l.why },
              ]}
            />
          )}
        </>
      )}
    </Ask>
  );
}
