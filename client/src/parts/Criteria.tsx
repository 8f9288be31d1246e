import type { Schemas } from "../api/client";
import "./criteria.css";

/** What work is judged by, with the levels of each; those that were reached stand out, by more than their colour. */
export function Criteria(props: { scheme: Schemas["MarkScheme"]; chosen?: readonly number[] | null }) {
  const { scheme, chosen } = props;
  if (scheme.criteria.length === 0) return null;
  return (
    <ul className="criteria" aria-label="Criteria">
      {scheme.criteria.map((c, n) => (
        <li key={n}>
          <strong>{c.name}</strong>
          <ol>
            {c.levels.map((l, m) => (
              <li key={m} data-reached={chosen?.[n] === m || undefined}>
                {chosen?.[n] === m && <span className="only-heard">reached: </span>}
                <span>
                  {l.name} <small>{l.points}</small>
                </span>
                {l.says && <span className="criteria-says">{l.says}</span>}
              </li>
            ))}
          </ol>
        </li>
      ))}
    </ul>
  );
}
