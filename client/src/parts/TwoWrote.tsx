import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { StateMark } from "./StateMark";
import { Written } from "./Written";
import { sayMoment } from "./words";

interface Stretch<Part> {
  kind: Schemas["MergeKind"];
  mine: readonly Part[];
  theirs: readonly Part[];
}

/** Two wrote on one thing: what each made of it, stretch by stretch, until the later one has decided. Nothing is dropped unseen. */
export function TwoWrote<Part>(props: {
  /** What they wrote on, as "page". */
  what: string;
  met: { by: string; at?: string | null; chunks: readonly Stretch<Part>[]; open: number };
  choices: readonly Schemas["MergeChoice"][];
  onChoose: (place: number, side: Schemas["MergeSide"]) => void;
  /** How parts are shown; null where they show nothing. */
  show: (parts: readonly Part[]) => ReactNode;
  act: string;
  busy: boolean;
  onAct: () => void;
  onBack: () => void;
  children?: ReactNode;
}) {
  const { met } = props;
  return (
    <Box component="section" aria-label={`Two wrote on this ${props.what}`}>
      <Typography variant="h2">
        {met.by} wrote on this {props.what} too
      </Typography>
      <Typography sx={{ mb: 1 }}>
        {met.at ? `Saved ${sayMoment(met.at)}, while` : "It was saved while"} you were writing. What only one
        of you changed is in already.{" "}
        {met.chunks.some((c) => c.kind === "Conflict")
          ? "Where both changed the same place, choose what is to stand."
          : "You changed different places: look it over and save."}
      </Typography>
      {met.chunks.map((c, i) =>
        c.kind === "Conflict" ? (
          <Box key={i} sx={{ borderTop: 1, borderBottom: 1, borderColor: "divider", py: 1, my: 1 }}>
            <RadioGroup
              aria-label={`Place ${i + 1}, changed by both`}
              value={props.choices.find((x) => x.place === i)?.side ?? ""}
              onChange={(_, value) => props.onChoose(i, value as Schemas["MergeSide"])}
            >
              <Side value="Mine" label="Yours">
                {props.show(c.mine)}
              </Side>
              <Side value="Theirs" label={met.by}>
                {props.show(c.theirs)}
              </Side>
              <FormControlLabel
                value="Both"
                control={<Radio />}
                label={`Both, yours first, then ${met.by}’s`}
              />
            </RadioGroup>
          </Box>
        ) : (
          <Settled key={i} kind={c.kind} by={met.by}>
            {props.show(c.kind === "Theirs" ? c.theirs : c.mine)}
          </Settled>
        ),
      )}
      {props.children}
      <Box sx={{ display: "flex", gap: 1, mt: 1.5, alignItems: "center", flexWrap: "wrap" }}>
        <Button variant="contained" type="button" disabled={met.open > 0 || props.busy} onClick={props.onAct}>
          {props.act}
        </Button>
        <Button variant="outlined" onClick={props.onBack}>
          Back to writing
        </Button>
        {met.open > 0 && (
          <StateMark mark="attention">
            {met.open === 1 ? "1 place to decide" : `${met.open} places to decide`}
          </StateMark>
        )}
      </Box>
    </Box>
  );
}

/** Lines of a text; null where there is nothing to read. */
export const showLines = (lines: readonly string[]) =>
  lines.join("\n").trim() === "" ? null : <Written text={lines.join("\n")} />;

function Side(props: { value: Schemas["MergeSide"]; label: string; children: ReactNode }) {
  return (
    <FormControlLabel
      value={props.value}
      control={<Radio />}
      sx={{ alignItems: "flex-start" }}
      label={
        <>
          <strong>{props.label}</strong>
          {props.children ?? <Typography color="text.secondary">nothing: taken out</Typography>}
        </>
      }
    />
  );
}

function Settled(props: { kind: Schemas["MergeKind"]; by: string; children: ReactNode }) {
  const same = props.kind === "Same";
  if (same && props.children === null) return null;
  return (
    <Box sx={{ borderLeft: same ? 0 : 3, borderColor: "primary.main", pl: same ? 0 : 1 }}>
      {props.kind === "Mine" && <Typography variant="caption">you changed</Typography>}
      {props.kind === "Theirs" && <Typography variant="caption">{props.by} changed</Typography>}
      {props.kind === "Both" && <Typography variant="caption">both changed it alike</Typography>}
      {props.children ?? <Typography color="text.secondary">taken out</Typography>}
    </Box>
  );
}
