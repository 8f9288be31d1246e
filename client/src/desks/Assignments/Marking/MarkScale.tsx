import type { Schemas } from "../../../api/client";
import { dotsOf } from "./marking";

const figure = (n?: number | null) =>
  n == null ? "–" : n.toLocaleString(undefined, { maximumFractionDigits: 2 });

const along = (part: number) => `${100 * part}%`;

/** The scale of a mark with the marks of the others on it as dots: filled where returned, open where a draft. */
export function MarkScale(props: {
  points: number;
  /** What is typed; null for nothing. */
  mark: number | null;
  others: readonly Schemas["MarkingPiece"][];
  /** Null where the pieces are of different assignments: those are no population. */
  numbers: Schemas["ScoreNumbers"] | null;
  /** Left out where a mark is chosen otherwise: then the drawing is only looked at. */
  onMark?: (mark: number) => void;
}) {
  const { points, numbers } = props;
  const dots = dotsOf(props.others, points);
  const high = Math.max(4, ...dots.map((d) => d.up + 1));
  const step = Math.min(7, 44 / high);
  const every = [1, 2, 5, 10, 20, 25, 50, 100, 250, 500, 1000, 2500].find((n) => points / n <= 8) ?? points;
  const ticks = Array.from({ length: Math.floor(points / every) + 1 }, (_, n) => n * every);
  const marked = props.mark !== null && !Number.isNaN(props.mark) && props.mark >= 0 && props.mark <= points;
  return (
    <div className="mark-scale">
      <svg aria-hidden="true">
        {dots.map((d, n) => (
          <circle
            key={n}
            cx={along(d.at)}
            cy={46 - d.up * step}
            r={Math.min(3, step / 2)}
            className={d.draft ? "draft" : ""}
          />
        ))}
        <line x1="0" x2="100%" y1="52" y2="52" />
        {ticks.map((t) => (
          <g key={t}>
            <line x1={along(t / points)} x2={along(t / points)} y1="52" y2="58" />
            <text x={along(t / points)} y="78">
              {t}
            </text>
          </g>
        ))}
      </svg>
      {props.onMark && (
        <input
          type="range"
          min={0}
          max={points}
          step={points <= 5 ? 0.5 : 1}
          value={marked ? props.mark! : 0}
          data-none={!marked || undefined}
          aria-label="The mark on its scale"
          aria-valuetext={marked ? `${props.mark} of ${points}` : "no mark yet"}
          onChange={(e) => props.onMark?.(Number(e.target.value))}
        />
      )}
      {numbers && (
        <p>
          {numbers.count === 0
            ? "No mark is returned yet."
            : `Returned: ${numbers.count}, mean ${figure(numbers.mean)}, median ${figure(numbers.median)}, standard deviation ${figure(numbers.deviation)}`}
        </p>
      )}
    </div>
  );
}
