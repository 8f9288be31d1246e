import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import type { Schemas } from "../api/client";
import "./levels.css";
import { typedNumber } from "./typedNumber";

/** A level as it is typed. */
export interface TypedLevel {
  name: string;
  points: string;
  says: string;
}

/** Levels as they are typed. */
export const typedLevels = (levels: readonly Schemas["MarkLevel"][]): TypedLevel[] =>
  levels.map((l) => ({ name: l.name, points: String(l.points), says: l.says ?? "" }));

/** What is sent of them; what is no number yet counts nothing until its field says so. */
export const levelsOf = (levels: readonly TypedLevel[]): Schemas["MarkLevel"][] =>
  levels.map((l) => {
    const points = typedNumber(l.points);
    return {
      name: l.name.trim(),
      points: points === null || Number.isNaN(points) ? 0 : points,
      says: l.says.trim() || null,
    };
  });

/** Levels of a scale or of a criterion as lines: what each is called, what it counts, what it takes. */
export function LevelLines(props: {
  of: string;
  levels: readonly TypedLevel[];
  onLevels: (levels: TypedLevel[]) => void;
}) {
  const { of, levels, onLevels } = props;
  const change = (n: number, to: Partial<TypedLevel>) =>
    onLevels(levels.map((l, m) => (m === n ? { ...l, ...to } : l)));
  return (
    <div className="level-lines">
      {levels.map((l, n) => {
        const points = typedNumber(l.points);
        return (
          <div key={n} role="group" aria-label={`Level ${n + 1} of ${of}`}>
            <TextField
              size="small"
              label="Level"
              value={l.name}
              onChange={(e) => change(n, { name: e.target.value })}
            />
            <TextField
              size="small"
              label="Points"
              value={l.points}
              error={l.points.trim() !== "" && (points === null || Number.isNaN(points))}
              slotProps={{ htmlInput: { inputMode: "decimal" } }}
              onChange={(e) => change(n, { points: e.target.value })}
            />
            <TextField
              size="small"
              label="What it takes"
              value={l.says}
              onChange={(e) => change(n, { says: e.target.value })}
            />
            <Button
              color="inherit"
              disabled={levels.length <= 2}
              aria-label={`Take out level ${n + 1} of ${of}`}
              onClick={() => onLevels(levels.filter((_, m) => m !== n))}
            >
              Take out
            </Button>
          </div>
        );
      })}
      <Button color="inherit" onClick={() => onLevels([...levels, { name: "", points: "", says: "" }])}>
        Add a level
      </Button>
    </div>
  );
}
