import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, take } from "../../../api/client";
import { useHead } from "../../../api/queries";
import { useAct } from "../../../api/useAct";
import { ClassBar } from "../../../parts/ClassBar";
import { Desk, Empty } from "../../../parts/Desk";
import { Problem } from "../../../parts/Problem";
import { saveFile } from "../../../parts/saveFile";
import { StateMark } from "../../../parts/StateMark";
import { count } from "../../../parts/words";
import { useTyped } from "../../../parts/typed";
import { FolderTicks } from "./FolderTicks";
import { LanguagePart } from "./LanguagePart";
import { ShelfExamples } from "./ShelfExamples";
import { ShelfTable } from "./ShelfTable";
import { ShelfThings } from "./ShelfThings";

/** The open shelf of a class: what goes on it, under which names, until when; and the showcase of the same things. */
export function ShelfDesk() {
  const id = Number(useParams().id);
  const path = { params: { path: { classId: id } } };
  const head = useHead(id);
  const desk = useQuery({
    queryKey: ["shelf", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/shelves", path)),
  });
  const [titleTyped, setTitle] = useState<string>();
  const [text, setText] = useState("");
  const [untilTyped, setUntil] = useState<string>();
  const [language, setLanguage] = useState("en");
  const [folders, setFolders] = useState<ReadonlySet<number>>(new Set());
  const [examples, setExamples] = useState<ReadonlySet<number>>(new Set());
  const [named, setNamed] = useState<ReadonlySet<string>>(new Set());
  useTyped(titleTyped !== undefined || text !== "" || folders.size + examples.size > 0);
  const d = desk.data;
  const title = titleTyped ?? head.data?.name ?? "";
  const until = untilTyped ?? d?.suggested ?? "";
  const draft = {
    title,
    text,
    until,
    folders: [...folders],
    examples: [...examples],
    named: [...named],
    language,
  };
  const some = folders.size + examples.size > 0;
  const preview = useQuery({
    queryKey: ["shelf-preview", id, draft],
    enabled: some && !!until,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/classes/{classId}/shelves/preview", { ...path, body: draft })),
  });
  const set = useAct(
    (_: void, headers) => take(api.POST("/api/classes/{classId}/shelves", { ...path, body: draft, headers })),
    () => {
      setFolders(new Set());
      setExamples(new Set());
      setNamed(new Set());
    },
  );
  const showcase = useAct(async (_v: void, headers) => {
    const zip = await take(
      api.POST("/api/classes/{classId}/shelves/showcase", { ...path, body: draft, headers, parseAs: "blob" }),
    );
    saveFile(zip, `${title || "showcase"}.zip`);
  });
  const may = head.data?.may.includes("CloseClass") ?? false;
  const archived = head.data?.state === "Archived";
  const shown = some ? (preview.data ?? []) : [];
  const going = shown.filter((t) => !t.out);
  const unread = going.filter((t) => t.unread !== null).length;
  const flip = <T,>(of: ReadonlySet<T>, v: T) => {
    const next = new Set(of);
    if (!next.delete(v)) next.add(v);
    return next;
  };
  return (
    <Desk
      title="Open shelf"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        <>
          <Typography variant="h2">
            {going.length === 0 ? "Nothing chosen" : count(going.length, "thing", "things")}
          </Typography>
          <TextField label="Title" value={title} onChange={(e) => setTitle(e.target.value)} />
          <TextField
            label="Text on the cover page"
            value={text}
            onChange={(e) => setText(e.target.value)}
            multiline
            minRows={2}
          />
          <TextField
            label="Open until"
            type="date"
            value={until}
            onChange={(e) => setUntil(e.target.value)}
            slotProps={{ inputLabel: { shrink: true } }}
          />
          <LanguagePart languages={d?.languages ?? []} value={language} set={setLanguage} />
          {unread > 0 && (
            <StateMark mark="attention" wrap>
              {`${count(unread, "thing was", "things were")} not searched for names. Look at ${unread === 1 ? "it" : "them"} before the shelf opens.`}
            </StateMark>
          )}
          {archived && (
            <StateMark mark="blocked" wrap>
              The class is archived: no new shelf is opened from it. One that stands can be put off or shut;
              to open another, restore the class first.
            </StateMark>
          )}
          <Button
            variant="contained"
            disabled={!may || archived || going.length === 0 || set.isPending}
            onClick={() => set.mutate()}
          >
            Open the shelf
          </Button>
          <Button
            variant="outlined"
            disabled={going.length === 0 || showcase.isPending}
            onClick={() => showcase.mutate()}
          >
            Download it as a showcase
          </Button>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            Whoever has the address can read it, without an account, until that day. It holds copies as they
            are now. Names of students stay off unless you tick them one by one: they are looked for in what
            things are called and in the words of pages, texts, PDFs and office files.
          </Typography>
          <Problem error={set.error ?? showcase.error} />
        </>
      }
    >
      <Problem error={head.error ?? desk.error ?? preview.error} />
      {d && d.shelves.length > 0 && <ShelfTable classId={id} desk={d} may={may} />}
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr", md: "minmax(0,5fr) minmax(0,6fr)" },
          gap: 3,
        }}
      >
        <Box>
          <Typography variant="h2">Folders</Typography>
          {d && d.folders.length > 0 && (
            <Button
              onClick={() =>
                setFolders(
                  folders.size > 0
                    ? new Set()
                    : new Set(d.folders.filter((f) => f.parent == null && !f.staffOnly).map((f) => f.id)),
                )
              }
            >
              {folders.size > 0 ? "None of them" : "The whole class"}
            </Button>
          )}
          {d && (
            <FolderTicks folders={d.folders} ticked={folders} flip={(f) => setFolders(flip(folders, f))} />
          )}
          <Typography variant="h2" sx={{ mt: 2 }}>
            Examples of work
          </Typography>
          {d && <ShelfExamples examples={d.examples} ticked={examples} set={setExamples} />}
        </Box>
        <Box
          sx={{
            position: { md: "sticky" },
            top: "var(--under-the-bar)",
            alignSelf: "start",
            maxHeight: { md: "calc(100vh - var(--bar) - 24px)" },
            overflow: "auto",
          }}
          tabIndex={0}
          role="group"
          aria-label="As it will stand there"
        >
          <Typography variant="h2">As it will stand there</Typography>
          {shown.length === 0 ? (
            <Empty title="Choose folders or examples.">
              Own folders of students and folders of groups never go on a shelf.
            </Empty>
          ) : (
            <ShelfThings classId={id} things={shown} named={named} flip={(k) => setNamed(flip(named, k))} />
          )}
        </Box>
      </Box>
    </Desk>
  );
}
