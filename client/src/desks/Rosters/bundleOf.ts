import { zipSync } from "fflate";

/**
 * One file to send from what was chosen: a zip or a table as it is; the tables of a bundle's folder packed into one zip.
 * @throws if there is nothing that a delivery is made of.
 */
export async function bundleOf(files: File[]): Promise<File> {
  const tables = files.filter((f) => /\.csv$/i.test(f.name));
  if (files.length === 1 && files[0]) return files[0];
  if (tables.length === 0) throw new Error("There is no .csv file among what was chosen.");
  const entries: Record<string, Uint8Array> = {};
  for (const f of tables) entries[f.name] = new Uint8Array(await f.arrayBuffer());
  return new File([new Uint8Array(zipSync(entries, { level: 1 }))], "rosters.zip");
}
