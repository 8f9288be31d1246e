import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import type { KeyboardEvent, RefObject } from "react";
import type { Schemas } from "../../../api/client";
import { chosenOf, isDone, keptOf, sumOf } from "../../../parts/marks";
import { typedNumber } from "../../../parts/typedNumber";
import { MarkScale } from "./MarkScale";
import { stepped } from "./marking";

/** What is typed or chosen as a mark: its figure, its levels, and what is wrong with it. */
export function readMark(kept: string, points: number | null, scheme: Schemas["MarkScheme"] | null) {
  if (scheme && scheme.criteria.length > 0) {
    const chosen = chosenOf(kept, scheme.criteria.length);
    const some = chosen.some((c) => c !== null);
    const score = sumOf(scheme, chosen);
    return {
      score,
      chosen: score === null ? null : (chosen as number[]),
      wrong: some && score === null ? "Choose a level for each criterion." : null,
    };
  }
  const score = typedNumber(kept);
  const wrong = Number.isNaN(score)
    ? `“${kept.trim()}” is no number.`
    : points !== null && score !== null && (score < 0 || score > points)
      ? `From 0 to ${points}.`
      : null;
  return { score, chosen: null, wrong };
}

/** The place where a mark is given: a figure on its ruled scale, one of some levels, or a level for each criterion. */
export function MarkInput(props: {
  points: number;
  scheme: Schemas["MarkScheme"] | null;
  kept: string;
  onKept: (kept: string) => void;
  wrong: string | null;
  others: readonly Schemas["MarkingPiece"][];
  numbers: Schemas["ScoreNumbers"] | null;
  field: RefObject<HTMLInputElement | null>;
  /** Keys that are the same wherever the mark is given. */
  onKeys: (e: KeyboardEvent) => void;
}) {
  const { points, scheme, kept, onKept } = props;
  const { score } = readMark(kept, points, scheme);
  const scale = (
    <MarkScale
      points={points}
      mark={score}
      others={props.others}
      numbers={props.numbers}
      onMark={scheme ? undefined : (m) => onKept(String(m))}
    />
  );
  if (!scheme) {
    const onKeys = (e: KeyboardEvent) => {
      props.onKeys(e);
      if (e.key !== "ArrowUp" && e.key !== "ArrowDown") return;
      e.preventDefault();
      onKept(String(stepped(score, e.key === "ArrowUp" ? 1 : -1, points)));
    };
    return (
      <>
        <TextField
          inputRef={props.field}
          label={`Mark, of ${points}`}
          value={kept}
          error={props.wrong !== null}
          helperText={props.wrong}
          onKeyDown={onKeys}
          onChange={(e) => onKept(e.target.value)}
          slotProps={{ htmlInput: { inputMode: "decimal", autoComplete: "off", "data-mark": true } }}
        />
        {scale}
      </>
    );
  }
  if (scheme.criteria.length === 0)
    return (
      <>
        <Levels
          name="Mark"
          levels={scheme.levels}
          chosen={score === null ? null : scheme.levels.findIndex((l) => l.points === score)}
          onChoose={(n) => onKept(String(scheme.levels[n]!.points))}
          field={props.field}
          onKeys={props.onKeys}
          points={!isDone(scheme)}
        />
        <NoLevel kept={kept} onKept={onKept} />
        {!isDone(scheme) && scale}
      </>
    );
  const chosen = chosenOf(kept, scheme.criteria.length);
  return (
    <div className="judge-criteria">
      {scheme.criteria.map((c, n) => (
        <Levels
          key={n}
          name={c.name}
          levels={c.levels}
          chosen={chosen[n] ?? null}
          onChoose={(level) => onKept(keptOf(chosen.map((x, m) => (m === n ? level : x))))}
          field={n === 0 ? props.field : undefined}
          onKeys={props.onKeys}
          points
        />
      ))}
      <NoLevel kept={kept} onKept={onKept} />
      <p role="status">
        {score === null ? (props.wrong ?? "No level is chosen yet.") : `Together ${score} of ${points}`}
      </p>
    </div>
  );
}

/** Takes away what was chosen: no mark is given then. */
const NoLevel = (props: { kept: string; onKept: (kept: string) => void }) =>
  props.kept !== "" && (
    <Button color="inherit" onClick={() => props.onKept("")}>
      No level
    </Button>
  );

/** The levels of a scale or of a criterion, one of which is chosen: by a click, the arrows up and down, or its number. */
function Levels(props: {
  name: string;
  levels: readonly Schemas["MarkLevel"][];
  chosen: number | null;
  onChoose: (level: number) => void;
  field?: RefObject<HTMLInputElement | null>;
  onKeys: (e: KeyboardEvent) => void;
  points: boolean;
}) {
  const at = props.chosen === null || props.chosen < 0 ? null : props.chosen;
  const says = at === null ? null : props.levels[at]?.says;
  const onKeys = (e: KeyboardEvent<HTMLInputElement>) => {
    props.onKeys(e);
    const n = Number(e.key) - 1;
    if (e.ctrlKey || e.metaKey || e.altKey || !(n >= 0 && n < props.levels.length)) return;
    e.preventDefault();
    props.onChoose(n);
    // On to the next criterion, so that levels are typed one after another.
    const row = e.currentTarget.closest("fieldset")!;
    const next = row.nextElementSibling;
    if (next instanceof HTMLFieldSetElement)
      (next.querySelector<HTMLInputElement>("input:checked") ?? next.querySelector("input"))?.focus();
    else row.querySelectorAll("input")[n]?.focus();
  };
  return (
    <fieldset className="judge-levels">
      <legend>{props.name}</legend>
      {props.levels.map((l, n) => (
        <label key={n} title={l.says ?? undefined}>
          <input
            type="radio"
            name={`level-${props.name}`}
            data-mark
            ref={n === (at ?? 0) ? props.field : undefined}
            checked={at === n}
            onChange={() => props.onChoose(n)}
            onKeyDown={onKeys}
          />
          <span>
            {n < 9 && <kbd aria-hidden="true">{n + 1}</kbd>} {l.name}
            {props.points && <small> {l.points}</small>}
          </span>
        </label>
      ))}
      {says && <p className="soft">{says}</p>}
    </fieldset>
  );
}
