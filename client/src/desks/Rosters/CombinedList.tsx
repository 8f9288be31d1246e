import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import IconButton from "@mui/material/IconButton";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBoard } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Desk, Empty } from "../../parts/Desk";
import { EnrollPlaces } from "../../parts/EnrollPlaces";
import { Problem } from "../../parts/Problem";
import { sectionColours, SectionMark } from "../../parts/sections";
import { PlainTable } from "../../parts/table/PlainTable";
import { useGoOn } from "../../parts/typed";

/** Classes that one teaches or marks as one list. */
export function CombinedList({ me }: { me: Schemas["Me"] }) {
  const list = useQuery({ queryKey: ["combined"], queryFn: () => take(api.GET("/api/combined")) });
  const [making, setMaking] = useState(false);
  return (
    <Desk
      title="Combined rosters"
      wide
      lead="Two to eight of your classes, taught or marked as one list, each section in its own colour. Only you see them."
      slip={
        <>
          <Typography variant="h2">Work on several as one</Typography>
          <Typography>
            Students stay in their own classes. Whoever is enrolled in one of them appears here by itself.
          </Typography>
          <Button variant="contained" onClick={() => setMaking(true)}>
            Combine classes…
          </Button>
        </>
      }
    >
      <EnrollPlaces me={me} />
      <Problem error={list.error} />
      {list.data?.length === 0 && (
        <Empty title="No combined roster yet.">
          When you teach the same course to several sections, combine them and mark them in one go.
        </Empty>
      )}
      {(list.data?.length ?? 0) > 0 && (
        <PlainTable
          label="Combined rosters"
          rows={list.data!}
          id={(r) => r.id}
          columns={[
            {
              head: "Name",
              cell: (r) => (
                <Link component={RouterLink} to={`/enroll/combined/${r.id}`} color="text.primary">
                  <strong>{r.name}</strong>
                </Link>
              ),
            },
            { head: "Sections", cell: (r) => r.sections.join(", ") },
            { head: "Students", cell: (r) => r.students, align: "right" },
          ]}
        />
      )}
      {making && <CombineForm onClose={() => setMaking(false)} />}
    </Desk>
  );
}

/** Which classes, in which order and colour, under which name. */
export function CombineForm(props: { view?: Schemas["CombinedView"]; onClose: () => void }) {
  const v = props.view;
  const board = useBoard(v?.year);
  const go = useGoOn();
  const [name, setName] = useState(v?.name ?? "");
  const [sections, setSections] = useState<Schemas["SectionChoice"][]>(
    v?.sections.map((s) => ({ class: s.class, colour: s.colour })) ?? [],
  );
  const rows = (board.data?.rows ?? []).filter((r) => r.state !== "Archived");
  const of = (id: number) =>
    rows.find((r) => r.id === id)?.name ?? v?.sections.find((s) => s.class === id)?.name;
  const move = (i: number, by: number) =>
    setSections((s) => {
      const next = [...s];
      const [x] = next.splice(i, 1);
      next.splice(i + by, 0, x!);
      return next;
    });
  const save = useAct(
    async (_: void, headers) => {
      if (v) {
        await take(
          api.PUT("/api/combined/{combinedId}", {
            params: { path: { combinedId: v.id } },
            body: { name, sections, version: v.version },
            headers,
          }),
        );
        return v.id;
      }
      return (await take(api.POST("/api/combined", { body: { name, sections, version: 0 }, headers }))).id;
    },
    (id) => {
      props.onClose();
      go(`/enroll/combined/${id}`);
    },
  );
  return (
    <Ask
      open
      wide
      title={v ? "Change the combined roster" : "Combine classes"}
      act={v ? "Save" : `Combine ${sections.length} classes`}
      disabled={sections.length < 2 || name.trim() === ""}
      busy={save.isPending}
      error={save.error}
      onAct={() => save.mutate()}
      onClose={props.onClose}
    >
      <TextField
        fullWidth
        autoFocus
        label="Name"
        placeholder="All of Boatbuilding"
        value={name}
        onChange={(e) => setName(e.target.value)}
        sx={{ mt: 1 }}
      />
      <Box component="ul" aria-label="Sections in order" sx={{ listStyle: "none", m: 0, mt: 1.5, p: 0 }}>
        {sections.map((s, i) => (
          <Box
            component="li"
            key={s.class}
            sx={{ display: "flex", gap: 1, alignItems: "center", borderTop: 1, borderColor: "divider" }}
          >
            <SectionMark letter={String.fromCharCode(65 + i)} colour={s.colour} />
            <Box sx={{ flex: 1, minWidth: 0 }}>{of(s.class)}</Box>
            <TextField
              select
              variant="standard"
              value={s.colour}
              onChange={(e) =>
                setSections(sections.map((x, k) => (k === i ? { ...x, colour: Number(e.target.value) } : x)))
              }
              slotProps={{ htmlInput: { "aria-label": `Colour of ${of(s.class)}` } }}
            >
              {Array.from({ length: sectionColours }, (_, c) => (
                <MenuItem key={c} value={c}>
                  <SectionMark letter={String.fromCharCode(65 + i)} colour={c} />
                </MenuItem>
              ))}
            </TextField>
            <IconButton
              size="small"
              disabled={i === 0}
              onClick={() => move(i, -1)}
              aria-label={`${of(s.class)} earlier`}
            >
              ↑
            </IconButton>
            <IconButton
              size="small"
              disabled={i === sections.length - 1}
              onClick={() => move(i, 1)}
              aria-label={`${of(s.class)} later`}
            >
              ↓
            </IconButton>
          </Box>
        ))}
      </Box>
      <Typography variant="h3" sx={{ mt: 1.5 }}>
        Your classes
      </Typography>
      <Box sx={{ maxHeight: 260, overflowY: "auto" }}>
        {rows.map((r) => (
          <Box key={r.id} component="label" sx={{ display: "flex", alignItems: "center", cursor: "pointer" }}>
            <Checkbox
              size="small"
              checked={sections.some((s) => s.class === r.id)}
              disabled={sections.length >= 8 && !sections.some((s) => s.class === r.id)}
              onChange={(e) =>
                setSections(
                  e.target.checked
                    ? [...sections, { class: r.id, colour: sections.length % sectionColours }]
                    : sections.filter((s) => s.class !== r.id),
                )
              }
            />
            {r.name}
          </Box>
        ))}
      </Box>
    </Ask>
  );
}
