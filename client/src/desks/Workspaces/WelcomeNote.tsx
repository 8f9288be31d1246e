import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { WriteBox } from "../../parts/WriteBox";

/** What students read first when they open the class. */
export function WelcomeNote({
  workspace: w,
  onClose,
}: {
  workspace: Schemas["WorkspaceView"];
  onClose: () => void;
}) {
  const [text, setText] = useState(w.welcome);
  const save = useAct(
    () =>
      take(
        api.PUT("/api/classes/{classId}/welcome", {
          params: { path: { classId: w.head.id } },
          body: { text, version: w.head.version },
        }),
      ),
    onClose,
  );
  return (
    <Ask
      open
      wide
      title="Welcome note"
      act={text.trim() === "" ? "Have no welcome note" : "Save the welcome note"}
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate(undefined)}
      onClose={onClose}
    >
      <WriteBox label="Students read this first" value={text} onChange={setText} rows={8} />
    </Ask>
  );
}
