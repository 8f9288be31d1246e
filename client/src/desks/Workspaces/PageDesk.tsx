import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { useDraft } from "../../parts/useDraft";
import { WriteBox } from "../../parts/WriteBox";
import { Written } from "../../parts/Written";

/** A page: as it reads, and for those who may change it, as it is written. */
export function PageDesk(props: { classId: number; itemId: number; mayChange: boolean; onBack: () => void }) {
  const { classId, itemId } = props;
  const [writing, setWriting] = useState(false);
  const page = useQuery({
    queryKey: ["page", classId, itemId],
    queryFn: () =>
      take(api.GET("/api/classes/{classId}/items/{itemId}/page", { params: { path: { classId, itemId } } })),
  });
  return (
    <Box sx={{ minWidth: 0 }}>
      <Link component="button" variant="body2" onClick={props.onBack}>
        Back to the folder
      </Link>
      <Problem error={page.error} />
      {page.data && !writing && (
        <>
          <Typography variant="h2" sx={{ mt: 1 }}>
            {page.data.title}
          </Typography>
          <Box sx={{ my: 1.5 }}>
            {page.data.text.trim() === "" ? (
              <Typography sx={{ color: "text.secondary" }}>This page is empty.</Typography>
            ) : (
              <Written text={page.data.text} />
            )}
          </Box>
          {props.mayChange && (
            <Button variant="outlined" onClick={() => setWriting(true)}>
              Change the page…
            </Button>
          )}
        </>
      )}
      {page.data && writing && (
        <PageForm
          key={page.data.version}
          classId={classId}
          item={{ id: itemId, ...page.data }}
          onDone={() => setWriting(false)}
        />
      )}
    </Box>
  );
}

/** Writes a page, a new one in a folder or one that is there. What is being written outlives a reload. */
export function PageForm(props: {
  classId: number;
  folderId?: number;
  item?: { id: number; title: string; text: string; version: number };
  onDone: () => void;
}) {
  const { classId, folderId, item } = props;
  const { draft, change, drop } = useDraft(
    item ? `page:${classId}:${item.id}:${item.version}` : `page:${classId}:new:${folderId}`,
    { title: item?.title ?? "", text: item?.text ?? "" },
  );
  const save = useAct(
    async (_: void, headers) => {
      if (item)
        await take(
          api.PUT("/api/classes/{classId}/items/{itemId}/page", {
            params: { path: { classId, itemId: item.id } },
            body: { ...draft, version: item.version },
          }),
        );
      else
        await take(
          api.POST("/api/classes/{classId}/folders/{folderId}/pages", {
            params: { path: { classId, folderId: folderId! } },
            body: { ...draft, version: 0 },
            headers,
          }),
        );
    },
    () => {
      drop();
      props.onDone();
    },
  );
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
      <Problem error={save.error} />
      <Box sx={{ display: "flex", gap: 1, mt: 1.5 }}>
        <Button
          variant="contained"
          disabled={draft.title.trim() === "" || save.isPending}
          onClick={() => save.mutate()}
        >
          {item ? "Save the page" : "Add the page"}
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
