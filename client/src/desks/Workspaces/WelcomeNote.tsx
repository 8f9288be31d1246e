import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { savedMeanwhile } from "../../api/useBegun";
import { Ask } from "../../parts/Ask";
import { showLines, TwoWrote } from "../../parts/TwoWrote";
import { useDraft } from "../../parts/useDraft";
import { useMeet } from "../../parts/useMeet";
import { WriteBox } from "../../parts/WriteBox";

/** What students read first when they open the class. What is being written outlives a reload. */
export function WelcomeNote({
  workspace: w,
  onClose,
}: {
  workspace: Schemas["WorkspaceView"];
  onClose: () => void;
}) {
  // With the note it was begun on: what others save meanwhile is held against that one.
  const { draft, change, drop } = useDraft(`welcome:${w.head.id}`, { was: w.welcome, text: w.welcome });
  const path = { params: { path: { classId: w.head.id } } };
  const two = useMeet((decided) =>
    take(api.POST("/api/classes/{classId}/welcome/together", { ...path, body: { ...draft, decided } })),
  );
  const close = () => {
    drop();
    onClose();
  };
  const save = useAct(async (body: { was: string; text: string }, headers) => {
    try {
      await take(
        api.PUT("/api/classes/{classId}/welcome", { ...path, body: { ...body, decided: null }, headers }),
      );
    } catch (e) {
      // Somebody saved meanwhile: nobody's text goes, the later one sees both.
      if (savedMeanwhile(e)) two.meet();
      throw e;
    }
  }, close);
  const met = two.met;
  const both = () => met?.text != null && save.mutate({ was: met.stands, text: met.text });
  return (
    <Ask
      open
      wide
      kept
      title="Welcome note"
      act={draft.text.trim() === "" ? "Have no welcome note" : "Save the welcome note"}
      actElsewhere={met !== null}
      busy={save.isPending}
      error={two.error ?? (savedMeanwhile(save.error) ? null : save.error)}
      onAct={() => (met ? both() : save.mutate(draft))}
      onClose={onClose}
      onDrop={close}
    >
      {met ? (
        <TwoWrote
          what="welcome note"
          met={met}
          choices={two.choices}
          onChoose={two.choose}
          show={showLines}
          act="Save the note with both"
          busy={save.isPending || two.busy}
          onAct={both}
          onBack={two.leave}
        />
      ) : (
        <WriteBox
          label="Students read this first"
          value={draft.text}
          onChange={(text) => change({ ...draft, text })}
          rows={8}
        />
      )}
    </Ask>
  );
}
