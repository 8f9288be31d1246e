import { useMutation, useQueryClient, type UseMutationResult } from "@tanstack/react-query";
import { useRef } from "react";
import { isLost, newKey, ProblemError } from "./client";

/**
 * One act that changes something. A second click while it runs, or a retry after a lost answer, carries the same key
 * and is done once. Afterwards everything on the screen is read anew.
 */
export function useAct<In, Out>(
  run: (input: In, key: { "Idempotency-Key": string }) => Promise<Out>,
  then?: (out: Out, input: In) => void,
): UseMutationResult<Out, ProblemError, In> {
  const queries = useQueryClient();
  const key = useRef<string>(null);
  return useMutation<Out, ProblemError, In>({
    mutationFn: (input) => {
      key.current ??= newKey();
      return run(input, { "Idempotency-Key": key.current });
    },
    onSuccess: async (out, input) => {
      key.current = null;
      then?.(out, input);
      await queries.invalidateQueries();
    },
    onError: (e) => {
      // What was refused was not done: the mended request is another intention. An answer that was lost may have been a yes.
      if (!isLost(e.status)) key.current = null;
      if (e.code === "changed-meanwhile") void queries.invalidateQueries();
    },
  });
}
