import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { api, ProblemError, take } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Problem } from "../../../parts/Problem";
import { useDraft } from "../../../parts/useDraft";
import { WriteBox } from "../../../parts/WriteBox";
import { Written } from "../../../parts/Written";

/** Where a page that was begun is kept. */
export const newPage = (classId: number, assignmentId: number) => `own-page:${classId}:${assignmentId}:new`;

const useOwnPage = (classId: number, assignmentId: number, fileId: number | null) =>
  useQuery({
    queryKey: ["own-page", classId, assignmentId, fileId],
    enabled: fileId !== null,
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/assignments/{assignmentId}/own-work/pages/{fileId}", {
          params: { path: { classId, assignmentId, fileId: fileId! } },
        }),
      ),
  });

/** A page of one's own work, to be read. */
export function ReadOwnPage(props: { classId: number; assignmentId: number; fileId: number }) {
  const page = useOwnPage(props.classId, props.assignmentId, props.fileId);
  return (
    <>
      <Problem error={page.error} />
      {page.data && <Written text={page.data.text} />}
    </>
  );
}

/** Writes a page into one's own work, a new one or one that is there. What is being written outlives a reload. */
export function WriteOwnPage(props: {
  classId: number;
  assignmentId: number;
  /** Null for a new one. */
  fileId: number | null;
  onDone: () => void;
}) {
  const page = useOwnPage(props.classId, props.assignmentId, props.fileId);
  if (props.fileId !== null && !page.data) return <Problem error={page.error} />;
  return <PageForm {...props} was={page.data ?? null} />;
}

function PageForm(props: {
  classId: number;
  assignmentId: number;
  fileId: number | null;
  was: { title: string; text: string; seen: string } | null;
  onDone: () => void;
}) {
  const { classId, assignmentId, fileId, was } = props;
  const { draft, change, drop } = useDraft(
    fileId === null ? newPage(classId, assignmentId) : `own-page:${classId}:${assignmentId}:${fileId}`,
    {
      title: was?.title ?? "",
      text: was?.text ?? "",
      seen: was?.seen ?? "",
    },
  );
  const path = { classId, assignmentId };
  const save = useAct(
    (_: void, headers) =>
      fileId === null
        ? take(
            api.POST("/api/classes/{classId}/assignments/{assignmentId}/own-work/pages", {
              params: { path },
              body: { title: draft.title, text: draft.text },
              headers,
            }),
          )
        : take(
            api.PUT("/api/classes/{classId}/assignments/{assignmentId}/own-work/pages/{fileId}", {
              params: { path: { ...path, fileId } },
              body: draft,
              headers,
            }),
          ),
    () => {
      drop();
      props.onDone();
    },
  );
  const asNew = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/assignments/{assignmentId}/own-work/pages", {
          params: { path },
          body: { title: draft.title, text: draft.text },
          headers,
        }),
      ),
    () => {
      drop();
      props.onDone();
    },
  );
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  const changed = save.error instanceof ProblemError && save.error.code === "changed-meanwhile";
  return (
    <section className="own-page" aria-label="Write a page">
      <TextField
        fullWidth
        autoFocus
        label="Title of the page"
        value={draft.title}
        error={wrong === "title"}
        onChange={(e) => change({ ...draft, title: e.target.value })}
      />
      <WriteBox
        label="Text"
        value={draft.text}
        error={wrong === "text"}
        onChange={(text) => change({ ...draft, text })}
      />
      <Problem error={asNew.error ?? save.error} />
      {changed && (
        <p>
          You saved this page in another window meanwhile. What you typed here is kept: put it into a page of
          its own, then take out the one that you do not want.{" "}
          <Button disabled={asNew.isPending} onClick={() => asNew.mutate()}>
            Save this as a page of its own
          </Button>
        </p>
      )}
      <div className="handed-adding">
        <Button
          variant="contained"
          disabled={draft.title.trim() === "" || save.isPending}
          onClick={() => save.mutate()}
        >
          {fileId === null ? "Add the page" : "Save the page"}
        </Button>
        <Button
          variant="outlined"
          onClick={() => {
            drop();
            props.onDone();
          }}
        >
          Not now
        </Button>
      </div>
    </section>
  );
}
