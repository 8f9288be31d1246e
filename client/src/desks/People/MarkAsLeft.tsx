import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

const MostNamed = 4;

/** Marks people as having left: off which rosters they come, and where their work still holds them. */
export function MarkAsLeft(props: {
  people: Schemas["DirectoryRow"][];
  onDone: () => void;
  onClose: () => void;
}) {
  const [off, setOff] = useState(true);
  const ids = props.people.map((p) => p.id);
  const places = useQuery({
    queryKey: ["leaving", ids],
    queryFn: () => take(api.GET("/api/people/leaving", { params: { query: { people: ids } } })),
  });
  const mark = useAct(
    (_: void, headers) =>
      take(api.PUT("/api/people/active", { body: { people: ids, active: false, offRosters: off }, headers })),
    () => {
      props.onClose();
      props.onDone();
    },
  );
  const free = places.data?.filter((p) => !p.whyNot) ?? [];
  const held = places.data?.filter((p) => p.whyNot) ?? [];
  const names = [...new Set(free.map((p) => p.className))];
  const named =
    names.slice(0, MostNamed).join(", ") +
    (names.length > MostNamed ? `, and ${names.length - MostNamed} more` : "");
  return (
    <Ask
      open
      title={`Mark ${count(props.people.length, "person", "people")} as having left?`}
      act="Mark them as having left"
      busy={mark.isPending || places.isPending}
      error={mark.error ?? places.error}
      onAct={() => mark.mutate()}
      onClose={props.onClose}
    >
      <Typography>
        They can no longer sign in. Their work, marks and folders stay, and so does their user name, which
        nobody else ever gets. They can be marked as back; rosters they came off they are put on again by
        hand.
      </Typography>
      {free.length > 0 && (
        <FormControlLabel
          control={<Checkbox checked={off} onChange={(e) => setOff(e.target.checked)} />}
          label={`Take them off ${free.length > names.length ? `${free.length} places on ` : ""}${count(names.length, "roster", "rosters")}: ${named}`}
          sx={{ mt: 1, alignItems: "flex-start", overflowWrap: "anywhere" }}
        />
      )}
      {held.length > 0 && (
        <Box component="ul" aria-label="Where they stay" sx={{ listStyle: "none", p: 0, m: 0, mt: 1 }}>
          {held.map((p) => (
            <li key={`${p.person}-${p.class}`}>
              <StateMark mark="attention">stays on {p.className}</StateMark>
              <Typography variant="body2" sx={{ color: "text.secondary", pl: 2.25 }}>
                {p.whyNot}
              </Typography>
            </li>
          ))}
        </Box>
      )}
      {places.data?.length === 0 && (
        <Typography sx={{ mt: 1 }}>They are on no roster of a class that is not archived.</Typography>
      )}
    </Ask>
  );
}
