/** Has the browser keep what an act made as a file. */
export function saveFile(made: Blob, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(made);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
