import type { Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { count } from "../../parts/words";
import { placeIn, yearOver } from "./twoYears";
import "./two-years.css";

const width = 640;
const above = 24;
const below = 76;

/** Dates on both years, one above the other: each from where it was to where it goes; those that gave way stand out. */
export function TwoYears({ dates }: { dates: Schemas["CarriedDate"][] }) {
  const years = useSchool().data?.years ?? [];
  const was = yearOver(
    years,
    dates.map((d) => d.moved.was),
  );
  const will = yearOver(
    years,
    dates.map((d) => d.moved.will),
  );
  if (!was || !will || dates.length === 0) return null;
  const flagged = dates.filter((d) => d.moved.flagged).length;
  return (
    <svg
      className="two-years"
      viewBox={`0 0 ${width} ${below + 24}`}
      role="img"
      aria-label={`${count(dates.length, "date moves", "dates move")} from ${was.label} to ${will.label}, ${flagged === 0 ? "none gives way" : `${flagged} ${flagged === 1 ? "gives" : "give"} way`}`}
    >
      {[
        { year: was, y: above, label: 15 },
        { year: will, y: below, label: below + 22 },
      ].map(({ year, y, label }) => (
        <g key={y}>
          {year.terms.map((t) => (
            <line
              key={t.first}
              className="two-years-term"
              x1={width * placeIn(year, t.first)}
              x2={width * placeIn(year, t.last)}
              y1={y}
              y2={y}
            />
          ))}
          <text className="two-years-label" x={0} y={label}>
            {year.label}
          </text>
        </g>
      ))}
      {/* Those that gave way lie on top. */}
      {[...dates]
        .sort((a, b) => Number(a.moved.flagged) - Number(b.moved.flagged))
        .map((d) => {
          const x1 = width * placeIn(was, d.moved.was);
          const x2 = width * placeIn(will, d.moved.will);
          return (
            <g key={d.assignment} className={d.moved.flagged ? "two-years-flagged" : "two-years-moved"}>
              <title>{d.title}</title>
              <line x1={x1} y1={above + 3} x2={x2} y2={below - 4} />
              {d.moved.flagged ? (
                <path d={`M${x2} ${below - 5}l5 5-5 5-5-5Z`} />
              ) : (
                <circle cx={x2} cy={below} r={3} />
              )}
            </g>
          );
        })}
    </svg>
  );
}
