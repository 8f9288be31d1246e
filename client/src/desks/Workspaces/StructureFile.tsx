import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { saveText } from "../../parts/copy";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { FileButton } from "../../parts/FileButton";

/** The set-up of a class as a file: fetched, or taken in from one after saying what it will make. */
export function StructureFile({
  classId,
  name,
  onClose,
}: {
  classId: number;
  name: string;
  onClose: () => void;
}) {
  const [file, setFile] = useState<Schemas["StructureFile"] | null>(null);
  const [unreadable, setUnreadable] = useState<string | null>(null);
  const path = { path: { classId } };
  const preview = useQuery({
    queryKey: ["structure-preview", classId, file],
    enabled: file !== null,
    retry: false,
    queryFn: () =>
      take(
        api.POST("/api/classes/{classId}/structure", {
          params: { ...path, query: { apply: false } },
          body: file!,
        }),
      ),
  });
  const act = useAct((_: void, headers) =>
    take(
      api.POST("/api/classes/{classId}/structure", {
        params: { ...path, query: { apply: true } },
        body: file!,
        headers,
      }),
    ),
  );
  const fetch = useAct(
    async (_: void, headers) => take(api.GET("/api/classes/{classId}/structure", { params: path, headers })),
    (out) => saveText(`${name}, structure.json`, JSON.stringify(out, null, 2), "application/json"),
  );
  const p = act.data ?? preview.data;
  return (
    <Ask
      open
      title="Structure as a file"
      act={act.isSuccess ? "Close" : "Take it into this class"}
      disabled={!act.isSuccess && (!preview.data || preview.isFetching)}
      busy={act.isPending}
      error={act.error ?? fetch.error}
      onAct={() => (act.isSuccess ? onClose() : act.mutate())}
      onClose={onClose}
    >
      <Typography>
        Folders with their rules, links, pages, assignments as drafts, groups by name. No people, no work, no
        dates, no files.
      </Typography>
      <Button variant="outlined" sx={{ mr: 1 }} onClick={() => fetch.mutate()}>
        Download it
      </Button>
      <FileButton
        accept=".json,application/json"
        onFiles={([chosen]) => {
          const read = async (file: File) => {
            act.reset();
            try {
              setFile(JSON.parse(await file.text()) as Schemas["StructureFile"]);
              setUnreadable(null);
            } catch {
              setFile(null);
              setUnreadable(
                `“${file.name}” is no JSON that can be read. Download it again from where it was made.`,
              );
            }
          };
          if (chosen) void read(chosen);
        }}
      >
        Choose a structure file…
      </FileButton>
      {unreadable && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          {unreadable}
        </Typography>
      )}
      <Problem error={preview.error} />
      {p && (
        <Typography role="status" sx={{ mt: 1 }}>
          <StateMark mark={act.isSuccess ? "done" : "underway"}>
            {act.isSuccess ? "made:" : "will make:"}
          </StateMark>{" "}
          {count(p.folders, "folder", "folders")}, {count(p.things, "link or page", "links and pages")},{" "}
          {count(p.assignments, "draft", "drafts")}, {count(p.groups, "group", "groups")}. {p.there} stand
          there already and are left as they are.
        </Typography>
      )}
    </Ask>
  );
}
