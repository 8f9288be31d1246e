import { useEffect, useRef, useState } from "react";
import { ProblemError, sendFile, type Schemas } from "../../api/client";

/** A file that was sent and waits for what it belongs to. */
export type Sent = Schemas["UploadedView"];

/**
 * Sends files one after another to where they wait until the thing that they belong to is saved.
 * @param path Where they are sent to.
 * @param onSent Is told all that arrived, once; what did not is said in `wrong`.
 */
export function useSending(path: string, onSent: (files: Sent[]) => void) {
  const [sending, setSending] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string[]>([]);
  // What is taken off while a file is on its way stays off: the newest is told, not the one of when it was sent.
  const told = useRef(onSent);
  useEffect(() => {
    told.current = onSent;
  });
  const send = async (files: readonly File[]) => {
    setWrong([]);
    const arrived: Sent[] = [];
    for (const file of files) {
      setSending(file.name);
      try {
        arrived.push(await sendFile<Sent>(path, file, () => undefined));
      } catch (e) {
        const said = e instanceof ProblemError ? `${e.what} ${e.mend}` : `${file.name} did not arrive.`;
        setWrong((was) => [...was, said]);
      }
    }
    setSending(null);
    if (arrived.length > 0) told.current(arrived);
  };
  return { send, sending, wrong };
}
