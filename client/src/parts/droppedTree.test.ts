import { describe, expect, it } from "vitest";
import { readEntries, type Entry } from "./droppedTree";

const file = (name: string): Entry =>
  ({
    isFile: true,
    isDirectory: false,
    name,
    file: (ok: (f: File) => void) => ok(new File(["x"], name)),
  }) as Entry;
// Gives what is in it in portions of two, as a browser does in portions of a hundred.
const folder = (name: string, ...inside: Entry[]): Entry =>
  ({
    isFile: false,
    isDirectory: true,
    name,
    createReader: () => {
      const left = [...inside];
      return { readEntries: (ok: (e: Entry[]) => void) => ok(left.splice(0, 2)) };
    },
  }) as Entry;

describe("a dropped tree", () => {
  it("keeps every file with the path of its folder, and folders without a file", async () => {
    const tree = await readEntries([
      file("a.txt"),
      folder("Term", file("b.txt"), folder("Week 1", file("c.txt")), folder("Empty"), file("d.txt")),
    ]);
    expect(tree.files.map((f) => [f.folder, f.file.name])).toEqual([
      ["", "a.txt"],
      ["Term", "b.txt"],
      ["Term/Week 1", "c.txt"],
      ["Term", "d.txt"],
    ]);
    expect(tree.folders).toEqual(["Term", "Term/Week 1", "Term/Empty"]);
  });
});
