import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useBoard, useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

/** The same things into several classes in one act: which classes, what it will do to each, then what it did. */
export function GiveOut(props: {
  workspace: { head: Pick<Schemas["ClassHead"], "id" | "kind" | "name"> };
  items?: { id: number; name: string }[];
  folders?: { id: number; name: string }[];
  assignments?: { id: number; title: string }[];
  welcome?: boolean;
  onClose: () => void;
}) {
  const { head } = props.workspace;
  const classId = head.id;
  const bank = head.kind === "Department";
  const board = useBoard();
  const school = useSchool();
  const years = school.data?.years ?? [];
  // What is drawn from this year is as often for the next one.
  const next = years[years.findIndex((y) => y.id === school.data?.current) + 1]?.id;
  const nextBoard = useBoard(next);
  // All of them or none: what is ticked as "all" is not less than all a moment later.
  const here =
    school.data !== undefined && board.data !== undefined && (next === undefined || !nextBoard.isPending);
  const rows = [
    ...(board.data?.rows ?? []),
    ...(next !== undefined ? (nextBoard.data?.rows ?? []) : []),
  ].filter((r) => here && r.id !== classId && r.state !== "Archived");
  const [to, setTo] = useState<ReadonlySet<number>>(new Set());
  const [only, setOnly] = useState("");
  const [into, setInto] = useState("");
  const [open, setOpen] = useState<number | null>(null);
  const shown = rows.filter((r) => r.name.toLowerCase().includes(only.trim().toLowerCase()));
  const body = {
    items: props.items?.map((i) => i.id) ?? null,
    folders: props.folders?.map((f) => f.id) ?? null,
    assignments: props.assignments?.map((a) => a.id) ?? null,
    welcome: props.welcome ?? false,
    to: rows.filter((r) => to.has(r.id)).map((r) => r.id),
    into: bank && into.trim() !== "" ? into.trim() : null,
  };
  const path = { params: { path: { classId } } };
  const preview = useQuery({
    queryKey: ["giving", classId, body],
    enabled: body.to.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => take(api.POST("/api/classes/{classId}/giving-preview", { ...path, body })),
  });
  const give = useAct((_: void, headers) =>
    take(api.POST("/api/classes/{classId}/giving", { ...path, body, headers })),
  );
  const said = give.data ?? (body.to.length > 0 ? preview.data : undefined);
  const by = new Map((said ?? []).map((c) => [c.class, c]));
  const names = [
    ...(props.items ?? []).map((i) => i.name),
    ...(props.folders ?? []).map((f) => f.name),
    ...(props.assignments ?? []).map((a) => a.title),
    ...(props.welcome ? ["the welcome note"] : []),
  ];
  const what = names.length === 1 ? `“${names[0]}”` : count(names.length, "thing", "things");
  const done = give.data !== undefined;
  const tops = [...new Set((said ?? []).flatMap((c) => c.tops ?? []))].sort();
  const idle =
    body.to.length > 0 &&
    preview.data !== undefined &&
    preview.data.every((c) => c.refused || (c.adds === 0 && c.makesFolders === 0 && !c.welcome));
  const tick = (id: number) =>
    setTo((t) => {
      const next = new Set(t);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const all = shown.length > 0 && shown.every((r) => to.has(r.id));
  return (
    <Ask
      open
      wide
      title={
        done
          ? `${what} ${bank ? "is used in" : "given to"} ${count(body.to.length, "class", "classes")}`
          : `${bank ? "Use" : "Give"} ${what} ${bank ? "in" : "to"} which classes?`
      }
      act={
        done
          ? "Done"
          : body.to.length === 0
            ? bank
              ? "Use in classes"
              : "Give to classes"
            : idle
              ? "It stands in all of them"
              : `${bank ? "Use in" : "Give to"} ${count(body.to.length, "class", "classes")}`
      }
      busy={give.isPending}
      disabled={!done && (body.to.length === 0 || preview.isError || idle)}
      error={give.error}
      onAct={() => (done ? props.onClose() : give.mutate())}
      onClose={props.onClose}
    >
      <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
        {bank
          ? "Each class gets a copy that remembers where it is from: assignments as drafts without a date. A change here is offered to copies for which nothing was handed in."
          : "It stands at the same place in each class: folders are found by their names, and made where they are missing. What is there already stays as it is."}{" "}
        It is not taken back in one act: what is too much is binned in its class.
      </Typography>
      {(said ?? []).some((c) => c.undated + c.unpublished + c.barred > 0) && (
        <Typography variant="body2" sx={{ mb: 1 }}>
          <StateMark mark="attention" wrap>
            {leftBehind(said!)}
          </StateMark>
        </Typography>
      )}
      {bank && !done && (
        <Autocomplete
          freeSolo
          options={tops}
          inputValue={into}
          onInputChange={(_, value) => setInto(value)}
          renderInput={(p) => (
            <TextField
              {...p}
              label="Into which folder of each class"
              helperText="Empty for the first that its students see. A name that a class lacks is made there, for the class to see."
            />
          )}
          sx={{ mt: 2, mb: 1.5, maxWidth: 460 }}
        />
      )}
      {!done && (
        <Box sx={{ display: "flex", gap: 2, alignItems: "center", mb: 0.5 }}>
          <TextField
            autoFocus
            label="Only classes called"
            value={only}
            onChange={(e) => setOnly(e.target.value)}
            sx={{ width: 280 }}
          />
          <FormControlLabel
            control={
              <Checkbox
                checked={all}
                disabled={shown.length === 0}
                onChange={() =>
                  setTo((t) => {
                    const next = new Set(t);
                    for (const r of shown)
                      if (all) next.delete(r.id);
                      else next.add(r.id);
                    return next;
                  })
                }
              />
            }
            label={`all ${shown.length}`}
          />
        </Box>
      )}
      <Problem error={board.error ?? nextBoard.error ?? preview.error} />
      <Box
        component="ul"
        aria-label="Classes"
        sx={{
          listStyle: "none",
          p: 0,
          m: 0,
          maxHeight: 320,
          overflowY: "auto",
          borderTop: 1,
          borderColor: "divider",
        }}
      >
        {(done ? rows.filter((r) => to.has(r.id)) : shown).map((r) => (
          <Box component="li" key={r.id} sx={{ borderBottom: 1, borderColor: "divider" }}>
            <Box sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 34 }}>
              {!done && (
                <Checkbox
                  checked={to.has(r.id)}
                  onChange={() => tick(r.id)}
                  slotProps={{ input: { "aria-label": r.name } }}
                />
              )}
              <Box sx={{ flex: 1, minWidth: 0 }}>{r.name}</Box>
              {to.has(r.id) && by.get(r.id) && (
                <Outcome
                  row={by.get(r.id)!}
                  done={done}
                  onOpen={() => setOpen(open === r.id ? null : r.id)}
                />
              )}
            </Box>
            {open === r.id && (
              <Box sx={{ pl: 5, pb: 1 }}>
                {by.get(r.id)?.lines.map((l, i) => (
                  <Typography key={i} variant="body2">
                    {l.what} <span>→ {l.where}</span> {l.there && "(there already)"}
                  </Typography>
                ))}
              </Box>
            )}
          </Box>
        ))}
        {here && rows.length === 0 && (
          <Typography sx={{ py: 2, color: "text.secondary" }}>You have no other class this year.</Typography>
        )}
      </Box>
    </Ask>
  );
}

