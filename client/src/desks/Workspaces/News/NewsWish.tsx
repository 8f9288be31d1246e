import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Tick } from "../../../parts/Tick";
import { newsWords } from "./telling";

/** What one wants to be told, and whether by letter too. */
export function NewsWish({ view, onClose }: { view: Schemas["NewsView"]; onClose: () => void }) {
  const [quiet, setQuiet] = useState<ReadonlySet<Schemas["NewsKind"]>>(new Set(view.quiet));
  const [letter, setLetter] = useState(view.letter);
  const queries = useQueryClient();
  const save = useAct(
    (_: void, headers) => take(api.PUT("/api/news/wish", { body: { quiet: [...quiet], letter }, headers })),
    () => {
      void queries.resetQueries({ queryKey: ["news"] });
      onClose();
    },
  );
  const flip = (kind: Schemas["NewsKind"]) => {
    const next = new Set(quiet);
    if (!next.delete(kind)) next.add(kind);
    setQuiet(next);
  };
  return (
    <Ask
      open
      title="What you are told"
      act="Save it"
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate()}
      onClose={onClose}
    >
      {view.kinds.map((k) => (
        <Tick key={k} label={newsWords[k]} value={!quiet.has(k)} onChange={() => flip(k)} />
      ))}
      {view.email ? (
        <Tick
          label={`Also as a letter to ${view.email}, at most once a day`}
          value={letter}
          onChange={setLetter}
        />
      ) : (
        <Typography variant="body2">
          It can come as a daily letter too, once the directory has an e-mail address of yours: the
          coordinator adds it.
        </Typography>
      )}
    </Ask>
  );
}
