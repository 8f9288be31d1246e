import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useEffect, useState, useSyncExternalStore } from "react";
import { StateMark, type Mark } from "../../../parts/StateMark";
import { useTyped } from "../../../parts/typed";
import { Written } from "../../../parts/Written";
import { PageEditor } from "./PageEditor";
import { SharedPage, type PageStanding } from "./sharedPage";
import "./together.css";

/** A page that several write at once: read as it grows, or written with the others. */
export function TogetherPage(props: { classId: number; itemId: number; text: string; me: number | null }) {
  const { classId, itemId } = props;
  const [page, setPage] = useState<SharedPage | null>(null);
  useEffect(() => {
    const opened = new SharedPage(classId, itemId);
    setPage(opened);
    return () => opened.end();
  }, [classId, itemId]);
  return page ? <Opened page={page} before={props.text} me={props.me} /> : <Words text={props.text} />;
}

function Opened({ page, before, me }: { page: SharedPage; before: string; me: number | null }) {
  const at = useSyncExternalStore(page.subscribe, page.standing);
  const text = useText(page);
  const [writes, setWrites] = useState(false);
  // Leaving with something that is only here is asked about.
  useTyped(!at.kept);
  const others = at.here.filter((p) => p.id !== me);
  const [mark, said] = sayStanding(at);
  return (
    <>
      <div className="together-line">
        <StateMark mark={mark} wrap>
          {said}
        </StateMark>
        <span aria-live="polite">
          {at.joined &&
            (others.length === 0
              ? "Nobody else is here."
              : `Here too: ${others.map((p) => p.name).join(", ")}.`)}
        </span>
      </div>
      {writes ? (
        <>
          <div className="together-sides">
            <PageEditor page={page} mayWrite={at.mayWrite || (!at.joined && at.shut === null)} />
            <div className="together-reads">
              <Typography variant="caption" component="p" color="textSecondary">
                It reads
              </Typography>
              <Words text={text} />
            </div>
          </div>
          <Button variant="outlined" onClick={() => setWrites(false)}>
            Done writing
          </Button>
        </>
      ) : (
        <>
          <Words text={at.opened ? text : before} />
          {(at.mayWrite || !at.kept) && (
            <Button variant="contained" onClick={() => setWrites(true)}>
              Write with the others
            </Button>
          )}
        </>
      )}
    </>
  );
}

function Words({ text }: { text: string }) {
  return text.trim() === "" ? (
    <Typography color="textSecondary" className="together-words">
      This page is empty.
    </Typography>
  ) : (
    <div className="together-words">
      <Written text={text} />
    </div>
  );
}

function useText(page: SharedPage) {
  const [text, setText] = useState(() => page.words());
  useEffect(() => {
    const read = () => setText(page.words());
    read();
    page.text.observe(read);
    return () => page.text.unobserve(read);
  }, [page]);
  return text;
}

function sayStanding(at: PageStanding): [Mark, string] {
  if (at.shut)
    return [
      "blocked",
      `${at.shut.what} ${at.shut.mend}${at.kept ? "" : " What you typed last is still here."}`,
    ];
  if (!at.joined)
    return at.opened || !at.kept
      ? ["attention", "Cut off. What you type stays here and goes when the way is back."]
      : ["underway", "Joining the others…"];
  if (!at.kept && !at.mayWrite)
    return [
      "attention",
      "You may only read this now. What you typed last is here alone: copy what you need of it.",
    ];
  if (!at.kept) return ["underway", "Being kept…"];
  return ["done", at.mayWrite ? "Everything is kept." : "You read along."];
}
