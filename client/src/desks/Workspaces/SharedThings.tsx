import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, sendFile, take, type Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Desk, Empty } from "../../parts/Desk";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, forWhomWords } from "../../parts/words";
import { FileButton } from "../../parts/FileButton";

type Thing = Schemas["SharedThing"];

/** The school's list of sites and shared materials: what each is, who it is for, in how many classes it is used. */
export function SharedThings({ me }: { me: Schemas["Me"] }) {
  const school = useSchool();
  const things = useQuery({
    queryKey: ["shared-things"],
    queryFn: () => take(api.GET("/api/shared-things")),
  });
  const [asking, setAsking] = useState<Thing | "new" | null>(null);
  const [binned, setBinned] = useState<Thing | null>(null);
  const [bundle, setBundle] = useState<{ file: File; said: Schemas["ResourcesRead"] } | null>(null);
  const addFile = useAct((file: File) => sendFile("/api/shared-things/files", file, () => {}));
  const bin = useAct(
    (t: Thing) => take(api.DELETE("/api/shared-things/{thingId}", { params: { path: { thingId: t.id } } })),
    (_, t) => setBinned(t),
  );
  const back = useAct(
    (t: Thing) =>
      take(api.POST("/api/shared-things/{thingId}/bring-back", { params: { path: { thingId: t.id } } })),
    () => setBinned(null),
  );
  const read = useAct(
    async (file: File) => ({ file, said: await sendBundle(file, false) }),
    (out) => setBundle(out),
  );
  const apply = useAct(
    (file: File) => sendBundle(file, true),
    () => setBundle(null),
  );
  const list = things.data ?? [];
  const chooser = (label: string, accept: string | undefined, onFile: (f: File) => void) => (
    <FileButton accept={accept} onFiles={([file]) => file && onFile(file)}>
      {label}
    </FileButton>
  );
  return (
    <Desk
      title="Sites and materials"
      wide
      lead="What the school lets its classes use: each teacher ticks what theirs uses, and it stands there for the students."
      slip={
        <>
          <Typography variant="h2">{count(list.length, "thing", "things")} on the list</Typography>
          <Typography>
            {list.filter((t) => t.classes === 0).length === 0
              ? "Each is used in some class."
              : `${list.filter((t) => t.classes === 0).length} used in no class yet.`}
          </Typography>
          <Button variant="contained" onClick={() => setAsking("new")}>
            Add a site…
          </Button>
          {chooser("Add a material…", undefined, (f) => addFile.mutate(f))}
          <Typography variant="h3" component="h2" sx={{ mt: 1 }}>
            OneRoster
          </Typography>
          {chooser("Read resources…", ".zip,.csv", (f) => read.mutate(f))}
          {school.data && (
            <Button
              variant="outlined"
              component="a"
              href={`/api/oneroster/resources?year=${school.data.current}`}
              download
            >
              Download as a bundle
            </Button>
          )}
          <Problem error={addFile.error ?? bin.error ?? back.error ?? read.error} />
          {apply.data && (
            <Typography role="status">
              <StateMark mark="done">
                {apply.data.added} added, {apply.data.changed} changed, {apply.data.removed} taken off
              </StateMark>
            </Typography>
          )}
        </>
      }
    >
      <PlanPlaces me={me} />
      <Problem error={things.error} />
      {binned && (
        <Typography role="status" variant="body2">
          “{binned.title}” is off the list
          {binned.classes > 0 && `, and out of ${count(binned.classes, "class", "classes")}`}.{" "}
          <Link component="button" onClick={() => back.mutate(binned)}>
            Put it back
          </Link>
        </Typography>
      )}
      {things.data && list.length === 0 && (
        <Empty title="Nothing is on the list yet.">
          Sites that are used all year belong here, and papers that every class needs: the school rules, the
          lab safety sheet. Add a site at the right.
        </Empty>
      )}
      {list.length > 0 && (
        <PlainTable
          label="Sites and materials"
          rows={list}
          id={(t) => t.id}
          columns={[
            { head: "Title", cell: (t) => <strong>{t.title}</strong> },
            {
              head: "Address or file",
              cell: (t) =>
                t.url ? (
                  <a href={t.url} target="_blank" rel="noreferrer noopener">
                    {t.url}
                  </a>
                ) : t.fileName ? (
                  <a href={`/api/shared-things/${t.id}/content`} download>
                    {t.fileName}
                  </a>
                ) : (
                  <StateMark mark="attention">no address yet</StateMark>
                ),
              look: "any",
            },
            {
              head: "For",
              cell: (t) =>
                t.forWhom === "SomeGrades"
                  ? `grade ${t.grades.join(", ")}`
                  : t.forWhom === "SomeCourses"
                    ? t.courses.join(", ")
                    : forWhomWords[t.forWhom],
            },
            { head: "Classes", cell: (t) => t.classes, align: "right" },
            {
              head: "",
              cell: (t) => (
                <>
                  <Button onClick={() => setAsking(t)} aria-label={`Change ${t.title}`}>
                    Change…
                  </Button>
                  <Button color="inherit" onClick={() => bin.mutate(t)} aria-label={`Take off ${t.title}`}>
                    Take off
                  </Button>
                </>
              ),
              align: "right",
              look: "line",
            },
          ]}
        />
      )}
      {asking && <ThingForm thing={asking === "new" ? undefined : asking} onClose={() => setAsking(null)} />}
      <Ask
        open={bundle !== null}
        title="Take in these resources?"
        act="Take them in"
        busy={apply.isPending}
        error={apply.error}
        onAct={() => bundle && apply.mutate(bundle.file)}
        onClose={() => setBundle(null)}
      >
        {bundle && (
          <>
            <Typography>
              {bundle.said.added} would be added, {bundle.said.changed} changed, {bundle.said.removed} taken
              off; {bundle.said.same} are the same.
            </Typography>
            {bundle.said.findings.slice(0, 12).map((f) => (
              <Typography key={`${f.line}-${f.column}`} variant="body2">
                <StateMark mark="attention">
                  {f.file}, line {f.line}, {f.column}:
                </StateMark>{" "}
                {f.text}
              </Typography>
            ))}
            {bundle.said.findings.length > 12 && <>and {bundle.said.findings.length - 12} more</>}
          </>
        )}
      </Ask>
    </Desk>
  );
}

