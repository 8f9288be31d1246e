import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useHead, useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { saveFile } from "../../parts/saveFile";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayDate } from "../../parts/words";
import { useTyped } from "../../parts/typed";

/** The open shelf of a class: what goes on it, under which names, until when; and the showcase of the same things. */
export function ShelfDesk() {
  const id = Number(useParams().id);
  const path = { params: { path: { classId: id } } };
  const head = useHead(id);
  const school = useSchool();
  const desk = useQuery({
    queryKey: ["shelf", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/shelves", path)),
  });
  const [titleTyped, setTitle] = useState<string>();
  const [text, setText] = useState("");
  const [untilTyped, setUntil] = useState<string>();
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
  const shut = useAct((shelfId: number, headers) =>
    take(
      api.DELETE("/api/classes/{classId}/shelves/{shelfId}", {
        params: { path: { classId: id, shelfId } },
        headers,
      }),
    ),
  );
  const showcase = useAct(async (_v: void, headers) => {
    const zip = await take(
      api.POST("/api/classes/{classId}/shelves/showcase", { ...path, body: draft, headers, parseAs: "blob" }),
    );
    saveFile(zip, `${title || "showcase"}.zip`);
  });
  const may = head.data?.may.includes("CloseClass") ?? false;
  const shown = some ? (preview.data ?? []) : [];
  const going = shown.filter((t) => !t.out);
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
          <Button
            variant="contained"
            disabled={!may || going.length === 0 || set.isPending}
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
            are now. Names of students stay off unless you tick them one by one.
          </Typography>
          <Problem error={set.error ?? showcase.error ?? shut.error} />
        </>
      }
    >
      <Problem error={head.error ?? desk.error ?? preview.error} />
      {d && d.shelves.length > 0 && (
        <PlainTable
          label="Shelves of this class"
          rows={d.shelves}
          id={(s) => s.id}
          space={{ mb: 3 }}
          columns={[
            {
              head: "Shelf",
              cell: (s) => (
                <>
                  {s.open ? (
                    <Link href={s.address} target="_blank" rel="noopener">
                      {s.title}
                    </Link>
                  ) : (
                    s.title
                  )}
                  {s.open && (
                    <Typography
                      variant="caption"
                      component="div"
                      sx={{ color: "text.secondary", wordBreak: "break-all", whiteSpace: "normal" }}
                    >
                      {school.data?.address}
                      {s.address}
                    </Typography>
                  )}
                </>
              ),
            },
            {
              head: "State",
              cell: (s) => (
                <StateMark mark={s.open ? "done" : "none"}>
                  {s.open ? `open until ${sayDate(s.until)}` : s.shutAt != null ? "shut" : "its day is over"}
                </StateMark>
              ),
            },
            { head: "Things", cell: (s) => s.things, align: "right" },
            { head: "Visits", cell: (s) => s.visits, align: "right" },
            {
              head: "",
              cell: (s) =>
                s.open &&
                may && (
                  <Button
                    disabled={shut.isPending}
                    onClick={() => shut.mutate(s.id)}
                    aria-label={`Shut ${s.title} now`}
                  >
                    Shut it now
                  </Button>
                ),
              align: "right",
            },
          ]}
        />
      )}
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
          {d && d.examples.length === 0 && (
            <Typography sx={{ color: "text.secondary" }}>Only returned work can be an example.</Typography>
          )}
          {d?.examples.slice(0, 60).map((x) => (
            <Box key={x.id}>
              <FormControlLabel
                control={
                  <Checkbox
                    checked={examples.has(x.id)}
                    onChange={() => setExamples(flip(examples, x.id))}
                    sx={{ py: 0.25 }}
                  />
                }
                label={`${x.assignment}: ${x.student}`}
              />
            </Box>
          ))}
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
            <Table aria-label="Things on the shelf">
              <TableBody>
                {shown.map((t) => (
                  <TableRow key={t.key}>
                    <TableCell sx={{ whiteSpace: "normal" }}>
                      {t.out ? <s>{t.name}</s> : <strong>{t.shown}</strong>}
                      <Typography variant="caption" component="div" sx={{ color: "text.secondary" }}>
                        {t.place || "top"}
                        {t.shown !== t.name && !t.out && ` · in the class “${t.name}”`}
                      </Typography>
                      {(t.names.length > 0 || t.byStudent) && (
                        <FormControlLabel
                          control={
                            <Checkbox
                              checked={named.has(t.key)}
                              onChange={() => setNamed(flip(named, t.key))}
                              sx={{ py: 0 }}
                            />
                          }
                          label={
                            <StateMark mark="attention" wrap>
                              {t.names.length > 0 ? `names ${t.names.join(", ")}: ` : "a student's: "}
                              {t.out ? "stays off unless ticked" : "keep its own name"}
                            </StateMark>
                          }
                        />
                      )}
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          )}
        </Box>
      </Box>
    </Desk>
  );
}

function FolderTicks(props: {
  folders: Schemas["ShelfFolder"][];
  ticked: ReadonlySet<number>;
  flip: (id: number) => void;
}) {
  const ids = new Map(props.folders.map((f) => [f.id, f]));
  const depth = (f: Schemas["ShelfFolder"]): number =>
    f.parent != null && ids.has(f.parent) ? 1 + depth(ids.get(f.parent)!) : 0;
  const within = (f: Schemas["ShelfFolder"]): boolean =>
    f.parent != null &&
    ids.has(f.parent) &&
    (!f.staffOnly || ids.get(f.parent)!.staffOnly) &&
    (props.ticked.has(f.parent) || within(ids.get(f.parent)!));
  const ordered: Schemas["ShelfFolder"][] = [];
  const walk = (parent: number | null) => {
    for (const f of props.folders.filter(
      (x) => (x.parent != null && ids.has(x.parent) ? x.parent : null) === parent,
    )) {
      ordered.push(f);
      walk(f.id);
    }
  };
  walk(null);
  return (
    <Box>
      {ordered.map((f) => (
        <Box key={f.id} sx={{ pl: depth(f) * 2 }}>
          <FormControlLabel
            control={
              <Checkbox
                checked={props.ticked.has(f.id) || within(f)}
                disabled={within(f)}
                onChange={() => props.flip(f.id)}
                sx={{ py: 0.25 }}
              />
            }
            label={`${f.name}${f.things > 0 ? ` (${f.things})` : ""}${f.staffOnly ? ", staff only" : ""}`}
          />
        </Box>
      ))}
    </Box>
  );
}