/** What of assignments does not come along, said before it is done. */
function leftBehind(classes: readonly Schemas["GiveClass"][]) {
  const sum = (of: (c: Schemas["GiveClass"]) => number) => classes.reduce((n, c) => n + of(c), 0);
  const parts = [
    sum((c) => c.barred) > 0 &&
      `${count(
        sum((c) => c.barred),
        "thing that may not be copied stays",
        "things that may not be copied stay",
      )} behind`,
    sum((c) => c.undated) > 0 &&
      `${count(
        sum((c) => c.undated),
        "due day stays",
        "due days stay",
      )} behind`,
    sum((c) => c.unpublished) > 0 &&
      `${count(
        sum((c) => c.unpublished),
        "one that is published here comes as a draft",
        "that are published here come as drafts",
      )}`,
  ];
  return `Assignments come as drafts without a date: ${parts.filter(Boolean).join(", ")}.`;
}

function Outcome({ row, done, onOpen }: { row: Schemas["GiveClass"]; done: boolean; onOpen: () => void }) {
  if (row.refused) return <StateMark mark="blocked">{row.refused}</StateMark>;
  const parts = [
    row.adds > 0 && count(row.adds, "thing", "things"),
    row.makesFolders > 0 && count(row.makesFolders, "new folder", "new folders"),
    row.welcome && (row.welcomeReplaced ? "welcome note replaced" : "welcome note"),
    row.thereAlready > 0 && `${row.thereAlready} there already`,
    row.unseen > 0 && `${row.unseen} that its students will not see`,
  ].filter(Boolean);
  return (
    <>
      <StateMark
        mark={row.unseen > 0 ? "attention" : done ? "done" : row.welcomeReplaced ? "attention" : "underway"}
      >
        {parts.length === 0 ? "nothing to do" : parts.join(", ")}
      </StateMark>
      <Link component="button" type="button" variant="body2" onClick={onOpen}>
        where
      </Link>
    </>
  );
}
