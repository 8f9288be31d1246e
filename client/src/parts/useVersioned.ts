import { useDraft } from "./useDraft";

/**
 * A draft of something that others may save meanwhile: it stays with the version that it was begun on, and is held against
 * that one. `behind` says that there is a newer one; a person then takes theirs (`drop`) or keeps their own (`keep`).
 */
export function useVersioned<T>(key: string, version: number, initial: T) {
  const { draft, change, drop } = useDraft(key, { version, value: initial });
  const changed = JSON.stringify(draft.value) !== JSON.stringify(initial);
  return {
    draft: draft.value,
    /** Version that it was begun on. */
    begun: draft.version,
    change: (value: T) => change({ ...draft, value }),
    changed,
    drop,
    behind: changed && draft.version < version,
    keep: () => change({ version, value: draft.value }),
  };
}
