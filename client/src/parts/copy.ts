import { saveFile } from "./saveFile";

/**
 * Puts text on the clipboard, also where the page came without encryption and the browser has no clipboard for it.
 * @returns Whether it is there.
 */
export async function copyText(text: string): Promise<boolean> {
  try {
    // Not there on a page without encryption, whatever its type says.
    if (navigator.clipboard as Clipboard | undefined) {
      await navigator.clipboard.writeText(text);
      return true;
    }
  } catch {
    // Not allowed: the old way may be.
  }
  const field = document.createElement("textarea");
  field.value = text;
  field.setAttribute("readonly", "");
  field.style.position = "fixed";
  field.style.opacity = "0";
  const from = document.activeElement;
  document.body.append(field);
  field.select();

  const there = typeof document.execCommand === "function" && document.execCommand("copy");
  field.remove();
  if (from instanceof HTMLElement) from.focus();
  return there;
}

/** Gives the browser a text that was made here, as a file. */
export const saveText = (name: string, text: string, type: string) =>
  saveFile(new Blob([text], { type }), name);
