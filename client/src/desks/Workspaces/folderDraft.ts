import { api, take, type Schemas } from "../../api/client";

type Folder = Schemas["FolderView"];

/** A folder as a draft, to change it or to put it back as it was. */
export const draftOf = (f: Folder, place: number | null = null) => ({
  name: f.name,
  parent: f.parent,
  rule: f.rule,
  place,
  version: f.version,
  group: f.group,
  members: f.members,
});

/** What was just done to a folder, and how it is undone. */
export interface Undoable {
  said: string;
  undo: (classId: number, folderId: number) => Promise<unknown>;
  folder: Folder;
}

/** The folder as it was, at the version it has now: one higher than the one that was seen. */
export function undoable(said: string, was: Folder, place: number): Undoable {
  return {
    said,
    folder: was,
    undo: (classId, folderId) =>
      take(
        api.PUT("/api/classes/{classId}/folders/{folderId}", {
          params: { path: { classId, folderId } },
          body: { ...draftOf(was, place), version: was.version + 1 },
        }),
      ),
  };
}
