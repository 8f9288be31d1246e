import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { api, take } from "../../api/client";
import { useBinSpan, useHead } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { isTyping, useKeyList } from "../../parts/keys";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayBytes, sayMoment } from "../../parts/words";
import "./tidy.css";

type Done = { kind: "file" | "keep" | "bin"; id: number; name: string; thing: string };

const keyList: [string, string][] = [
  ["F", "file it in the folder that is chosen; once more where students would see it"],
  ["K", "keep it among your own papers"],
  ["B", "bin it"],
  ["N", "leave it, go to the next"],
  ["U", "undo the last"],
];

/** What stands in no folder, one thing after another: file it, keep it, bin it, or go on. */
export function TidyDesk() {
  const span = useBinSpan();
  const id = Number(useParams().id);
  const path = { classId: id };
  const head = useHead(id);
  const desk = useQuery({
    queryKey: ["tidy", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/tidy", { params: { path } })),
  });
  useKeyList(keyList);
  const [passed, setPassed] = useState<number[]>([]);
  const [chosen, setChosen] = useState<{ thing: number; folder: number } | null>(null);
  const [done, setDone] = useState<Done[]>([]);
  const things = desk.data?.things ?? [];
  const thing = things.find((t) => !passed.includes(t.id));
  const folder = thing && (chosen?.thing === thing.id ? chosen.folder : (thing.suggested?.folder ?? null));
  const place = desk.data?.folders.find((f) => f.id === folder);
  // Loose, no student sees it but the one who put it in: where more would, it is asked first.
  const wider = place && !thing!.unseen.includes(place.id);
  const [asking, setAsking] = useState<{ thing: number; folder: number } | null>(null);
  const asked = asking !== null && asking.thing === thing?.id && asking.folder === folder;
  const act = useAct(
    async (what: Done["kind"], headers) => {
      const item = { params: { path: { ...path, itemId: thing!.id } }, headers };
      if (what === "file")
        await take(
          api.PUT("/api/classes/{classId}/items/{itemId}/folders", { ...item, body: { folders: [folder!] } }),
        );
      else if (what === "keep") await take(api.POST("/api/classes/{classId}/tidy/{itemId}/keeping", item));
      else await take(api.DELETE("/api/classes/{classId}/items/{itemId}", item));
      return { kind: what, id: thing!.id, name: thing!.name, thing: thing!.kind };
    },
    (d) => setDone((all) => [...all, d]),
  );
  const undo = useAct(
    async (last: Done, headers) => {
      const item = { params: { path: { ...path, itemId: last.id } }, headers };
      if (last.kind === "file")
        await take(
          api.PUT("/api/classes/{classId}/items/{itemId}/folders", { ...item, body: { folders: [] } }),
        );
      else if (last.kind === "keep")
        await take(api.DELETE("/api/classes/{classId}/tidy/{itemId}/keeping", item));
      else
        await take(
          api.POST("/api/classes/{classId}/bin/{kind}/{thingId}/bring-back", {
            params: { path: { ...path, kind: last.thing, thingId: last.id } },
            headers,
          }),
        );
    },
    (_, last) => {
      setDone((all) => all.slice(0, -1));
      setPassed((p) => p.filter((x) => x !== last.id));
    },
  );
  const file = () => {
    if (wider && !asked) setAsking({ thing: thing!.id, folder: folder! });
    else act.mutate("file");
  };
  const busy = act.isPending || undo.isPending;
  const next = () => thing && setPassed((p) => [...p, thing.id]);
  // Keys may come faster than the server answers: each waits for the one before, none is lost.
  const waiting = useRef<string[]>([]);
  const press = (key: string) => {
    if (key === "u") {
      if (done.length > 0) undo.mutate(done[done.length - 1]!);
    } else if (!thing) return;
    else if (key === "f" && folder != null) file();
    else if (key === "k" && thing.student == null) act.mutate("keep");
    else if (key === "b") act.mutate("bin");
    else if (key === "n") next();
  };
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      const key = e.key.toLowerCase();
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey || !"ukfbn".includes(key)) return;
      e.preventDefault();
      if (busy) waiting.current.push(key);
      else press(key);
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  });
  useEffect(() => {
    if (busy) return;
    const key = waiting.current.shift();
    if (key !== undefined) press(key);
  });
  const all = things.length + done.length;
  return (
    <Desk
      title="Tidy"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      // Of what could not be read nothing is said.
      slip={
        desk.data && (
          <>
            <Typography variant="h2">
              {thing
                ? `${count(things.length, "thing", "things")} left`
                : all === 0
                  ? "Nothing loose"
                  : "All gone through"}
            </Typography>
            {done.length > 0 && (
              <>
                <Typography>
                  {count(done.filter((d) => d.kind === "file").length, "filed", "filed")},{" "}
                  {done.filter((d) => d.kind === "keep").length} kept,{" "}
                  {done.filter((d) => d.kind === "bin").length} binned.
                </Typography>
                <Button
                  variant="outlined"
                  disabled={busy}
                  onClick={() => undo.mutate(done[done.length - 1]!)}
                >
                  Undo “{done[done.length - 1]!.name}”
                </Button>
              </>
            )}
            {!thing && (
              <Button
                variant={done.length > 0 ? "contained" : "outlined"}
                component={RouterLink}
                to={`/classes/${id}/close`}
              >
                On to closing the class
              </Button>
            )}
            <Typography variant="body2" sx={{ color: "text.secondary" }}>
              Kept means: moved to “{desk.data.papersName}”, which only you open. What is binned waits {span}.
            </Typography>
            <Typography variant="caption" sx={{ color: "text.secondary" }}>
              F files · K keeps · B bins · N next · U undoes
            </Typography>
          </>
        )
      }
    >
      <Problem error={head.error ?? desk.error ?? act.error ?? undo.error} />
      {desk.data && all > 0 && (
        <LinearProgress
          variant="determinate"
          value={(100 * done.length) / all}
          aria-label="Gone through"
          sx={{ mb: 2, maxWidth: 720 }}
        />
      )}
      {desk.data && !thing && (
        <Empty
          title={passed.length > 0 ? "You have been through all of them." : "Everything stands in a folder."}
        >
          {passed.length > 0 && (
            <Button variant="outlined" onClick={() => setPassed([])}>
              Go through the {passed.length} you left again
            </Button>
          )}
        </Empty>
      )}
      {thing && (
        <Box component="article" aria-label={thing.name} sx={{ maxWidth: 720 }}>
          <Typography variant="h2">{thing.name}</Typography>
          <Typography sx={{ color: "text.secondary" }}>
            {thing.kind === "Link" ? "Link" : thing.kind === "Page" ? "Page" : "File"}
            {thing.size != null && `, ${sayBytes(thing.size)}`}, added by {thing.addedBy}
            {thing.student != null && " (student)"}, {sayMoment(thing.addedAt)}
          </Typography>
          {thing.used.length > 0 && (
            <Typography variant="body2">Stands elsewhere too: {thing.used.join("; ")}</Typography>
          )}
          {thing.url && <Typography variant="body2">{thing.url}</Typography>}
          {thing.preview != null ? (
            <Box
              component="pre"
              role="region"
              tabIndex={0}
              aria-label="First lines"
              sx={{
                border: 1,
                borderColor: "divider",
                p: 1.5,
                my: 1.5,
                maxHeight: 220,
                overflow: "auto",
                whiteSpace: "pre-wrap",
                fontFamily: "inherit",
                fontSize: "0.88rem",
              }}
            >
              {thing.preview || "(empty)"}
            </Box>
          ) : (
            /\.(png|jpe?g|gif|webp)$/i.test(thing.name) && (
              <Box
                component="img"
                src={`/api/classes/${id}/items/${thing.id}/content`}
                alt={`Preview of ${thing.name}`}
                sx={{
                  display: "block",
                  maxHeight: 260,
                  maxWidth: "100%",
                  my: 1.5,
                  border: 1,
                  borderColor: "divider",
                }}
              />
            )
          )}
          <Autocomplete
            key={thing.id}
            options={desk.data?.folders ?? []}
            getOptionLabel={(f) => f.path}
            isOptionEqualToValue={(a, b) => a.id === b.id}
            value={desk.data?.folders.find((f) => f.id === folder) ?? null}
            onChange={(_, f) => f && setChosen({ thing: thing.id, folder: f.id })}
            renderInput={(p) => (
              <TextField
                {...p}
                label="Folder"
                helperText={
                  thing.suggested && folder === thing.suggested.folder
                    ? `Suggested: ${thing.suggested.why}.`
                    : thing.suggested
                      ? undefined
                      : "Nothing speaks for any folder: choose one."
                }
              />
            )}
            className="tidy-folder"
          />
          {place && (
            <Typography className="tidy-reach">
              <StateMark mark={wider ? "attention" : "none"} wrap>
                {place.students === 0
                  ? "There staff alone see it, as now."
                  : !wider
                    ? "There its student sees it, and nobody else."
                    : `There ${place.all ? "the whole class sees" : "students see"} it: ${count(place.students, "student", "students")}. Now ${thing.student != null ? "none but the one who put it in does" : "none does"}.`}
              </StateMark>
            </Typography>
          )}
          <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
            <Button variant="contained" disabled={folder == null || busy} onClick={file}>
              {asked ? "File it, they may see it" : "File it"}
            </Button>
            {thing.student == null && (
              <Button variant="outlined" disabled={busy} onClick={() => act.mutate("keep")}>
                Keep it
              </Button>
            )}
            <Button variant="outlined" disabled={busy} onClick={() => act.mutate("bin")}>
              Bin it
            </Button>
            <Button onClick={next}>Next</Button>
          </Box>
          <Typography role="status" className="tidy-reach">
            {asked &&
              `“${thing.name}” would be seen by ${count(place!.students, "student", "students")}. F once more files it; N leaves it.`}
          </Typography>
          {thing.student != null && (
            <Typography variant="body2" sx={{ mt: 1 }}>
              <StateMark mark="attention">A student put it in: it is theirs.</StateMark>
            </Typography>
          )}
        </Box>
      )}
    </Desk>
  );
}
