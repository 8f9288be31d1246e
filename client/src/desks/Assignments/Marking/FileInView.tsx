import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { later } from "../../../parts/later";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { siteOf } from "../../../parts/HandedThing";

import { sayBytes } from "../../../parts/words";
import { webAddress, Written } from "../../../parts/Written";

const PdfInView = later(() => import("./PdfInView"), "PdfInView");

/** Where a file of a piece is. */
export const addressOf = (classId: number, workId: number, f: Schemas["PieceFile"]) =>
  `/api/classes/${classId}/work/${workId}/${f.turn == null ? `files/${f.id}` : `turns/${f.turn}/${f.id}`}`;

/** Longer texts are cut: what nobody reads in a sitting is downloaded. */
const longest = 200_000;

/** A file as far as a page can show it: words, a picture, pages, sound, film. All else, and what is broken, is downloaded. */
export function FileInView({
  classId,
  workId,
  file,
}: {
  classId: number;
  workId: number;
  file: Schemas["PieceFile"];
}) {
  const at = addressOf(classId, workId, file);
  const [broken, setBroken] = useState(false);
  if (file.kind === "Link" && file.url)
    return (
      <figure className="piece-file">
        <Typography>
          A link to <strong>{siteOf(file.url)}</strong>: it opens in a window of its own.
        </Typography>
        <Link href={webAddress(file.url)} target="_blank" rel="noreferrer noopener" className="alone">
          {file.url}
        </Link>
        <figcaption className="soft">{file.name}</figcaption>
      </figure>
    );
  const shown = (): ReactNode => {
    if (broken)
      return (
        <StateMark mark="attention" wrap>
          “{file.name}” can’t be shown: it is damaged, or of a kind that no page shows. Download it.
        </StateMark>
      );
    switch (file.look) {
      case "Image":
        return (
          <a href={`${at}/look`} target="_blank" rel="noreferrer">
            <img src={`${at}/look`} alt={file.name} onError={() => setBroken(true)} />
          </a>
        );
      case "Sound":
        return (
          // eslint-disable-next-line jsx-a11y/media-has-caption -- what a student handed in has no captions of ours
          <audio
            controls
            preload="metadata"
            src={`${at}/look`}
            aria-label={file.name}
            onError={() => setBroken(true)}
          />
        );
      case "Video":
        return (
          // eslint-disable-next-line jsx-a11y/media-has-caption -- as above
          <video
            controls
            preload="metadata"
            src={`${at}/look`}
            aria-label={file.name}
            onError={() => setBroken(true)}
          />
        );
      case "Pdf":
        return <PdfInView at={`${at}/look`} name={file.name} onBroken={() => setBroken(true)} />;
      case "Text":
        return <TextInView classId={classId} workId={workId} file={file} />;
      case "Download":
        return <Typography>This kind of file is not shown in the page: download it.</Typography>;
    }
  };
  return (
    <figure className="piece-file">
      {shown()}
      <figcaption>
        <Link href={at} download>
          Download {file.name}
        </Link>{" "}
        <span className="soft">{sayBytes(file.size)}</span>
      </figcaption>
    </figure>
  );
}

function TextInView({
  classId,
  workId,
  file,
}: {
  classId: number;
  workId: number;
  file: Schemas["PieceFile"];
}) {
  const text = useQuery({
    queryKey: ["file-text", classId, workId, file.turn ?? null, file.id],
    staleTime: Infinity,
    queryFn: async () => {
      const asked =
        file.turn == null
          ? api.GET("/api/classes/{classId}/work/{workId}/files/{fileId}/look", {
              params: { path: { classId, workId, fileId: file.id } },
              parseAs: "text",
            })
          : api.GET("/api/classes/{classId}/work/{workId}/turns/{turnId}/{position}/look", {
              params: { path: { classId, workId, turnId: file.turn, position: file.id } },
              parseAs: "text",
            });
      return (await take(asked as Promise<{ data?: string; response: Response }>)) ?? "";
    },
  });
  if (text.error) return <Problem error={text.error} />;
  if (text.data === undefined) return null;
  return (
    <>
      {file.kind === "Page" ? (
        <Written text={text.data.slice(0, longest)} />
      ) : (
        <pre>{text.data.slice(0, longest)}</pre>
      )}
      {text.data.length > longest && <Typography>The rest of it is in the download.</Typography>}
    </>
  );
}
