import Typography from "@mui/material/Typography";
import type { Schemas } from "../../api/client";
import { count, sayDay, sayBytes } from "../../parts/words";

type Seen = Schemas["RulesView"];

/** What other rules would do, before they are laid down. */
export function WhatItMeans({
  rules,
  preview,
}: {
  rules: Seen;
  preview: Schemas["RulesPreview"] | undefined;
}) {
  if (!preview) return <Typography variant="h2">Laid down as you see it</Typography>;
  const said = [
    preview.askedToSetUp > 0 &&
      `${count(preview.askedToSetUp, "person is", "people are")} asked to set up a second step when they sign in next.`,
    preview.lines > 0 && `${count(preview.lines, "line", "lines")} of the audit trail would go.`,
    preview.people > 0 &&
      `${count(preview.people, "person who left", "people who left")} would be erased, unless something of theirs still waits.`,
    preview.fullClasses.length > 0 &&
      `${count(preview.fullClasses.length, "class has", "classes have")} more in it than that: ${preview.fullClasses.map((k) => k.name).join(", ")}. Nothing more would go in.`,
  ].filter((s) => s !== false);
  return (
    <>
      <Typography variant="h2">With these rules</Typography>
      {said.length === 0 ? (
        <Typography>Nothing goes, and nobody is asked anything today.</Typography>
      ) : (
        said.map((s) => <Typography key={s}>{s}</Typography>)
      )}
      <Typography variant="body2" sx={{ color: "text.secondary" }}>
        Version {rules.version} holds until you lay them down.
      </Typography>
    </>
  );
}

/** What takes the room. */
export function Usage({ seen }: { seen: Seen }) {
  return (
    <>
      <Typography variant="h2">Used</Typography>
      <Typography>
        {sayBytes(seen.schoolBytes)}
        {seen.rules.schoolGigabytes === null
          ? " in all files of the school."
          : ` of ${seen.rules.schoolGigabytes} GB.`}
      </Typography>
      {seen.largestClasses.length > 0 && (
        <Typography variant="body2">
          Most in classes: {seen.largestClasses.map((k) => `${k.name} (${sayBytes(k.bytes)})`).join("; ")}.
        </Typography>
      )}
      {seen.largestPeople.length > 0 && (
        <Typography variant="body2">
          Most put in by: {seen.largestPeople.map((p) => `${p.name} (${sayBytes(p.bytes)})`).join("; ")}.
        </Typography>
      )}
    </>
  );
}

/** What the program let go of by the rules. */
export function LetGo({ seen }: { seen: Seen }) {
  return (
    <>
      <Typography variant="h2">Let go of</Typography>
      {seen.letGo.length === 0 ? (
        <Typography variant="body2">Nothing so far.</Typography>
      ) : (
        seen.letGo.map((l) => (
          <Typography variant="body2" key={`${l.day} ${l.kind}`}>
            {sayDay(l.day)}: {l.many.toLocaleString()} {l.kind}
          </Typography>
        ))
      )}
    </>
  );
}
