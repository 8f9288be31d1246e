/** A file of a dropped tree, and the path of the folder it stood in: "" at the top, slashes between. */
export interface TreeFile {
  file: File;
  folder: string;
}

/** The part of a file system entry that is used here, so that it can be tested without a browser. */
export interface Entry {
  isFile: boolean;
  isDirectory: boolean;
  name: string;
}
interface FileEntry extends Entry {
  file(ok: (f: File) => void, no: (e: unknown) => void): void;
}
interface FolderEntry extends Entry {
  createReader(): { readEntries(ok: (e: Entry[]) => void, no: (e: unknown) => void): void };
}

/** Reads everything that was dropped: files, and folders with all that is in them; also folders without a file. */
export async function readEntries(
  entries: Entry[],
  folder = "",
): Promise<{ files: TreeFile[]; folders: string[] }> {
  const found: { files: TreeFile[]; folders: string[] } = { files: [], folders: [] };
  for (const e of entries) {
    if (e.isFile)
      found.files.push({ file: await new Promise<File>((ok, no) => (e as FileEntry).file(ok, no)), folder });
    else if (e.isDirectory) {
      const path = folder ? `${folder}/${e.name}` : e.name;
      const inner = await readEntries(await all(e as FolderEntry), path);
      found.folders.push(path, ...inner.folders);
      found.files.push(...inner.files);
    }
  }
  return found;
}

// A reader gives its entries in portions, and an empty one at the end.
async function all(folder: FolderEntry): Promise<Entry[]> {
  const reader = folder.createReader();
  const list: Entry[] = [];
  for (;;) {
    const part = await new Promise<Entry[]>((ok, no) => reader.readEntries(ok, no));
    if (part.length === 0) return list;
    list.push(...part);
  }
}

/** The same from a chooser of folders, which says each file's path. */
export function chosenTree(files: File[]): { files: TreeFile[]; folders: string[] } {
  const list = files.map((file) => ({
    file,
    folder: file.webkitRelativePath.split("/").slice(0, -1).join("/"),
  }));
  return { files: list, folders: [...new Set(list.map((f) => f.folder).filter(Boolean))] };
}
