import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Desk, Empty } from "../../parts/Desk";
import { FindInList, ListBar } from "../../parts/ListBar";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { ClosePlaces } from "./ClosePlaces";
import { MatrixTable } from "./MatrixTable";
import { ReturnMany } from "./ReturnMany";

type Row = Schemas["ClosingRow"];
type Show = "open" | Schemas["FindingLevel"] | "archived";
const kinds: [Show, string][] = [
  ["open", "Not closed"],
  ["Blocks", "Blocked"],
  ["Attention", "Wants attention"],
  ["Ready", "Ready"],
  ["archived", "In the loft"],
];

/** The closing desk: classes against the steps of closing, and what is done to many of them at once. */
export function ClosingMatrix({ me }: { me: Schemas["Me"] }) {
  const [address, setAddress] = useSearchParams();
  const year = address.get("year") ? Number(address.get("year")) : undefined;
  const show = (address.get("show") ?? "open") as Show;
  const find = (address.get("find") ?? "").toLowerCase();
  const matrix = useQuery({
    queryKey: ["closing-matrix", year],
    queryFn: () => take(api.GET("/api/closing", { params: { query: { year } } })),
  });
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const all = matrix.data?.classes ?? [];
  const is = (r: Row, s: Show) =>
    s === "archived"
      ? r.state === "Archived"
      : r.state !== "Archived" && (s === "open" || (r.level === s && r.state === "Open"));
  const rows = all.filter(
    (r) => is(r, show) && [r.name, r.lead, r.department ?? ""].join(" ").toLowerCase().includes(find),
  );
  const chosen = all.filter((r) => ticked.has(r.id));
  const set = (name: string, value: string) =>
    setAddress((a) => {
      if (value) a.set(name, value);
      else a.delete(name);
      return a;
    });
  const held = all.reduce((n, r) => n + r.held, 0);
  const only = all.reduce((n, r) => n + r.onlyCopies, 0);
  return (
    <Desk
      title="Close"
      wide
      lead={
        matrix.data && (
          <>
            School year {matrix.data.yearLabel}: <strong>{all.filter((r) => is(r, "Ready")).length}</strong>{" "}
            ready, <strong>{all.filter((r) => is(r, "Attention")).length}</strong> want attention,{" "}
            <strong>{all.filter((r) => is(r, "Blocks")).length}</strong> blocked,{" "}
            <strong>{all.filter((r) => is(r, "archived")).length}</strong> in the loft.{" "}
            {held > 0 &&
              `${count(held, "piece of work is", "pieces of work are")} still held${only > 0 ? `, and of ${only} the teacher has the only copy` : ""}.`}
          </>
        )
      }
      slip={<Slip chosen={chosen} run={matrix.data?.run ?? null} />}
    >
      <ClosePlaces me={me} />
      <Problem error={matrix.error} />
      <ListBar
        label="Show"
        show={show}
        kinds={kinds.map(([v, word]) => [v, word, all.filter((r) => is(r, v)).length] as const)}
        onShow={(v) => set("show", v)}
      >
        <FindInList
          label="Class, teacher or department"
          value={address.get("find") ?? ""}
          onChange={(v) => set("find", v)}
        />
      </ListBar>
      {matrix.data && rows.length === 0 ? (
        <Empty title={all.length === 0 ? "No class of yours in this school year." : "No class here."}>
          {show === "archived" ? "A class comes here when its run has verified it." : "Choose another list."}
        </Empty>
      ) : (
        <MatrixTable rows={rows} ticked={ticked} onTick={setTicked} />
      )}
    </Desk>
  );
}

function Slip({ chosen, run }: { chosen: Row[]; run: number | null }) {
  const [returning, setReturning] = useState(false);
  const [telling, setTelling] = useState(false);
  const [text, setText] = useState("");
  const [told, setTold] = useState<number | null>(null);
  const tell = useAct(
    (_: void, headers) =>
      take(api.POST("/api/closing/letters", { body: { classes: chosen.map((r) => r.id), text }, headers })),
    (out) => {
      setTold(out.count);
      setTelling(false);
    },
  );
  const held = chosen.reduce((n, r) => n + r.held, 0);
  const unready = chosen.filter((r) => r.state === "Open" && r.level !== "Ready");
  const open = chosen.filter((r) => r.state !== "Archived");
  const unrolled = chosen.filter((r) => !r.nextYearMade);
  const ids = open.map((r) => r.id).join(",");
  if (chosen.length === 0)
    return (
      <>
        <Typography variant="h2">Nothing ticked</Typography>
        <Typography sx={{ color: "text.secondary" }}>
          Tick classes, mend what is in the way for all of them at once, then close them in one run. Each cell
          leads to the desk that mends it.
        </Typography>
        <Box component="ol" sx={{ pl: 2.25, m: 0, color: "text.secondary" }}>
          <li>Return what is held.</li>
          <li>File what is unfiled.</li>
          <li>Set the open shelf.</li>
          <li>Make next year&rsquo;s class.</li>
          <li>Close: take-homes, package, check, loft.</li>
        </Box>
        {run !== null && (
          <Button variant="outlined" component={RouterLink} to={`/close/runs/${run}`}>
            See the last run
          </Button>
        )}
      </>
    );
  return (
    <>
      <Typography variant="h2">{count(chosen.length, "class", "classes")} ticked</Typography>
      <Button
        variant={held > 0 ? "outlined" : "contained"}
        component={RouterLink}
        to={`/close/plan?classes=${ids}`}
        disabled={open.length === 0}
      >
        Plan the closing of {open.length}…
      </Button>
      {held > 0 && (
        <Button variant="contained" onClick={() => setReturning(true)}>
          Return {count(held, "piece", "pieces")}…
        </Button>
      )}
      {unready.length > 0 && (
        <Button variant="outlined" onClick={() => setTelling(true)}>
          Write to their teachers…
        </Button>
      )}
      {unrolled.length > 0 && (
        <Button
          variant="outlined"
          component={RouterLink}
          to={`/roll-over?classes=${unrolled.map((r) => r.id).join(",")}`}
        >
          Roll over {unrolled.length}…
        </Button>
      )}
      {told !== null && <StateMark mark="done">{count(told, "letter", "letters")} written</StateMark>}
      <Typography variant="body2" sx={{ color: "text.secondary" }}>
        The plan says first what will be done to each class and which are passed over. What is blocked is
        never closed.
      </Typography>
      <ReturnMany
        open={returning}
        classes={chosen.filter((r) => r.held > 0).map((r) => r.id)}
        onClose={() => setReturning(false)}
      />
      <Ask
        open={telling}
        title="Write to the teachers of what is not ready"
        act="Send the letters"
        busy={tell.isPending}
        error={tell.error}
        onAct={() => tell.mutate()}
        onClose={() => setTelling(false)}
      >
        <Typography>
          Each lead teacher gets one letter that lists, class by class, what is in the way. Teachers without
          an e-mail address get none.
        </Typography>
        <Box component="ul" sx={{ pl: 2.5 }}>
          {unready.map((r) => (
            <li key={r.id}>
              {r.name} ({r.lead}):{" "}
              {r.findings
                .filter((f) => f.level !== "Ready" && f.code !== "next-year")
                .map((f) => f.text)
                .join(" ")}
            </li>
          ))}
        </Box>
        <TextField
          label="Words of your own at the top (optional)"
          value={text}
          onChange={(e) => setText(e.target.value)}
          multiline
          minRows={2}
          fullWidth
        />
      </Ask>
    </>
  );
}
