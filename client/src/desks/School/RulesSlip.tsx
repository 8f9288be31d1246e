import Typography from "@mui/material/Typography";
import type { Schemas } from "../../api/client";
import { count, sayDay, sayBytes } from "../../parts/words";

type Seen = Schemas["RulesView"];

const letGoWords: Record<Schemas["LetGoKind"], [one: string, many: string]> = {
  Activity: ["day of a student’s activity", "days of students’ activity"],
  TakeHomes: ["take-home of somebody who left", "take-homes of people who left"],
  Letters: ["letter", "letters"],
  AuditLines: ["line of the audit trail", "lines of the audit trail"],
  People: ["person who left, erased", "people who left, erased"],
};

/** What other rules would do, before they are laid down. */
export function WhatItMeans({ preview }: { preview: Schemas["RulesPreview"] | undefined }) {
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
      <Most of="Most in classes" rows={seen.largestClasses} />
      <Most of="Most put in by" rows={seen.largestPeople} />
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
            {sayDay(l.day)}: {count(l.many, ...letGoWords[l.kind])}
          </Typography>
        ))
      )}
    </>
  );
}

function Most({ of, rows }: { of: string; rows: Schemas["UsageRow"][] }) {
  if (rows.length === 0) return null;
  return (
    <div>
      <Typography variant="body2" sx={{ color: "text.secondary" }}>
        {of}
      </Typography>
      {rows.map((r) => (
        <Typography variant="body2" key={r.id}>
          {r.name}, {sayBytes(r.bytes)}
        </Typography>
      ))}
    </div>
  );
}
