import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useController, type Control } from "react-hook-form";
import { api, take } from "../../../api/client";
import { TextPart } from "../../../parts/form/TextPart";
import { done, isDone } from "../../../parts/marks";
import { typedNumber } from "../../../parts/typedNumber";
import { blankCriterion, schemeOf, type Typed } from "./giving";
import { LevelLines } from "../../../parts/LevelLines";

/** How it is marked: in points, complete or not yet, on a scale of the school's, or by criteria with levels. */
export function MarkedPart({ control }: { control: Control<Typed> }) {
  const marked = useController({ control, name: "marked" });
  const scale = useController({ control, name: "scale" });
  const criteria = useController({ control, name: "criteria" });
  const scales = useQuery({ queryKey: ["scales"], queryFn: () => take(api.GET("/api/school/scales")) });
  const known = scales.data ?? [];
  const own = scale.field.value;
  // A scale that the school has no more, or has changed, stays with what was given with it.
  const kept =
    marked.field.value === "scale" &&
    own !== null &&
    !isDone(own) &&
    !known.some((s) => s.name === own.scale && JSON.stringify(s.levels) === JSON.stringify(own.levels));
  const value =
    marked.field.value !== "scale" || own === null
      ? marked.field.value
      : isDone(own)
        ? "done"
        : kept
          ? "kept"
          : `scale:${known.find((s) => s.name === own.scale)?.id}`;
  const choose = (v: string) => {
    if (v === "points" || v === "criteria") return marked.field.onChange(v);
    const s = known.find((k) => `scale:${k.id}` === v);
    marked.field.onChange("scale");
    if (v === "done") scale.field.onChange(done);
    else if (s) scale.field.onChange({ scale: s.name, levels: s.levels, criteria: [] });
  };
  const full = schemeOf({ marked: "criteria", scale: null, criteria: criteria.field.value })?.criteria.reduce(
    (sum, c) => sum + Math.max(0, ...c.levels.map((l) => l.points)),
    0,
  );
  return (
    <>
      <div className="give-line">
        <TextField select label="Marked" value={value} onChange={(e) => choose(e.target.value)}>
          <MenuItem value="points">in points</MenuItem>
          <MenuItem value="done">{done.scale}</MenuItem>
          {known.map((s) => (
            <MenuItem key={s.id} value={`scale:${s.id}`}>
              on the scale {s.name}
            </MenuItem>
          ))}
          {kept && <MenuItem value="kept">on the scale {own.scale} as it was</MenuItem>}
          <MenuItem value="criteria">by criteria</MenuItem>
        </TextField>
        {marked.field.value === "points" && (
          <TextPart
            control={control}
            name="points"
            label="Points (empty for none)"
            check={(t) =>
              Number.isNaN(typedNumber(t))
                ? `“${t.trim()}” is no number: type one like 20, or leave it empty.`
                : undefined
            }
          />
        )}
      </div>
      {marked.field.value === "scale" && own && !isDone(own) && (
        <Typography variant="body2">{own.levels.map((l) => `${l.name} (${l.points})`).join(", ")}</Typography>
      )}
      {marked.field.value === "criteria" && (
        <div className="give-criteria">
          {criteria.field.value.map((c, n) => (
            <fieldset key={n} aria-label={c.name.trim() || `Criterion ${n + 1}`}>
              <div className="give-criterion">
                <TextField
                  size="small"
                  fullWidth
                  label={`Criterion ${n + 1}`}
                  value={c.name}
                  onChange={(e) =>
                    criteria.field.onChange(
                      criteria.field.value.map((x, m) => (m === n ? { ...x, name: e.target.value } : x)),
                    )
                  }
                />
                <Button
                  color="inherit"
                  disabled={criteria.field.value.length === 1}
                  aria-label={`Take out criterion ${n + 1}`}
                  onClick={() => criteria.field.onChange(criteria.field.value.filter((_, m) => m !== n))}
                >
                  Take out
                </Button>
              </div>
              <LevelLines
                of={c.name.trim() || `criterion ${n + 1}`}
                levels={c.levels}
                onLevels={(levels) =>
                  criteria.field.onChange(
                    criteria.field.value.map((x, m) => (m === n ? { ...x, levels } : x)),
                  )
                }
              />
            </fieldset>
          ))}
          <Button
            variant="outlined"
            onClick={() => criteria.field.onChange([...criteria.field.value, blankCriterion()])}
          >
            Add a criterion
          </Button>
          <Typography variant="body2" role="status">
            Full marks: {Math.round((full ?? 0) * 100) / 100}
          </Typography>
        </div>
      )}
    </>
  );
}
