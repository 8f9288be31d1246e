import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { TickTable } from "../../parts/table/TickTable";
import { count } from "../../parts/words";

type Row = Schemas["UnresolvedClass"];

/** Classes that keep the gate shut, and those that were signed off: one by one, or many with one reason. */
export function GateMissing({ missing, exceptions }: { missing: Row[]; exceptions: Row[] }) {
  const [signing, setSigning] = useState<Row[] | null>(null);
  const [reason, setReason] = useState("");
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const sign = useAct(
    (v: { classes: number[]; reason: string | null }, headers) =>
      take(api.POST("/api/gate/sign-offs", { body: v, headers })),
    () => {
      setSigning(null);
      setReason("");
      setTicked(new Set());
    },
  );
  const chosen = missing.filter((u) => ticked.has(u.id));
  const takeBack = (rows: Row[]) => sign.mutate({ classes: rows.map((u) => u.id), reason: null });
  return (
    <>
      <Problem error={signing ? null : sign.error} />
      {missing.length > 1 && (
        <Button variant="outlined" disabled={chosen.length === 0} onClick={() => setSigning(chosen)}>
          {chosen.length === 0
            ? "Sign off those that are ticked…"
            : `Sign off ${count(chosen.length, "class", "classes")}…`}
        </Button>
      )}
      {missing.length > 0 && (
        <Unresolved
          title="Missing"
          rows={missing}
          ticks={{
            ticked,
            set: setTicked,
            label: (u) => `Tick ${u.name}`,
            all: "Tick all classes that are missing",
          }}
          act={(u) => <Button onClick={() => setSigning([u])}>Sign off…</Button>}
        />
      )}
      {exceptions.length > 0 && (
        <Unresolved
          title="Signed off"
          rows={exceptions}
          act={(u) => (
            <Button onClick={() => takeBack([u])} disabled={sign.isPending}>
              Take back
            </Button>
          )}
        />
      )}
      <Ask
        open={signing !== null}
        title={
          signing?.length === 1
            ? `Sign off ${signing[0]!.name}`
            : `Sign off ${count(signing?.length ?? 0, "class", "classes")}`
        }
        act={signing?.length === 1 ? "Sign it off in my name" : "Sign them off in my name"}
        disabled={!reason.trim()}
        busy={sign.isPending}
        error={sign.error}
        onAct={() => signing && sign.mutate({ classes: signing.map((u) => u.id), reason })}
        onClose={() => setSigning(null)}
      >
        {signing?.length === 1 ? (
          <Typography>
            {signing[0]!.why} The class stays as it is; the new year may begin without it. Your name and the
            reason stand in the audit trail.
          </Typography>
        ) : (
          <>
            <Typography>
              They stay as they are; the new year may begin without them. Your name and the one reason stand
              in the audit trail, class by class.
            </Typography>
            <div className="gate-signing" role="region" tabIndex={0} aria-label="Classes to sign off">
              <ul>
                {signing?.map((u) => (
                  <li key={u.id}>
                    {u.name} ({u.lead}): {u.why}
                  </li>
                ))}
              </ul>
            </div>
          </>
        )}
        <TextField
          label={signing?.length === 1 ? "Why it is left" : "Why they are left"}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          fullWidth
          required
          margin="dense"
        />
      </Ask>
    </>
  );
}

function Unresolved(props: {
  title: string;
  rows: Row[];
  ticks?: Parameters<typeof TickTable<Row, number>>[0]["ticks"];
  act: (u: Row) => React.ReactNode;
}) {
  return (
    <TickTable
      label={props.title}
      heading={`${props.title} (${props.rows.length})`}
      rows={props.rows}
      id={(u) => u.id}
      ticks={props.ticks}
      space={{ mb: 2 }}
      columns={[
        {
          head: "Class",
          cell: (u) => (
            <Link component={RouterLink} to={`/classes/${u.id}/close`}>
              {u.name}
            </Link>
          ),
        },
        { head: "Lead teacher", cell: (u) => u.lead },
        { head: "Why", cell: (u) => (u.reason ? `${u.signedOffBy}: ${u.reason}` : u.why) },
        { head: "", cell: (u) => props.act(u), align: "right", look: "line" },
      ]}
    />
  );
}
