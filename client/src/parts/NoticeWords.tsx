import type { Schemas } from "../api/client";
import { NoticeFiles } from "./NoticeFiles";
import { sayMoment } from "./words";
import { Written } from "./Written";
import "./notice.css";

/** A notice as it stands in its class: what it says, for whom, by whom and since when. */
export function NoticeWords({ notice: n }: { notice: Schemas["NoticeView"] }) {
  const about = [
    n.pinned && "on top",
    n.group && `for group ${n.group}`,
    n.author,
    n.postedAt ? sayMoment(n.postedAt) : n.postAt && `waits for ${sayMoment(n.postAt)}`,
    n.changedAt && `changed ${sayMoment(n.changedAt)}`,
  ].filter(Boolean);
  return (
    <div className="notice-told">
      <Written text={n.text} lines />
      <NoticeFiles notice={n.id} files={n.files} />
      <span>{about.join(", ")}</span>
    </div>
  );
}
