import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { PickOne } from "../../parts/PickOne";

type Pair = Schemas["StudentPair"];

/** Many groups in one act: by chance, balanced, with pairs together or apart; or from a pasted list. */
export function MakeGroups(props: {
  classId: number;
  students: Schemas["RosterName"][];
  onMade: (made: Schemas["GroupsMade"]) => void;
  onClose: () => void;
}) {
  const { classId, students } = props;
  const [way, setWay] = useState<"count" | "size" | "paste">("count");
  const [number, setNumber] = useState("4");
  const [prefix, setPrefix] = useState("Group");
  const [seed, setSeed] = useState(1);
  const [balance, setBalance] = useState<Schemas["BalancedBy"]>("Nothing");
  const [together, setTogether] = useState<Pair[]>([]);
  const [apart, setApart] = useState<Pair[]>([]);
  const [text, setText] = useState("");
  const n = Number(number) || 0;
  const body: Schemas["GroupsAsk"] = {
    groups: way === "count" ? n : null,
    size: way === "size" ? n : null,
    seed,
    balance,
    together,
    apart,
    text: way === "paste" ? text : null,
    prefix,
  };
  const path = { params: { path: { classId } } };
  const ready = way === "paste" ? text.trim() !== "" : n > 0;
  const draft = useQuery({
    queryKey: ["groups-draft", classId, body],
    enabled: ready,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: () => take(api.POST("/api/classes/{classId}/groups/preview", { ...path, body })),
  });
  const make = useAct(
    (_: void, headers) => take(api.POST("/api/classes/{classId}/groups/many", { ...path, body, headers })),
    props.onMade,
  );
  const d = ready && !draft.error ? draft.data : undefined;
  return (
    <Ask
      open
      wide
      title="Make groups"
      act={d ? `Make ${count(d.groups.length, "group", "groups")}` : "Make groups"}
      disabled={!d}
      busy={make.isPending}
      error={make.error ?? (ready ? draft.error : null)}
      onAct={() => make.mutate()}
      onClose={props.onClose}
    >
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", pt: 1, alignItems: "center" }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={way}
          onChange={(_, v: typeof way | null) => v && setWay(v)}
          aria-label="Make groups by"
        >
          <ToggleButton value="count">So many</ToggleButton>
          <ToggleButton value="size">So big</ToggleButton>
          <ToggleButton value="paste">From a list</ToggleButton>
        </ToggleButtonGroup>
        {way !== "paste" && (
          <>
            <TextField
              label={way === "count" ? "Groups" : "Students in each"}
              value={number}
              onChange={(e) => setNumber(e.target.value.replace(/\D/g, ""))}
              sx={{ width: 130 }}
            />
            <TextField
              label="Called"
              value={prefix}
              onChange={(e) => setPrefix(e.target.value)}
              sx={{ width: 130 }}
            />
            <TextField
              select
              label="Balanced by"
              value={balance}
              onChange={(e) => setBalance(e.target.value as typeof balance)}
              sx={{ minWidth: 150 }}
            >
              <MenuItem value="Nothing">chance alone</MenuItem>
              <MenuItem value="Grade">grade</MenuItem>
              <MenuItem value="MeanScore">mean score here</MenuItem>
            </TextField>
            <Button variant="outlined" onClick={() => setSeed(seed + 1)}>
              Mix again
            </Button>
          </>
        )}
      </Box>
      {way === "paste" ? (
        <TextField
          fullWidth
          multiline
          minRows={6}
          maxRows={12}
          label="A line a student: name or number, then the group"
          helperText="Columns of a spreadsheet, or a semicolon between"
          value={text}
          onChange={(e) => setText(e.target.value)}
          sx={{ mt: 1.5 }}
        />
      ) : (
        <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 2, mt: 1.5 }}>
          <Pairs label="Together" pairs={together} students={students} onChange={setTogether} />
          <Pairs label="Apart" pairs={apart} students={students} onChange={setApart} />
        </Box>
      )}
      {d && (
        <Box role="status" aria-label="Groups as they would be" sx={{ mt: 2 }}>
          <Typography>
            {count(d.groups.length, "group", "groups")}, number {seed} of many ways to mix.
            {d.spread != null && ` Their means lie ${d.spread.toFixed(2)} apart at the most.`}
            {d.inNone > 0 && ` ${count(d.inNone, "student is", "students are")} in none of them.`}
          </Typography>
          {d.notMatched.map((x) => (
            <Typography key={x} variant="body2">
              <StateMark mark="attention">{x}</StateMark>
            </Typography>
          ))}
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: "repeat(auto-fill, minmax(180px, 1fr))",
              gap: 1.5,
              mt: 1,
            }}
          >
            {d.groups.map((g) => (
              <Box key={g.name} sx={{ borderTop: 1, borderColor: "divider", pt: 0.75 }}>
                <Typography variant="h3">
                  {g.name}{" "}
                  <Box component="span" sx={{ fontWeight: 400, color: "text.secondary" }}>
                    {g.members.length}
                    {g.mean != null && `, mean ${g.mean.toFixed(1)}`}
                  </Box>
                </Typography>
                {g.members.map((m) => (
                  <Typography key={m.id} variant="body2">
                    {m.sortName}
                  </Typography>
                ))}
              </Box>
            ))}
          </Box>
        </Box>
      )}
    </Ask>
  );
}

function Pairs(props: {
  label: string;
  pairs: Pair[];
  students: Schemas["RosterName"][];
  onChange: (p: Pair[]) => void;
}) {
  const [a, setA] = useState<number | "">("");
  const name = (id: number) => props.students.find((s) => s.id === id)?.sortName ?? "";
  const choose = (label: string, value: number | "", on: (v: number) => void) => (
    <PickOne
      fullWidth
      label={label}
      options={props.students.map((s) => ({ id: s.id, name: s.sortName }))}
      value={value === "" ? null : value}
      onChange={(s) => s !== null && on(s)}
    />
  );
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography variant="h3">{props.label}</Typography>
      {props.pairs.map((p, i) => (
        <Box key={i} sx={{ display: "flex", alignItems: "center" }}>
          <Checkbox
            size="small"
            checked
            onChange={() => props.onChange(props.pairs.filter((_, k) => k !== i))}
            slotProps={{
              input: { "aria-label": `${props.label}: ${name(p.a)} and ${name(p.b)}` },
            }}
          />
          <Typography variant="body2">
            {name(p.a)} and {name(p.b)}
          </Typography>
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 1, mt: 0.75 }}>
        {choose("One", a, setA)}
        {choose("and another", "", (b) => {
          if (a !== "" && a !== b) props.onChange([...props.pairs, { a, b }]);
          setA("");
        })}
      </Box>
    </Box>
  );
}
