import Autocomplete from "@mui/material/Autocomplete";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Problem } from "../../../parts/Problem";
import { PlainTable } from "../../../parts/table/PlainTable";
import { withPhrase } from "./phrases";

/** Phrases of one's own, found by typing and put into the comment; what stands in the comment can be kept as one. */
export function PhraseBox(props: { first: string; comment: string; onComment: (text: string) => void }) {
  const [typed, setTyped] = useState("");
  const [listed, setListed] = useState(false);
  const phrases = useQuery({ queryKey: ["phrases"], queryFn: () => take(api.GET("/api/phrases")) });
  const keep = useAct((text: string, headers) => take(api.POST("/api/phrases", { body: { text }, headers })));
  const remove = useAct((phraseId: number, headers) =>
    take(api.DELETE("/api/phrases/{phraseId}", { params: { path: { phraseId } }, headers })),
  );
  const all = phrases.data ?? [];
  const said = props.comment.trim();
  return (
    <div className="judge-phrases">
      {all.length > 0 && (
        <Autocomplete
          size="small"
          autoHighlight
          clearOnEscape
          options={all}
          value={null}
          inputValue={typed}
          onInputChange={(_, text, why) => setTyped(why === "input" ? text : "")}
          getOptionLabel={(p) => p.text}
          getOptionKey={(p) => p.id}
          onChange={(_, p) => p && props.onComment(withPhrase(props.comment, p.text, props.first))}
          renderInput={(p) => <TextField {...p} label="A phrase of yours" placeholder="type some of it" />}
        />
      )}
      {said !== "" && !all.some((p) => p.text === said) && (
        <Button disabled={keep.isPending} onClick={() => keep.mutate(said)}>
          Keep it as a phrase
        </Button>
      )}
      {all.length > 0 && <Button onClick={() => setListed(true)}>All phrases…</Button>}
      <Problem error={keep.error ?? phrases.error} />
      {listed && (
        <Ask
          open
          wide
          title="Your phrases"
          act="Done"
          error={remove.error}
          onAct={() => setListed(false)}
          onClose={() => setListed(false)}
        >
          <PlainTable
            label="Your phrases"
            rows={all}
            id={(p) => p.id}
            columns={[
              { head: "Phrase", main: true, look: "any", cell: (p) => p.text },
              {
                head: "",
                align: "right",
                cell: (p) => (
                  <Button aria-label={`Remove: ${p.text}`} onClick={() => remove.mutate(p.id)}>
                    Remove
                  </Button>
                ),
              },
            ]}
          />
        </Ask>
      )}
    </div>
  );
}
