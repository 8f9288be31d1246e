import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { Ask } from "../../parts/Ask";
import { StateMark, type Mark } from "../../parts/StateMark";
import { count } from "../../parts/words";

type Found = Schemas["FoundPerson"];

const marks: Record<Schemas["Knowledge"], Mark> = {
  Known: "done",
  Possible: "attention",
  Conflict: "blocked",
  Unknown: "blocked",
};

/** People out of a spreadsheet or a letter: whom the directory knows, who might be meant, and who is nobody. */
export function PasteList(props: {
  classId: number;
  students: boolean;
  onTake: (people: Found[]) => void;
  onClose: () => void;
}) {
  const { classId, students } = props;
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState<ReadonlyMap<number, number | null>>(new Map());
  const read = useQuery({
    queryKey: ["roster-paste", classId, students, text],
    enabled: text.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      take(
        api.POST("/api/classes/{classId}/roster/reading", {
          params: { path: { classId } },
          body: { text, students },
        }),
      ),
  });
  const lines = text.trim() === "" ? [] : (read.data ?? []);
  // Who is known without doubt is taken; of those who might be meant, whom a person chooses.
  const pick = (l: Schemas["PastedLine"], i: number): Found | undefined =>
    chosen.has(i)
      ? l.people.find((p) => p.id === chosen.get(i))
      : l.knowledge === "Known"
        ? l.people[0]
        : undefined;
  const taken = [
    ...new Map(
      lines
        .map(pick)
        .filter((p): p is Found => p !== undefined && p.inThisClass == null)
        .map((p) => [p.id, p]),
    ).values(),
  ];
  const choose = (i: number, id: number | null) => setChosen((c) => new Map(c).set(i, id));
  const of = (k: Schemas["Knowledge"]) => lines.filter((l) => l.knowledge === k).length;
  return (
    <Ask
      open
      wide
      title="Paste a list"
      act={`Put ${count(taken.length, "person", "people")} on the list`}
      disabled={taken.length === 0}
      error={read.error}
      onAct={() => {
        props.onTake(taken);
        props.onClose();
      }}
      onClose={props.onClose}
    >
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr", sm: "240px minmax(0, 1fr)" },
          gap: 2,
          pt: 1,
        }}
      >
        <TextField
          autoFocus
          multiline
          minRows={8}
          maxRows={16}
          label="Names, numbers or e-mails"
          helperText="One person a line; a table keeps its columns."
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setChosen(new Map());
          }}
        />
        <Box sx={{ minWidth: 0 }}>
          {lines.length === 0 ? (
            <Typography sx={{ color: "text.secondary" }}>
              Here stands, line by line, whom the directory knows. Names may stand in either order.
            </Typography>
          ) : (
            <Typography role="status" sx={{ mb: 0.5 }}>
              {of("Known")} known, {of("Possible") + of("Conflict")} to be settled, {of("Unknown")} not in the
              directory.
            </Typography>
          )}
          <Box
            component="ul"
            aria-label="Pasted people"
            sx={{ listStyle: "none", m: 0, p: 0, maxHeight: 380, overflowY: "auto" }}
          >
            {lines.map((l, i) => {
              const p = pick(l, i);
              return (
                <Box
                  component="li"
                  key={i}
                  sx={{
                    borderTop: 1,
                    borderColor: "divider",
                    display: "flex",
                    gap: 1,
                    alignItems: "center",
                    minHeight: 36,
                  }}
                >
                  {l.people.length > 0 && (
                    <Checkbox
                      checked={p !== undefined && p.inThisClass == null}
                      disabled={p?.inThisClass != null}
                      onChange={() => choose(i, p ? null : l.people[0]!.id)}
                      slotProps={{ input: { "aria-label": `Take ${l.text}` } }}
                    />
                  )}
                  <Box sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>
                    {l.text}
                    <Typography variant="caption" component="div" sx={{ "& span": { whiteSpace: "normal" } }}>
                      <StateMark mark={p?.inThisClass != null ? "none" : marks[l.knowledge]}>
                        {p?.inThisClass != null ? "on this roster already" : l.why}
                      </StateMark>
                    </Typography>
                  </Box>
                  {l.knowledge === "Known" ? (
                    <Typography variant="body2">{l.people[0]!.sortName}</Typography>
                  ) : (
                    l.people.length > 0 && (
                      <TextField
                        select
                        label="Who is meant"
                        value={p?.id ?? ""}
                        onChange={(e) => choose(i, Number(e.target.value))}
                        sx={{ width: 260 }}
                      >
                        {l.people.map((x) => (
                          <MenuItem key={x.id} value={x.id}>
                            {x.sortName}
                            {x.grade && `, grade ${x.grade}`}
                            {x.studentNumber && `, ${x.studentNumber}`}
                          </MenuItem>
                        ))}
                      </TextField>
                    )
                  )}
                </Box>
              );
            })}
          </Box>
        </Box>
      </Box>
    </Ask>
  );
}
