import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { api, ProblemError, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { savedMeanwhile } from "../../api/useBegun";
import { Problem } from "../../parts/Problem";
import { Tick } from "../../parts/Tick";
import { showLines, TwoWrote } from "../../parts/TwoWrote";
import { useDraft } from "../../parts/useDraft";
import { useMeet } from "../../parts/useMeet";
import { WriteBox } from "../../parts/WriteBox";
import { Written } from "../../parts/Written";
import { ThingVersions } from "./ThingVersions";
import { standing } from "../../api/standing";

// An editor and what it takes to write together: it comes only where a page is written so.
const TogetherPage = lazy(async () => ({ default: (await import("./Together/TogetherPage")).TogetherPage }));

/** A page: as it reads, and for those who may change it, as it is written. */
export function PageDesk(props: { classId: number; itemId: number; mayChange: boolean; onBack: () => void }) {
  const { classId, itemId } = props;
  // What writing began on: what others save meanwhile does not take the place of what is being written.
  const [begun, setBegun] = useState<Schemas["PageText"] | null>(null);
  const [versions, setVersions] = useState(false);
  const page = useQuery({
    queryKey: ["page", classId, itemId],
    queryFn: () =>
      take(api.GET("/api/classes/{classId}/items/{itemId}/page", { params: { path: { classId, itemId } } })),
  });
  const together = props.mayChange && page.data?.shared === true;
  return (
    <Box sx={{ minWidth: 0 }}>
      <Link component="button" variant="body2" onClick={props.onBack}>
        Back to the folder
      </Link>
      <Problem error={page.error} />
      {page.data && !begun && (
        <>
          <Typography variant="h2" sx={{ mt: 1 }}>
            {page.data.title}
          </Typography>
          {together ? (
            <Suspense fallback={<Words text={page.data.text} />}>
              <TogetherPage
                key={itemId}
                classId={classId}
                itemId={itemId}
                text={page.data.text}
                me={standing.person}
              />
            </Suspense>
          ) : (
            <Words text={page.data.text} />
          )}
          {page.data.writers.length > 0 && (
            <Typography variant="body2" color="textSecondary">
              Written by {page.data.writers.join(", ")}.
            </Typography>
          )}
          <Box sx={{ display: "flex", gap: 1 }}>
            {props.mayChange && !together && (
              <Button variant="outlined" onClick={() => setBegun(page.data)}>
                Change the page…
              </Button>
            )}
            <Button aria-expanded={versions} onClick={() => setVersions(!versions)}>
              Earlier versions
            </Button>
          </Box>
          {versions && (
            <ThingVersions
              kind="Page"
              classId={classId}
              itemId={itemId}
              version={page.data.version}
              mayChange={props.mayChange}
              onDone={() => setVersions(false)}
            />
          )}
        </>
      )}
      {begun && <PageForm classId={classId} item={{ id: itemId, ...begun }} onDone={() => setBegun(null)} />}
    </Box>
  );
}

function Words({ text }: { text: string }) {
  return (
    <Box sx={{ my: 1.5 }}>
      {text.trim() === "" ? (
        <Typography sx={{ color: "text.secondary" }}>This page is empty.</Typography>
      ) : (
        <Written text={text} />
      )}
    </Box>
  );
}

/** Writes a page, a new one in a folder or one that is there. What is being written outlives a reload. */
export function PageForm(props: {
  classId: number;
  folderId?: number;
  item?: { id: number; title: string; text: string; version: number };
  /** How many groups the class has: it can be a page for each of them. */
  groups?: number;
  onDone: () => void;
}) {
  const { classId, folderId, item } = props;
  // With the version it was begun on: a draft that is taken up after a reload is still held against that one.
  const { draft, change, drop } = useDraft(
    item ? `page:${classId}:${item.id}` : `page:${classId}:new:${folderId}`,
    { title: item?.title ?? "", text: item?.text ?? "", version: item?.version ?? 0 },
  );
  const [each, setEach] = useState(false);
  const path = { params: { path: { classId, itemId: item?.id ?? 0 } } };
  const two = useMeet((decided) =>
    take(
      api.POST("/api/classes/{classId}/items/{itemId}/page/together", {
        ...path,
        body: { text: draft.text, version: draft.version, decided },
      }),
    ),
  );
  const save = useAct(
    async (body: { title: string; text: string; version: number }, headers) => {
      try {
        if (item)
          await take(api.PUT("/api/classes/{classId}/items/{itemId}/page", { ...path, body, headers }));
        else if (each)
          await take(
            api.POST("/api/classes/{classId}/folders/{folderId}/pages-for-groups", {
              params: { path: { classId, folderId: folderId! } },
              body: { title: body.title, text: body.text },
              headers,
            }),
          );
        else
          await take(
            api.POST("/api/classes/{classId}/folders/{folderId}/pages", {
              params: { path: { classId, folderId: folderId! } },
              body,
              headers,
            }),
          );
      } catch (e) {
        // Somebody saved meanwhile: nobody's text goes, the later one sees both.
        if (savedMeanwhile(e)) two.meet();
        throw e;
      }
    },
    () => {
      drop();
      props.onDone();
    },
  );
  if (two.met) {
    const { version, text } = two.met;
    return (
      <>
        <TwoWrote
          what="page"
          met={two.met}
          choices={two.choices}
          onChoose={two.choose}
          show={showLines}
          act="Save the page with both"
          busy={save.isPending || two.busy}
          onAct={() => text != null && save.mutate({ ...draft, text, version })}
          onBack={two.leave}
        />
        <Problem error={two.error ?? (savedMeanwhile(save.error) ? null : save.error)} />
      </>
    );
  }
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  return (
    <Box component="section" aria-label="Write a page" sx={{ mt: 1.5 }}>
      <TextField
        fullWidth
        autoFocus
        label="Title of the page"
        value={draft.title}
        error={wrong === "title"}
        onChange={(e) => change({ ...draft, title: e.target.value })}
        sx={{ mb: 2, maxWidth: 520 }}
      />
      <WriteBox
        label="Text"
        value={draft.text}
        error={wrong === "text"}
        onChange={(text) => change({ ...draft, text })}
      />
      {props.groups !== undefined && props.groups > 0 && (
        <Tick
          label={`A page for each group (${props.groups}), in the group's own folder, for them to write together`}
          value={each}
          onChange={setEach}
        />
      )}
      <Problem error={save.error ?? two.error} />
      <Box sx={{ display: "flex", gap: 1, mt: 1.5 }}>
        <Button
          variant="contained"
          disabled={draft.title.trim() === "" || save.isPending}
          onClick={() => save.mutate(draft)}
        >
          {item ? "Save the page" : each ? "Add a page for each group" : "Add the page"}
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
      </Box>
    </Box>
  );
}
