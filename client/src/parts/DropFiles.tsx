import Box from "@mui/material/Box";
import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type DragEvent, type ReactNode } from "react";
import { api, ProblemError, sendFile, take, type Schemas } from "../api/client";
import { chosenTree, readEntries, type TreeFile } from "./droppedTree";
import { StateMark } from "./StateMark";
import { count } from "./words";
import { FileButton } from "./FileButton";

interface Sending {
  key: string;
  name: string;
  part: number;
  wrong?: string;
  renamed?: string;
}

/**
 * A place to drop files, several at once; each tells how far it is and what became of it. Given a folder of a class, whole
 * folder trees may be dropped too, and keep their shape.
 */
export function DropFiles({
  to,
  label,
  tree,
  camera,
  more,
  children,
}: {
  to: string;
  label: string;
  tree?: { classId: number; folderId: number };
  /** Also a button that takes a photo, on what is touched. */
  camera?: boolean;
  /** Other ways to put something here, beside these. */
  more?: ReactNode;
  children?: ReactNode;
}) {
  const [over, setOver] = useState(false);
  const [sending, setSending] = useState<Sending[]>([]);
  const [told, setTold] = useState<{ wrong?: string; folders?: string[]; made?: number; files?: number }>({});
  const [touched] = useState(() => window.matchMedia("(pointer: coarse)").matches);
  const queries = useQueryClient();
  const change = (key: string, to: Partial<Sending>) =>
    setSending((all) => all.map((s) => (s.key === key ? { ...s, ...to } : s)));
  const send = async (files: { file: File; to: string }[]) => {
    const begun = files.map((f, i) => ({
      key: `${Date.now()}-${i}-${f.file.name}`,
      name: f.file.name,
      part: 0,
    }));
    setSending(begun);
    for (const [i, { file, to: address }] of files.entries()) {
      const { key } = begun[i]!;
      try {
        const made = await sendFile<{ name: string; was?: string[]; newVersion?: boolean }>(
          address,
          file,
          (part) => change(key, { part }),
        );
        change(key, {
          part: 1,
          renamed:
            made.name === file.name
              ? made.was?.join("; ")
              : `kept as “${made.name}”: ${made.was?.join("; ") ?? "the name was taken"}`,
        });
      } catch (e) {
        change(key, { wrong: e instanceof ProblemError ? `${e.what} ${e.mend}` : "It did not arrive." });
      }
    }
    await queries.invalidateQueries();
  };
  const flat = (files: File[]) => {
    setTold({});
    void send(files.map((file) => ({ file, to })));
  };
  // A zip is unpacked where it is dropped by this button; dropped like a file it stays a file.
  const unpack = async (file: File) => {
    setTold({});
    const key = `zip-${file.name}`;
    setSending([{ key, name: file.name, part: 0 }]);
    try {
      const taken = await sendFile<Schemas["ZipTaken"]>(
        `/api/classes/${tree!.classId}/folders/${tree!.folderId}/zips`,
        file,
        (part) => change(key, { part: part * 0.9 }),
      );
      setSending([]);
      setTold({
        made: taken.made,
        files: taken.files,
        folders: [...taken.changed, ...taken.leftOut.map((l) => `left out: ${l}`)],
      });
      await queries.invalidateQueries();
    } catch (e) {
      change(key, { wrong: e instanceof ProblemError ? `${e.what} ${e.mend}` : "It did not arrive." });
    }
  };
  // First the folders, in one act; then each file into its own.
  const whole = async (dropped: { files: TreeFile[]; folders: string[] }) => {
    const { classId, folderId } = tree!;
    try {
      const taken = await take(
        api.POST("/api/classes/{classId}/folders/{folderId}/tree", {
          params: { path: { classId, folderId } },
          body: { paths: dropped.folders },
        }),
      );
      setTold({ made: taken.made, folders: [...new Set(taken.places.flatMap((p) => p.changed))] });
      const places = new Map(taken.places.map((p) => [p.path, p.folder]));
      await send(
        dropped.files.map((f) => ({
          file: f.file,
          to: f.folder ? `/api/classes/${classId}/folders/${places.get(f.folder)}/files` : to,
        })),
      );
    } catch (e) {
      setTold({
        wrong:
          e instanceof ProblemError ? `${e.what} ${e.mend}` : "The folder could not be read. Drop it again.",
      });
    }
  };
  const onDrop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    // Entries are only there while the event is: they are taken before anything is waited for.
    const entries = [...e.dataTransfer.items].map((i) => i.webkitGetAsEntry?.()).filter((x) => x != null);
    const files = [...e.dataTransfer.files];
    if (tree && entries.some((x) => x.isDirectory)) void readEntries(entries).then(whole);
    else flat(files);
  };
  const going = sending.some((s) => s.part < 1 && !s.wrong);
  return (
    <Box
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
      sx={{
        outline: over ? "2px dashed" : "none",
        outlineColor: "primary.main",
        outlineOffset: 4,
        minHeight: 60,
      }}
    >
      {children}
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, mt: 1.25, flexWrap: "wrap" }}>
        <FileButton multiple disabled={going} onFiles={flat}>
          {label}
        </FileButton>
        {camera && touched && (
          <FileButton camera accept="image/*" disabled={going} onFiles={flat}>
            Take a photo…
          </FileButton>
        )}
        {tree && (
          <FileButton
            folder
            label="Add a folder with all that is in it"
            disabled={going}
            onFiles={(files) => {
              const chosen = chosenTree(files);
              if (chosen.files.length > 0) void whole(chosen);
            }}
          >
            Add a folder…
          </FileButton>
        )}
        {tree && (
          <FileButton
            label="Unpack a zip here"
            accept=".zip,application/zip"
            disabled={going}
            onFiles={([file]) => file && void unpack(file)}
          >
            Unpack a zip…
          </FileButton>
        )}
        {more}
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          {tree ? "or drop files and whole folders here" : "or drop files here"}
        </Typography>
      </Box>
      {told.wrong && <StateMark mark="blocked">{told.wrong}</StateMark>}
      {told.made !== undefined && (
        <Typography variant="body2" role="status" sx={{ mt: 1 }}>
          {count(told.made, "folder", "folders")} made
          {told.files !== undefined && `, ${count(told.files, "file", "files")} added`}.{" "}
          {told.folders?.slice(0, 30).map((f) => (
            <Box key={f}>
              <StateMark mark="attention">{f}</StateMark>
            </Box>
          ))}
          {(told.folders?.length ?? 0) > 30 && `and ${told.folders!.length - 30} more`}
        </Typography>
      )}
      {sending.length > 0 && (
        <Box role="status" sx={{ mt: 1 }}>
          <Typography variant="body2">
            {going
              ? `${sending.filter((s) => s.part === 1).length} of ${count(sending.length, "file", "files")} arrived`
              : `${count(sending.filter((s) => !s.wrong).length, "file", "files")} added`}
          </Typography>
          {sending
            .filter((s) => s.wrong || s.renamed || s.part < 1)
            .map((s) => (
              <Box key={s.key}>
                {s.wrong ? (
                  <StateMark mark="blocked">{s.wrong}</StateMark>
                ) : s.renamed ? (
                  <StateMark mark="attention">
                    {s.name}: {s.renamed}
                  </StateMark>
                ) : (
                  <>
                    <Typography variant="caption">{s.name}</Typography>
                    <LinearProgress variant="determinate" value={s.part * 100} aria-label={s.name} />
                  </>
                )}
              </Box>
            ))}
        </Box>
      )}
    </Box>
  );
}
