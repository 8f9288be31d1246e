import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState, type DragEvent, type ReactNode } from "react";
import { ProblemError, sendFile } from "../api/client";
import { StateMark } from "./StateMark";
import { count, sayBytes } from "./words";

interface Sending {
  key: string;
  name: string;
  part: number;
  wrong?: string;
  renamed?: string;
}

/** A place to drop files, several at once; each tells how far it is and what became of it. */
export function DropFiles({ to, label, children }: { to: string; label: string; children?: ReactNode }) {
  const [over, setOver] = useState(false);
  const [sending, setSending] = useState<Sending[]>([]);
  const input = useRef<HTMLInputElement>(null);
  const queries = useQueryClient();
  const change = (key: string, to: Partial<Sending>) =>
    setSending((all) => all.map((s) => (s.key === key ? { ...s, ...to } : s)));
  const send = async (files: File[]) => {
    const begun = files.map((f, i) => ({ key: `${Date.now()}-${i}-${f.name}`, name: f.name, part: 0 }));
    setSending(begun);
    for (const [i, file] of files.entries()) {
      const { key } = begun[i]!;
      try {
        const made = await sendFile<{ name: string; was?: string[] }>(to, file, (part) =>
          change(key, { part }),
        );
        change(key, {
          part: 1,
          renamed:
            made.name === file.name
              ? undefined
              : `kept as “${made.name}”: ${made.was?.join("; ") ?? "the name was taken"}`,
        });
      } catch (e) {
        change(key, { wrong: e instanceof ProblemError ? `${e.what} ${e.mend}` : "It did not arrive." });
      }
    }
    await queries.invalidateQueries();
  };
  const onDrop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    void send([...e.dataTransfer.files]);
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
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, mt: 1.25 }}>
        <Button variant="outlined" onClick={() => input.current?.click()} disabled={going}>
          {label}
        </Button>
        <Typography variant="body2" sx={{ color: "text.secondary" }}>
          or drop files here
        </Typography>
        <input
          ref={input}
          type="file"
          multiple
          hidden
          aria-label={label}
          onChange={(e) => {
            void send([...(e.target.files ?? [])]);
            e.target.value = "";
          }}
        />
      </Box>
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

/** One item in a list: its name as a link to its bytes or its site, and who added it. */
export function ItemName({
  item,
  classId,
}: {
  item: { id: number; kind: string; name: string; size: number | null; url: string | null };
  classId: number;
}) {
  return item.kind === "Link" ? (
    <a href={item.url ?? "#"} target="_blank" rel="noreferrer noopener">
      {item.name}
    </a>
  ) : (
    <>
      <a href={`/api/classes/${classId}/items/${item.id}/content`} download>
        {item.name}
      </a>{" "}
      <Box component="span" sx={{ color: "text.secondary", fontSize: 12.5 }}>
        {item.size != null && sayBytes(item.size)}
      </Box>
    </>
  );
}
