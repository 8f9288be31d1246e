import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { ProblemError, Schemas } from "../api/client";

/** Two wrote on one thing: what each made of it, and what the later one has decided so far. The server puts it together. */
export function useMeet<View extends { version: number }>(
  ask: (decided: Schemas["Decided"] | null) => Promise<View>,
) {
  const [met, setMet] = useState<View | null>(null);
  const [choices, setChoices] = useState<Schemas["MergeChoice"][]>([]);
  const asked = useMutation<View, ProblemError, Schemas["Decided"] | null>({
    mutationFn: ask,
    onSuccess: (view) => {
      // Changed once more meanwhile, it is decided again: what was chosen for other places counts for none of these.
      if (met?.version !== view.version) setChoices([]);
      setMet(view);
    },
  });
  return {
    met,
    choices,
    busy: asked.isPending,
    error: asked.error,
    /** Sees what came of both. */
    meet: () => asked.mutate(null),
    /** Says what is to stand in one place. */
    choose: (place: number, side: Schemas["MergeSide"]) => {
      const next = [...choices.filter((c) => c.place !== place), { place, side }];
      setChoices(next);
      asked.mutate({ seen: met?.version ?? null, choices: next });
    },
    /** Back to writing. */
    leave: () => {
      setMet(null);
      setChoices([]);
    },
  };
}
