import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../../api/client";
import { count } from "../../parts/words";
import { MovedDates } from "./CarryTicks";
import { Staying } from "./Staying";
import { PickOne } from "../../parts/PickOne";

/** A class of next year as it is being decided: from one class or several. */
export interface Line {
  key: string;
  from: number[];
  section?: string;
  period?: string;
  lead?: number;
}

/** What of a class of next year can still be decided, and what it comes to. */
export function NewClass(props: {
  l: Line;
  k: Schemas["LastYearClass"];
  d: Schemas["RollDesk"];
  p: Schemas["RollPreview"] | undefined;
  change: (to: Partial<Line>) => void;
  drop?: () => void;
  open: boolean;
  onOpen: () => void;
}) {
  const { l, k, d, p, change } = props;
  return (
    <Box sx={{ py: 0.5 }}>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        <strong>{p?.name || "…"}</strong>
        {p?.refused ? (
          <Typography component="span" role="alert" variant="body2" sx={{ color: "error.main" }}>
            {p.refused}
          </Typography>
        ) : (
          p && (
            <Typography component="span" variant="body2" sx={{ color: "text.secondary" }}>
              {count(p.folders + p.planAdds, "folder", "folders")}, {count(p.things, "thing", "things")},{" "}
              {count(p.assignments, "draft", "drafts")}
            </Typography>
          )
        )}
        <Button
          onClick={props.onOpen}
          aria-expanded={props.open}
          aria-label={`${props.open ? "Less of" : "See"} ${p?.name ?? "the class"}`}
        >
          {props.open ? "Less" : "See"}
        </Button>
        {props.drop && (
          <Button onClick={props.drop} aria-label={`Not ${p?.name ?? "this one"}`}>
            Not this one
          </Button>
        )}
      </Box>
      <Box sx={{ display: "flex", gap: 1, mt: 0.5 }}>
        <TextField
          label="Section"
          value={l.section ?? k.section ?? ""}
          onChange={(e) => change({ section: e.target.value })}
          sx={{ width: 90 }}
        />
        <TextField
          label="Period"
          value={l.period ?? k.period ?? ""}
          onChange={(e) => change({ period: e.target.value })}
          sx={{ width: 90 }}
        />
        {d.teachers.length > 0 && (
          <PickOne
            label="Lead teacher"
            minWidth={190}
            options={d.teachers}
            value={l.lead ?? k.leadId ?? null}
            onChange={(lead) => lead !== null && change({ lead })}
          />
        )}
      </Box>
      {l.from.length > 1 && (
        <Typography variant="caption" sx={{ color: "text.secondary" }}>
          made of {count(l.from.length, "class", "classes")}: what is the same in two of them stands once
        </Typography>
      )}
    </Box>
  );
}

/** What a class of next year would look like. */
export function NewClassSeen({ p }: { p: Schemas["RollPreview"] | undefined }) {
  if (!p) return null;
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" }, gap: 3 }}>
      <Box
        sx={{ maxHeight: 340, overflow: "auto" }}
        tabIndex={0}
        aria-label="Folders of the new class"
        role="group"
      >
        {p.tree.map((f, i) => (
          <Box key={i} sx={{ pl: f.depth * 2, fontSize: "0.88rem", display: "flex", gap: 1 }}>
            <span>{f.name}</span>
            {f.was && (
              <Box component="span" sx={{ color: "text.secondary" }}>
                was {f.was}
              </Box>
            )}
            <Box sx={{ flex: 1 }} />
            {f.items > 0 && <span>{f.items}</span>}
          </Box>
        ))}
        {p.planAdds > 0 && (
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            The plan adds {count(p.planAdds, "folder", "folders")} for the new calendar. Own folders stand
            ready: one unfolds for each student as they are enrolled.
          </Typography>
        )}
      </Box>
      <Box>
        {p.lines
          .filter((l) => l.comes + l.stays > 0)
          .map((l) => (
            <Typography key={l.what} variant="body2">
              <strong>{l.what}</strong>: {l.comes} come{l.stays > 0 && `, ${l.stays} stay`}.{" "}
              <Box component="span" sx={{ color: "text.secondary" }}>
                {l.why}
              </Box>
            </Typography>
          ))}
        {p.staying.length > 0 && <Staying things={p.staying} more={p.stayingInAll - p.staying.length} />}
        {p.dates.length > 0 && (
          <>
            <Typography variant="h3" component="h2" sx={{ mt: 1 }}>
              Dates
            </Typography>
            <MovedDates dates={p.dates} />
          </>
        )}
      </Box>
    </Box>
  );
}
