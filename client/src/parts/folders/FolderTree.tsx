import Box from "@mui/material/Box";
import { useMemo, useState, type KeyboardEvent } from "react";
import type { Schemas } from "../api/client";
import { ruleWords } from "./words";

type Folder = Schemas["FolderView"];

/** Folders of a workspace as a tree, worked with the arrow keys. */
export function FolderTree(props: {
  folders: Folder[];
  counts: Map<number, number>;
  chosen?: number;
  onChoose: (id: number) => void;
  staff: boolean;
}) {
  const { folders, chosen, onChoose } = props;
  const below = useMemo(() => {
    const ids = new Set(folders.map((f) => f.id));
    const map = new Map<number | null, Folder[]>();
    for (const f of folders) {
      const at = f.parent != null && ids.has(f.parent) ? f.parent : null;
      map.set(at, [...(map.get(at) ?? []), f]);
    }
    return map;
  }, [folders]);
  const [opened, setOpened] = useState<ReadonlySet<number>>(new Set());
  const lines: { folder: Folder; depth: number; parent: boolean }[] = [];
  const walk = (of: number | null, depth: number) => {
    for (const folder of below.get(of) ?? []) {
      lines.push({ folder, depth, parent: below.has(folder.id) });
      if (opened.has(folder.id)) walk(folder.id, depth + 1);
    }
  };
  walk(null, 0);
  const toggle = (id: number, open?: boolean) =>
    setOpened((o) => {
      const next = new Set(o);
      if (open ?? !next.has(id)) next.add(id);
      else next.delete(id);
      return next;
    });
  const onKeys = (e: KeyboardEvent<HTMLElement>) => {
    const items = [...e.currentTarget.querySelectorAll<HTMLElement>("[role=treeitem]")];
    const at = items.indexOf(e.target as HTMLElement);
    const line = lines[at];
    if (!line) return;
    if (e.key === "ArrowDown") items[at + 1]?.focus();
    else if (e.key === "ArrowUp") items[at - 1]?.focus();
    else if (e.key === "ArrowRight" && line.parent) toggle(line.folder.id, true);
    else if (e.key === "ArrowLeft") toggle(line.folder.id, false);
    else if (e.key === "Enter" || e.key === " ") onChoose(line.folder.id);
    else return;
    e.preventDefault();
  };
  return (
    <Box role="tree" aria-label="Folders" onKeyDown={onKeys}>
      {lines.map(({ folder, depth, parent }, i) => {
        const open = opened.has(folder.id);
        const n = props.counts.get(folder.id) ?? 0;
        return (
          <Box
            key={folder.id}
            role="treeitem"
            aria-level={depth + 1}
            aria-expanded={parent ? open : undefined}
            aria-selected={folder.id === chosen}
            tabIndex={folder.id === chosen || (chosen === undefined && i === 0) ? 0 : -1}
            onClick={() => {
              onChoose(folder.id);
              if (parent) toggle(folder.id, folder.id === chosen ? undefined : true);
            }}
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 0.75,
              minHeight: 32,
              pl: 0.5 + depth * 2,
              pr: 1,
              cursor: "pointer",
              borderBottom: 1,
              borderColor: "divider",
              borderLeft: "3px solid",
              borderLeftColor: folder.id === chosen ? "primary.main" : "transparent",
              bgcolor: folder.id === chosen ? "action.selected" : "transparent",
              "&:hover": { bgcolor: "action.hover" },
            }}
          >
            <Box
              component="span"
              aria-hidden="true"
              sx={{ width: 12, color: "text.secondary", fontSize: 11 }}
            >
              {parent ? (open ? "▾" : "▸") : ""}
            </Box>
            <Box
              component="span"
              sx={{
                fontWeight: depth === 0 ? 600 : 400,
                overflow: "hidden",
                textOverflow: "ellipsis",
                whiteSpace: "nowrap",
                fontSize: "0.9rem",
              }}
            >
              {folder.name}
            </Box>
            <Box sx={{ flex: 1 }} />
            {n > 0 && (
              <Box component="span" sx={{ fontSize: 12.5, whiteSpace: "nowrap" }}>
                {n}
              </Box>
            )}
            {props.staff && folder.rule !== "AsAbove" && (
              <Box component="span" sx={{ fontSize: 12, color: "text.secondary", whiteSpace: "nowrap" }}>
                {ruleWords[folder.rule]}
              </Box>
            )}
            {!props.staff && (folder.right === "Add" || folder.right === "Edit") && (
              <Box component="span" sx={{ fontSize: 12, color: "text.secondary", whiteSpace: "nowrap" }}>
                {folder.mine ? "yours" : "you may add"}
              </Box>
            )}
          </Box>
        );
      })}
    </Box>
  );
}
