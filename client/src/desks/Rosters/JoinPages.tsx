import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";

/** A student types the code off the board, or comes by the QR code beside it. */
export function JoinClass() {
  const [address] = useSearchParams();
  const [code, setCode] = useState(address.get("code") ?? "");
  const [joined, setJoined] = useState<Schemas["Joined"]>();
  const join = useAct(
    (_: void, headers) => take(api.POST("/api/join", { body: { code }, headers })),
    setJoined,
  );
  return (
    <Desk title="Join a class" lead="Your teacher shows the code in the room.">
      {joined ? (
        <Box role="status">
          <StateMark mark={joined.waits ? "underway" : "done"} strong>
            {joined.waits ? "Your teacher will let you in" : "You are in"}
          </StateMark>
          <Typography sx={{ mt: 0.5 }}>
            {joined.waits || !joined.isOpen ? (
              <>
                {joined.name}.{" "}
                {joined.waits
                  ? "You see it as soon as your teacher has said yes."
                  : "You see it as soon as your teacher opens it."}
              </>
            ) : (
              <Link component={RouterLink} to={`/classes/${joined.class}`}>
                Go to {joined.name}
              </Link>
            )}
          </Typography>
        </Box>
      ) : (
        <Box
          component="form"
          onSubmit={(e) => {
            e.preventDefault();
            join.mutate();
          }}
          sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", alignItems: "flex-start", maxWidth: 520 }}
        >
          <TextField
            autoFocus
            label="Join code"
            placeholder="FHKM-3479"
            value={code}
            error={join.isError}
            onChange={(e) => setCode(e.target.value.toUpperCase())}
            slotProps={{ htmlInput: { style: { fontFamily: "monospace", fontSize: 24, letterSpacing: 2 } } }}
          />
          <Button type="submit" variant="contained" disabled={join.isPending || code.trim() === ""}>
            Join
          </Button>
          <Box sx={{ flexBasis: "100%" }}>
            <Problem error={join.error} />
          </Box>
        </Box>
      )}
    </Desk>
  );
}

/** Where the letter of an invitation leads. */
export function AcceptInvitation() {
  const [address] = useSearchParams();
  const token = address.get("token") ?? "";
  const look = useQuery({
    queryKey: ["invitation", token],
    retry: false,
    queryFn: () => take(api.GET("/api/invitation", { params: { query: { token } } })),
  });
  const [joined, setJoined] = useState<Schemas["Joined"]>();
  const accept = useAct(
    (_: void, headers) => take(api.POST("/api/invitation", { body: { token }, headers })),
    setJoined,
  );
  const i = look.data;
  return (
    <Desk title="Invitation">
      <Problem error={look.error} />
      {joined ? (
        <Box role="status">
          <StateMark mark="done" strong>
            You are in
          </StateMark>{" "}
          <Link component={RouterLink} to={joined.isOpen ? `/classes/${joined.class}` : "/"}>
            {joined.name}
          </Link>
        </Box>
      ) : (
        i && (
          <>
            <Typography variant="h2">
              {i.className}, {i.role === "Student" ? "as a student" : "as a co-teacher"}
            </Typography>
            <Typography>
              {i.teacher} invites {i.email}.
            </Typography>
            {i.state === "Open" ? (
              <Button
                variant="contained"
                sx={{ mt: 1.5 }}
                disabled={accept.isPending}
                onClick={() => accept.mutate()}
              >
                Accept the invitation
              </Button>
            ) : (
              <Typography sx={{ mt: 1 }}>
                <StateMark mark="none">
                  {
                    {
                      Accepted: "It has been accepted already.",
                      Expired: "It has run out: ask the teacher for a new one.",
                      Withdrawn: "It was taken back.",
                    }[i.state]
                  }
                </StateMark>
              </Typography>
            )}
            <Problem error={accept.error} />
          </>
        )
      )}
    </Desk>
  );
}