const sendBundle = (file: File, apply: boolean) =>
  sendFile<Schemas["ResourcesRead"]>(`/api/oneroster/resources/files?apply=${apply}`, file, () => {});

function ThingForm({ thing, onClose }: { thing?: Thing; onClose: () => void }) {
  const [title, setTitle] = useState(thing?.title ?? "");
  const [url, setUrl] = useState(thing?.url ?? "https://");
  const [forWhom, setForWhom] = useState<Schemas["ForWhom"]>(thing?.forWhom ?? "Everybody");
  const [lines, setLines] = useState(
    (thing?.forWhom === "SomeCourses" ? thing.courses : (thing?.grades ?? [])).join("\n"),
  );
  const isFile = thing?.fileName != null;
  const save = useAct(async (_: void, headers) => {
    const list = lines.split("\n").filter((l) => l.trim());
    const body = {
      title,
      url: isFile ? null : url,
      forWhom,
      grades: forWhom === "SomeGrades" ? list : [],
      courses: forWhom === "SomeCourses" ? list : [],
      version: thing?.version ?? 0,
    };
    if (thing)
      await take(api.PUT("/api/shared-things/{thingId}", { params: { path: { thingId: thing.id } }, body }));
    else await take(api.POST("/api/shared-things", { body, headers }));
  }, onClose);
  const wrong = save.error instanceof ProblemError ? save.error.field : undefined;
  return (
    <Ask
      open
      title={thing ? `Change “${thing.title}”` : "Add a site"}
      act={thing ? "Change it" : "Add the site"}
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate()}
      onClose={onClose}
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 2, pt: 1 }}>
        <TextField
          autoFocus
          label="Title that makes sense to students"
          value={title}
          error={wrong === "title"}
          onChange={(e) => setTitle(e.target.value)}
        />
        {!isFile && (
          <TextField
            label="Address"
            value={url}
            error={wrong === "url"}
            onChange={(e) => setUrl(e.target.value)}
          />
        )}
        <TextField
          select
          label="Who it is for"
          value={forWhom}
          onChange={(e) => setForWhom(e.target.value as Schemas["ForWhom"])}
        >
          {(Object.keys(forWhomWords) as Schemas["ForWhom"][]).map((w) => (
            <MenuItem key={w} value={w}>
              {forWhomWords[w]}
            </MenuItem>
          ))}
        </TextField>
        {(forWhom === "SomeGrades" || forWhom === "SomeCourses") && (
          <TextField
            multiline
            minRows={2}
            label={forWhom === "SomeGrades" ? "Grades, one a line" : "Courses, one a line"}
            value={lines}
            error={wrong === "grades" || wrong === "courses"}
            onChange={(e) => setLines(e.target.value)}
          />
        )}
      </Box>
    </Ask>
  );
}
