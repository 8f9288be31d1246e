/** A folder as far as the tree needs it. */
export interface Standing {
  id: number;
  parent: number | null;
  name: string;
}

/** A folder among those it stands with. */
export interface Branch<F> {
  folder: F;
  /** From the top, which is 1. */
  level: number;
  /** Which of its siblings, from 1, and how many there are. */
  place: number;
  of: number;
  below: Branch<F>[];
}

/** Folders as they stand in each other; one whose parent is not among them stands at the top. */
export function branches<F extends Standing>(folders: readonly F[]): Branch<F>[] {
  const ids = new Set(folders.map((f) => f.id));
  const under = new Map<number | null, F[]>();
  for (const f of folders) {
    const at = f.parent != null && ids.has(f.parent) ? f.parent : null;
    const list = under.get(at);
    if (list) list.push(f);
    else under.set(at, [f]);
  }
  const grow = (at: number | null, level: number): Branch<F>[] => {
    const here = under.get(at) ?? [];
    return here.map((folder, i) => ({
      folder,
      level,
      place: i + 1,
      of: here.length,
      below: grow(folder.id, level + 1),
    }));
  };
  return grow(null, 1);
}

/** Ids of the folders in which one stands, from its parent up. */
export function above(folders: readonly Standing[], id: number): number[] {
  const by = new Map(folders.map((f) => [f.id, f]));
  const found: number[] = [];
  for (let at = by.get(id)?.parent; at != null && by.has(at) && !found.includes(at); at = by.get(at)!.parent)
    found.push(at);
  return found;
}

/** A folder and all that stand in it, by id. */
export function within(folders: readonly Standing[], top: number): Set<number> {
  const found = new Set([top]);
  for (let before = 0; before !== found.size;) {
    before = found.size;
    for (const f of folders) if (f.parent != null && found.has(f.parent)) found.add(f.id);
  }
  return found;
}

// Letters with and without a mark are the same to whoever looks for them.
const plain = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** The folders whose name has what was typed in it, with those they stand in. */
export function found<F extends Standing>(folders: readonly F[], text: string): F[] {
  const want = plain(text.trim());
  if (want === "") return [...folders];
  const by = new Map(folders.map((f) => [f.id, f]));
  const kept = new Set<number>();
  for (const f of folders)
    if (plain(f.name).includes(want))
      for (
        let at: F | undefined = f;
        at && !kept.has(at.id);
        at = at.parent == null ? undefined : by.get(at.parent)
      )
        kept.add(at.id);
  return folders.filter((f) => kept.has(f.id));
}

/** Where each folder stands, from the top, as words. */
export function pathsOf(folders: readonly Standing[]): ReadonlyMap<number, string> {
  const paths = new Map<number, string>();
  const walk = (list: Branch<Standing>[], before: string) => {
    for (const { folder, below } of list) {
      const path = before === "" ? folder.name : `${before} / ${folder.name}`;
      paths.set(folder.id, path);
      walk(below, path);
    }
  };
  walk(branches(folders), "");
  return paths;
}

/** Folders to be picked from, each by where it stands; those of one person alone are not among them. */
export function pickable(folders: readonly (Standing & { ownOf: string | null })[]) {
  const paths = pathsOf(folders);
  return folders.filter((f) => f.ownOf == null).map((f) => ({ id: f.id, name: paths.get(f.id)! }));
}
