import { TreeItem, type TreeItemProps } from "@mui/x-tree-view/TreeItem";
import { createContext, useContext, type KeyboardEvent } from "react";
import type { Schemas } from "../../api/client";
import { ruleWords } from "../words";
import type { Branch } from "./lines";

type Folder = Schemas["FolderView"];

/** What is being moved, and where it may be put. */
export interface Carrying {
  carried: number | undefined;
  may: (folder: Folder) => boolean;
  takeUp: (folder: Folder) => void;
  takes: (into: Folder) => boolean;
  put: (into: Folder) => void;
  drop: () => void;
}

/** What the lines of a tree share. */
export const FolderLines = createContext<{
  byId: ReadonlyMap<string, Branch<Folder>>;
  counts: ReadonlyMap<number, number>;
  staff: boolean;
  chosen?: number;
  /** Looks into a folder. */
  choose: (folder: Folder) => void;
  carrying?: Carrying;
}>({ byId: new Map(), counts: new Map(), staff: false, choose: () => undefined });

const Open = () => <span aria-hidden="true">▾</span>;
const Shut = () => <span aria-hidden="true">▸</span>;

/** A folder in the tree: its name, how many things stand in it, and who may do what. */
export function FolderLine(props: TreeItemProps) {
  const { byId, counts, staff, chosen, choose, carrying } = useContext(FolderLines);
  const branch = byId.get(props.itemId);
  if (!branch) return null;
  const f = branch.folder;
  const n = counts.get(f.id) ?? 0;
  const beside = staff
    ? f.rule !== "AsAbove" && ruleWords[f.rule]
    : (f.right === "Add" || f.right === "Edit") && (f.mine ? "yours" : "you may add");
  const movable = carrying?.may(f) ?? false;
  return (
    <TreeItem
      {...props}
      label={
        <>
          <span className="folder-name" title={f.name}>
            {f.name}
          </span>{" "}
          {n > 0 && <span className="folder-count">{n}</span>}{" "}
          {beside && <span className="folder-rule">{beside}</span>}
        </>
      }
      className={branch.level === 1 ? "at-top" : undefined}
      slots={{ expandIcon: Shut, collapseIcon: Open }}
      onKeyDown={(e: KeyboardEvent & { defaultMuiPrevented?: boolean }) => {
        const key = e.ctrlKey || e.metaKey ? e.key.toLowerCase() : "";
        if (e.key === "Enter") choose(f);
        else if (!carrying) return;
        else if (key === "x" && movable) carrying.takeUp(f);
        else if (key === "v" && carrying.takes(f)) carrying.put(f);
        else if (e.key === "Escape" && carrying.carried !== undefined) carrying.drop();
        else return;
        e.defaultMuiPrevented = true;
        e.preventDefault();
        e.stopPropagation();
      }}
      slotProps={{
        root: {
          "aria-level": branch.level,
          "aria-posinset": branch.place,
          "aria-setsize": branch.of,
          // It is where one is, not one of several that are ticked.
          "aria-selected": chosen === f.id,
          "aria-checked": undefined,
        },
        content: {
          draggable: movable,
          ...({ "data-carried": carrying?.carried === f.id || undefined } as object),
          onDragStart: (e) => {
            e.dataTransfer.effectAllowed = "move";
            e.dataTransfer.setData("text/plain", f.name);
            carrying?.takeUp(f);
          },
          onDragEnd: () => carrying?.drop(),
          onDragOver: (e) => {
            if (!carrying?.takes(f)) return;
            e.preventDefault();
            e.currentTarget.setAttribute("data-over", "");
          },
          onDragLeave: (e) => e.currentTarget.removeAttribute("data-over"),
          onDrop: (e) => {
            e.currentTarget.removeAttribute("data-over");
            if (!carrying?.takes(f)) return;
            e.preventDefault();
            e.stopPropagation();
            carrying.put(f);
          },
        },
      }}
    />
  );
}
