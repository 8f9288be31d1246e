import GlobalStyles from "@mui/material/GlobalStyles";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { RichTreeView } from "@mui/x-tree-view/RichTreeView";
import { useRichTreeViewApiRef } from "@mui/x-tree-view/hooks";
import { useMemo, useState, type KeyboardEvent, type MouseEvent } from "react";
import type { Schemas } from "../../api/client";
import { FolderLine, FolderLines, type Carrying } from "./FolderLine";
import { folders as looks } from "./looks";
import { above, branches, found, within, type Branch } from "./lines";

type Folder = Schemas["FolderView"];

/** From so many folders on, one is found by typing. */
const several = 15;

const styles = <GlobalStyles styles={looks} />;
const slots = { item: FolderLine };
const idOf = (b: Branch<Folder>) => String(b.folder.id);
const nameOf = (b: Branch<Folder>) => b.folder.name;
const belowOf = (b: Branch<Folder>) => b.below;

/**
 * Folders of a workspace as a tree, worked with the arrow keys, Home, End and the first letters of a name; found by typing where
 * there are many; moved with the pointer, or taken up and put down with the keys.
 */
export function FolderTree(props: {
  folders: Folder[];
  counts: Map<number, number>;
  chosen?: number;
  onChoose: (id: number) => void;
  staff: boolean;
  /** Moves a folder into another, or to the top; without it none is moved. */
  onMove?: (folder: Folder, into: Folder | null) => void;
}) {
  const { folders, chosen, onChoose, onMove } = props;
  const tree = useRichTreeViewApiRef();
  const [find, setFind] = useState("");
  const [opened, setOpened] = useState<ReadonlySet<number>>(
    () => new Set(chosen ? above(folders, chosen) : []),
  );
  const [shown, setShown] = useState(chosen);
  if (shown !== chosen) {
    // What is looked into is in sight.
    setShown(chosen);
    if (chosen !== undefined) setOpened(new Set([...opened, ...above(folders, chosen)]));
  }
  const left = useMemo(() => found(folders, find), [folders, find]);
  const items = useMemo(() => branches(left), [left]);
  const byId = useMemo(() => {
    const map = new Map<string, Branch<Folder>>();
    const walk = (list: Branch<Folder>[]) => {
      for (const b of list) {
        map.set(idOf(b), b);
        walk(b.below);
      }
    };
    walk(items);
    return map;
  }, [items]);
  const toggle = (id: number, open?: boolean) =>
    setOpened((o) => {
      const next = new Set(o);
      if (open ?? !next.has(id)) next.add(id);
      else next.delete(id);
      return next;
    });
  const [carried, setCarried] = useState<Folder | null>(null);
  const barred = useMemo(() => (carried ? within(folders, carried.id) : null), [folders, carried]);
  const takes = (into: Folder | null) =>
    carried !== null &&
    (into === null
      ? carried.parent !== null
      : !barred!.has(into.id) && into.ownOf == null && into.id !== carried.parent);
  const put = (into: Folder | null) => {
    if (carried && takes(into)) {
      onMove?.(carried, into);
      // Where it went is in sight.
      if (into) toggle(into.id, true);
    }
    setCarried(null);
  };
  const carrying: Carrying | undefined = onMove && {
    carried: carried?.id,
    // A student's own folder and that of a group stand where their plan says.
    may: (f) => f.ownOf == null,
    takeUp: setCarried,
    takes,
    put,
    drop: () => setCarried(null),
  };
  const onClick = (e: MouseEvent, id: string) => {
    const branch = byId.get(id);
    if (!branch) return;
    const only = (e.target as Element).closest(".MuiTreeItem-iconContainer") !== null;
    if (branch.below.length > 0)
      toggle(branch.folder.id, only || branch.folder.id === chosen ? undefined : true);
  };
  const toTree = (e: KeyboardEvent) => {
    const first = items[0];
    if (e.key !== "ArrowDown" || !first) return;
    e.preventDefault();
    tree.current?.focusItem?.(e, idOf(first));
  };
  return (
    <div className="folders">
      {styles}
      {folders.length >= several && (
        <TextField
          fullWidth
          variant="standard"
          label="Find a folder"
          value={find}
          onChange={(e) => setFind(e.target.value)}
          onKeyDown={toTree}
        />
      )}
      <FolderLines.Provider
        value={{
          byId,
          counts: props.counts,
          staff: props.staff,
          chosen,
          choose: (f) => {
            onChoose(f.id);
            toggle(f.id, true);
          },
          carrying,
        }}
      >
        <RichTreeView
          aria-label="Folders"
          apiRef={tree}
          domStructure="flat"
          items={items}
          getItemId={idOf}
          getItemLabel={nameOf}
          getItemChildren={belowOf}
          slots={slots}
          itemChildrenIndentation={16}
          expansionTrigger="iconContainer"
          expandedItems={find.trim() === "" ? [...opened].map(String) : [...byId.keys()]}
          onExpandedItemsChange={(_, ids) => find.trim() === "" && setOpened(new Set(ids.map(Number)))}
          selectedItems={chosen === undefined ? null : String(chosen)}
          onSelectedItemsChange={(_, id) => id !== null && onChoose(Number(id))}
          onItemClick={onClick}
        />
      </FolderLines.Provider>
      {find.trim() !== "" && (
        <Typography variant="body2" role="status">
          {left.length === 0 ? "No folder has that in its name." : null}
        </Typography>
      )}
      {carried && (
        <Typography
          variant="body2"
          role="status"
          className="put-at-top"
          onDragOver={(e) => takes(null) && e.preventDefault()}
          onDrop={(e) => {
            e.preventDefault();
            put(null);
          }}
        >
          “{carried.name}” is taken up: put it into a folder (Ctrl V)
          {takes(null) && ", or here to stand at the top"}. Escape puts it back.
        </Typography>
      )}
    </div>
  );
}
