import type { Schemas } from "../api/client";
import { sayBytes } from "./words";
import "./notice.css";

/** Files with a notice, each to be downloaded. */
export function NoticeFiles(props: { notice: number; files: readonly Schemas["NoticeFile"][] }) {
  if (props.files.length === 0) return null;
  return (
    <ul className="notice-files" aria-label="Files with it">
      {props.files.map((f) => (
        <li key={f.id}>
          <a href={`/api/notices/${props.notice}/files/${f.id}`} download={f.name}>
            {f.name}
          </a>{" "}
          <span>{sayBytes(f.size)}</span>
        </li>
      ))}
    </ul>
  );
}
