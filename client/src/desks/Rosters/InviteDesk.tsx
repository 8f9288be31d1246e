import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useHead } from "../../api/queries";
import { byItself } from "../../api/byItself";
import { useAct } from "../../api/useAct";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark, type Mark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";
import { useDraft } from "../../parts/useDraft";

const states: Record<Schemas["InvitationState"], [Mark, string]> = {
  Open: ["underway", "not answered yet"],
  Accepted: ["done", "accepted"],
  Expired: ["none", "has run out"],
  Withdrawn: ["none", "taken back"],
};

/** While nobody answered, what counts is how far the letter is. */
function standing(i: Schemas["InvitationView"]): [Mark, string] {
  if (i.state !== "Open") return states[i.state];
  if (i.letter === "GivenUp") return ["attention", `the letter did not go: ${i.trouble}`];
  if (i.letter === "Waiting")
    return ["underway", i.trouble ? `the letter waits: ${i.trouble}` : "the letter is on its way"];
  return states.Open;
}

/** Invitations by e-mail, and how each stands. */
export function InviteDesk() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const path = { params: { path: { classId: id } } };
  const list = useQuery({
    queryKey: ["invitations", id],
    queryFn: (asked) =>
      take(api.GET("/api/classes/{classId}/invitations", { ...path, headers: byItself(asked) })),
    // Letters go a moment after they are written.
    refetchInterval: (q) => (q.state.data?.some((i) => i.letter === "Waiting") ? 2000 : false),
  });
  const { draft: addresses, change: setAddresses, drop } = useDraft(`invitations:${id}`, "");
  const [role, setRole] = useState<"Student" | "CoTeacher">("Student");
  const [sent, setSent] = useState<Schemas["InvitationsSent"]>();
  const send = useAct(
    (_: void, headers) =>
      take(api.POST("/api/classes/{classId}/invitations", { ...path, body: { addresses, role }, headers })),
    (out) => {
      setSent(out);
      drop();
    },
  );
  const withdraw = useAct((invitationId: number, headers) =>
    take(
      api.DELETE("/api/classes/{classId}/invitations/{invitationId}", {
        params: { path: { classId: id, invitationId } },
        headers,
      }),
    ),
  );
  const n = addresses.split(/[\s,;]+/).filter((a) => a !== "").length;
  return (
    <Desk
      title="Invitations"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        <>
          <Typography variant="h2">By e-mail</Typography>
          <Typography>
            Each letter has an address that works once and for three weeks. Whoever opens it signs in with the
            account they have and is on the roster. A letter that was handed on lets nobody else in.
          </Typography>
        </>
      }
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 1.5, maxWidth: 640, mb: 2 }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={role}
          onChange={(_, v: typeof role | null) => v && setRole(v)}
          aria-label="Invite as"
        >
          <ToggleButton value="Student">Students</ToggleButton>
          <ToggleButton value="CoTeacher">Co-teachers</ToggleButton>
        </ToggleButtonGroup>
        <TextField
          multiline
          minRows={3}
          label="E-mail addresses"
          helperText="One or many, a comma or a line between them"
          value={addresses}
          onChange={(e) => setAddresses(e.target.value)}
        />
        <Box>
          <Button variant="contained" disabled={n === 0 || send.isPending} onClick={() => send.mutate()}>
            Send {n === 0 ? "invitations" : count(n, "invitation", "invitations")}
          </Button>
        </Box>
        <Problem error={send.error} />
        {sent && (
          <Box role="status">
            <StateMark mark={sent.written > 0 ? "done" : "attention"}>
              {count(sent.written, "invitation", "invitations")} written
            </StateMark>
            {sent.notWritten.map((x) => (
              <Typography key={x} variant="body2">
                <StateMark mark="attention">{x}</StateMark>
              </Typography>
            ))}
          </Box>
        )}
      </Box>
      <Problem error={list.error ?? withdraw.error} />
      {list.data?.length === 0 && (
        <Empty title="Nobody has been invited.">Type addresses above, if you have them.</Empty>
      )}
      {(list.data?.length ?? 0) > 0 && (
        <PlainTable
          label="Invitations"
          rows={list.data!}
          id={(i) => i.id}
          columns={[
            { head: "To", cell: (i) => i.email },
            { head: "As", cell: (i) => (i.role === "Student" ? "student" : "co-teacher") },
            { head: "Sent", says: "worth", by: (i) => i.sentAt, cell: (i) => sayMoment(i.sentAt) },
            { head: "Stands", cell: (i) => <StateMark mark={standing(i)[0]}>{standing(i)[1]}</StateMark> },
            {
              head: "",
              cell: (i) =>
                i.state === "Open" && (
                  <Button
                    color="inherit"
                    disabled={withdraw.isPending}
                    onClick={() => withdraw.mutate(i.id)}
                    aria-label={`Take back the invitation to ${i.email}`}
                  >
                    Take back
                  </Button>
                ),
              align: "right",
            },
          ]}
        />
      )}
    </Desk>
  );
}
