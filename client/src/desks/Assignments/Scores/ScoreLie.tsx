import { figure, parts } from "./scores";

/** How the marks of an assignment lie on its scale, drawn small; the figures stand beside it in words. */
export function ScoreLie({ scores, points }: { scores: readonly number[]; points: number }) {
  const high = parts(scores, points);
  const most = Math.max(1, ...high);
  return (
    <svg
      viewBox={`0 0 ${high.length} 10`}
      preserveAspectRatio="none"
      className="score-lie"
      aria-hidden="true"
    >
      {high.map((n, i) => (
        <rect key={i} x={i + 0.1} width={0.8} y={10 - (9.4 * n) / most} height={(9.4 * n) / most} />
      ))}
      <line x1="0" x2={high.length} y1="10" y2="10" vectorEffect="non-scaling-stroke" />
    </svg>
  );
}

/** The same in words. */
export const sayLie = (scores: readonly number[]) =>
  `${figure(scores[0])} to ${figure(scores[scores.length - 1])}`;
