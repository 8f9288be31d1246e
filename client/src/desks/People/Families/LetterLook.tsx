import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { Ask } from "../../../parts/Ask";
import { Problem } from "../../../parts/Problem";
import { Tick } from "../../../parts/Tick";

/** Letters as they would go out now, one contact after another. To look sends nothing. */
export function LetterLook(props: {
  contacts: Schemas["ContactLine"][];
  first?: number;
  weekly: Schemas["WeeklyView"];
  onClose: () => void;
}) {
  const { contacts } = props;
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      contacts.findIndex((k) => (props.first === undefined ? k.why === null : k.id === props.first)),
    ),
  );
  const [marks, setMarks] = useState(props.weekly.marks);
  const queries = useQueryClient();
  const k = contacts[at]!;
  const letter = useQuery({
    queryKey: ["letter-look", k.id, k.version, marks],
    staleTime: Infinity,
    gcTime: 0,
    queryFn: async () => {
      const seen = await take(
        api.POST("/api/families/{contactId}/letter", {
          params: { path: { contactId: k.id }, query: { marks } },
        }),
      );
      // That one was looked at stands on the desk behind.
      void queries.invalidateQueries({ queryKey: ["families"] });
      return seen;
    },
  });
  return (
    <Ask
      open
      wide
      looks
      title="The letter as it would go out now"
      act="Done looking"
      onAct={props.onClose}
      onClose={props.onClose}
    >
      <div className="letter-turn">
        <Button variant="outlined" disabled={at === 0} onClick={() => setAt(at - 1)}>
          The one before
        </Button>
        <Button variant="outlined" disabled={at + 1 >= contacts.length} onClick={() => setAt(at + 1)}>
          The next one
        </Button>
        <span aria-live="polite">
          {at + 1} of {contacts.length}
        </span>
        <Tick label="With marks" value={marks} onChange={setMarks} />
      </div>
      <Problem error={letter.error} />
      {letter.data && (
        <>
          <Typography variant="body2">To: {letter.data.to}</Typography>
          <Typography variant="body2">About: {letter.data.subject}</Typography>
          {letter.data.text === null ? (
            <Typography className="under">
              There is nothing to say to them this week: no letter would go.
            </Typography>
          ) : (
            // It scrolls, so the keys must reach it.
            // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
            <pre className="letter-paper under" lang={letter.data.language} tabIndex={0}>
              {letter.data.text}
            </pre>
          )}
        </>
      )}
    </Ask>
  );
}
