import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, sendFile, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { count } from "../../parts/words";
import { PickOne } from "../../parts/PickOne";
import { FileButton } from "../../parts/FileButton";

type From = "list" | "class" | "tree" | "zip";

/** Begins a plan from a pasted list, from a class as it stands, or from a folder tree of one's own computer. */
export function BeginPlan({
  classes,
  onMade,
  onClose,
}: {
  classes: Schemas["BoardRow"][];
  onMade: (id: number) => void;
  onClose: () => void;
}) {
  const [from, setFrom] = useState<From>("list");
  const [name, setName] = useState("");
  const [text, setText] = useState("Start here\nPapers\nStaff room");
  const [classId, setClass] = useState<number | "">("");
  const [paths, setPaths] = useState<string[]>([]);
  const [zip, setZip] = useState<File | null>(null);
  const make = useAct(
    async (_: void, headers) => {
      const body = {
        text: from === "list" ? text : null,
        class: from === "class" ? Number(classId) : null,
        paths: from === "tree" ? paths : null,
      };
      const lines =
        from === "zip"
          ? await sendFile<Schemas["OutlineLine"][]>("/api/plans/outline-of-zip/files", zip!, () => {})
          : await take(api.POST("/api/plans/outline", { body }));
      return take(api.POST("/api/plans", { body: { name, about: "", lines, version: 0 }, headers }));
    },
    (made) => onMade(made.id),
  );
  const ready =
    name.trim() !== "" &&
    (from !== "class" || classId !== "") &&
    (from !== "tree" || paths.length > 0) &&
    (from !== "zip" || zip !== null);
  return (
    <Ask
      open
      title="Begin a folder plan"
      act="Begin the plan"
      busy={make.isPending}
      disabled={!ready}
      error={make.error}
      onAct={() => make.mutate()}
      onClose={onClose}
    >
      <TextField
        fullWidth
        autoFocus
        label="Name of the plan"
        value={name}
        onChange={(e) => setName(e.target.value)}
        sx={{ my: 1 }}
      />
      <ToggleButtonGroup
        exclusive
        size="small"
        value={from}
        onChange={(_, v: From | null) => v && setFrom(v)}
        aria-label="Begin from"
        sx={{ mb: 1.5 }}
      >
        <ToggleButton value="list">an indented list</ToggleButton>
        <ToggleButton value="class">a class as it stands</ToggleButton>
        <ToggleButton value="tree">a folder of my computer</ToggleButton>
        <ToggleButton value="zip">a zip</ToggleButton>
      </ToggleButtonGroup>
      {from === "list" && (
        <TextField
          fullWidth
          multiline
          minRows={5}
          label="One folder a line, indented where it stands inside another"
          value={text}
          onChange={(e) => setText(e.target.value)}
          slotProps={{ htmlInput: { onKeyDown: tabIsText } }}
        />
      )}
      {from === "class" && (
        <PickOne
          fullWidth
          label="Class"
          options={classes}
          value={classId === "" ? null : classId}
          onChange={(k) => setClass(k ?? "")}
        />
      )}
      {from === "zip" && (
        <>
          <FileButton
            label="Choose the zip"
            accept=".zip,application/zip"
            onFiles={(files) => setZip(files[0] ?? null)}
          >
            Choose the zip…
          </FileButton>
          <Typography variant="body2" sx={{ mt: 1 }}>
            {zip ? zip.name : "Only its folders count; no file is kept."}
          </Typography>
        </>
      )}
      {from === "tree" && (
        <>
          <FileButton
            folder
            onFiles={(files) => {
              const folders = files
                .map((f) => f.webkitRelativePath.split("/").slice(1, -1).join("/"))
                .filter(Boolean);
              setPaths([...new Set(folders)]);
            }}
          >
            Choose the folder…
          </FileButton>
          <Typography variant="body2" sx={{ mt: 1 }}>
            {paths.length === 0
              ? "Only the folders count; no file is read."
              : `${count(paths.length, "folder", "folders")} found.`}
          </Typography>
        </>
      )}
    </Ask>
  );
}

// In the list a tab is an indent, not a way out; Escape closes the box.
function tabIsText(e: React.KeyboardEvent<HTMLInputElement>) {
  if (e.key !== "Tab" || e.shiftKey) return;
  e.preventDefault();
  e.currentTarget.setRangeText(
    "\t",
    e.currentTarget.selectionStart ?? 0,
    e.currentTarget.selectionEnd ?? 0,
    "end",
  );
  e.currentTarget.dispatchEvent(new Event("input", { bubbles: true }));
}
