import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { StateMark } from "../../parts/StateMark";
import { Written } from "../../parts/Written";
import { sayMoment } from "../../parts/words";
import { together, type Choice } from "./together";

/** Two wrote on one page: what each made of it, stretch by stretch, until the later one has decided. Nothing is dropped unseen. */
export function PageTogether(props: {
  page: Schemas["PageTogether"];
  busy: boolean;
  onSave: (text: string) => void;
  onBack: () => void;
}) {
  const { page } = props;
  const [choices, setChoices] = useState<Record<number, Choice>>({});
  const text = together(page.chunks, choices);
  const open = page.chunks.filter((c, i) => c.kind === "Conflict" && !choices[i]).length;
  return (
    <Box component="section" aria-label="Two wrote on this page">
      <Typography variant="h2">{page.by} wrote on this page too</Typography>
      <Typography sx={{ mb: 1 }}>
        Saved {sayMoment(page.at)}, while you were writing. What only one of you changed is in already.{" "}
        {page.text == null
          ? "Where both changed the same place, choose what is to stand."
          : "You changed different places: look it over and save."}
      </Typography>
      {page.chunks.map((c, i) =>
        c.kind === "Conflict" ? (
          <Box key={i} sx={{ borderTop: 1, borderBottom: 1, borderColor: "divider", py: 1, my: 1 }}>
            <RadioGroup
              aria-label={`Place ${i + 1}, changed by both`}
              value={choices[i] ?? ""}
              onChange={(_, value) => setChoices((all) => ({ ...all, [i]: value as Choice }))}
            >
              <Version value="mine" label="Yours" text={c.mine} />
              <Version value="theirs" label={page.by} text={c.theirs} />
              <FormControlLabel
                value="both"
                control={<Radio />}
                label={`Both, yours first, then ${page.by}’s`}
              />
            </RadioGroup>
          </Box>
        ) : (
          <Stretch key={i} chunk={c} by={page.by} />
        ),
      )}
      <Box sx={{ display: "flex", gap: 1, mt: 1.5, alignItems: "center" }}>
        <Button
          variant="contained"
          disabled={open > 0 || props.busy}
          onClick={() => text !== null && props.onSave(text)}
        >
          Save the page with both
        </Button>
        <Button variant="outlined" onClick={props.onBack}>
          Back to writing
        </Button>
        {open > 0 && (
          <StateMark mark="attention">
            {open === 1 ? "1 place to decide" : `${open} places to decide`}
          </StateMark>
        )}
      </Box>
    </Box>
  );
}

const lines = (l: readonly string[]) => l.join("\n");

function Version({ value, label, text }: { value: Choice; label: string; text: readonly string[] }) {
  return (
    <FormControlLabel
      value={value}
      control={<Radio />}
      sx={{ alignItems: "flex-start" }}
      label={
        <>
          <strong>{label}</strong>
          {lines(text).trim() === "" ? (
            <Typography color="text.secondary">nothing: taken out</Typography>
          ) : (
            <Written text={lines(text)} />
          )}
        </>
      }
    />
  );
}

function Stretch({ chunk: c, by }: { chunk: Schemas["MergeChunk"]; by: string }) {
  const shown = lines(c.kind === "Theirs" ? c.theirs : c.mine);
  if (shown.trim() === "" && c.kind === "Same") return null;
  return (
    <Box
      sx={{
        borderLeft: c.kind === "Same" ? 0 : 3,
        borderColor: "primary.main",
        pl: c.kind === "Same" ? 0 : 1,
      }}
    >
      {c.kind === "Mine" && <Typography variant="caption">you changed</Typography>}
      {c.kind === "Theirs" && <Typography variant="caption">{by} changed</Typography>}
      {shown.trim() === "" ? (
        <Typography color="text.secondary">taken out</Typography>
      ) : (
        <Written text={shown} />
      )}
    </Box>
  );
}
