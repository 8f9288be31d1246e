import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import QRCode from "qrcode";
import { useState } from "react";
import { useParams } from "react-router";
import { api, take } from "../../api/client";
import { useHead, useSchool } from "../../api/queries";
import { byItself } from "../../api/byItself";
import { useAct } from "../../api/useAct";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayMoment } from "../../parts/words";
import { Tick } from "../../parts/Tick";

/** The join code, large enough for the last row of the room, and who waits for a yes. */
export function JoinCodeDesk() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const path = { params: { path: { classId: id } } };
  const seen = useQuery({
    queryKey: ["join-code", id],
    // Students join while it is on the wall.
    refetchInterval: 4000,
    queryFn: (asked) =>
      take(api.GET("/api/classes/{classId}/join-code", { ...path, headers: byItself(asked) })),
  });
  const [days, setDays] = useState(7);
  const [most, setMost] = useState("");
  const [waits, setWaits] = useState(false);
  const renew = useAct((_: void, headers) =>
    take(
      api.PUT("/api/classes/{classId}/join-code", {
        ...path,
        body: { days, most: most === "" ? null : Number(most), waits },
        headers,
      }),
    ),
  );
  const stop = useAct((_: void, headers) =>
    take(api.DELETE("/api/classes/{classId}/join-code", { ...path, headers })),
  );
  const answer = useAct((a: { person: number; yes: boolean }, headers) =>
    take(
      api.POST("/api/classes/{classId}/join-code/waiting/{personId}", {
        params: { path: { classId: id, personId: a.person } },
        body: { yes: a.yes },
        headers,
      }),
    ),
  );
  const j = seen.data;
  const school = useSchool();
  const address = j?.code && school.data ? `${school.data.address}/join?code=${j.code}` : "";
  return (
    <Desk
      title="Join code"
      wide
      lead={head.data && <ClassBar head={head.data} />}
      slip={
        <>
          <Typography variant="h2">{j?.code ? "A new code" : "Make a code"}</Typography>
          <TextField
            select
            label="It lives for"
            value={days}
            onChange={(e) => setDays(Number(e.target.value))}
          >
            {[1, 2, 7, 14, 30, 60].map((d) => (
              <MenuItem key={d} value={d}>
                {count(d, "day", "days")}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label="For how many, at the most"
            placeholder="any number"
            value={most}
            onChange={(e) => setMost(e.target.value.replace(/\D/g, ""))}
          />
          <Tick label="Each waits for my yes" value={waits} onChange={setWaits} />
          <Button
            variant={j?.code ? "outlined" : "contained"}
            disabled={renew.isPending}
            onClick={() => renew.mutate()}
          >
            {j?.code ? "Make a new code; this one is dead then" : "Make a join code"}
          </Button>
          {j?.code && (
            <Button color="inherit" disabled={stop.isPending} onClick={() => stop.mutate()}>
              Take the code away
            </Button>
          )}
          <Problem error={renew.error ?? stop.error} />
        </>
      }
    >
      <Problem error={seen.error ?? answer.error} />
      {j && !j.code && (
        <Empty title="There is no join code.">
          Students who have an account type it in and are on the roster. Make one at the right.
        </Empty>
      )}
      {j?.code && (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "1fr", sm: "minmax(0, 1fr) 250px" },
            gap: 3,
            alignItems: "center",
            py: 3,
          }}
        >
          <Box>
            <Typography
              aria-label="Join code"
              sx={{
                fontFamily: "monospace",
                fontWeight: 700,
                fontSize: { xs: 46, md: 84 },
                letterSpacing: "0.04em",
                lineHeight: 1.1,
                textDecoration: j.shut ? "line-through" : "none",
              }}
            >
              {j.code}
            </Typography>
            <Typography sx={{ mt: 1 }}>
              {j.shut ? (
                <StateMark mark="blocked">{j.shut}</StateMark>
              ) : (
                <>
                  Sign in, “Join a class”, type the code. {count(j.used, "student has", "students have")}{" "}
                  joined
                  {j.most != null && ` of ${j.most}`}. It works until {sayMoment(j.expiresAt!)}.
                </>
              )}
            </Typography>
          </Box>
          {!j.shut && <Qr text={address} />}
        </Box>
      )}
      {(j?.waiting.length ?? 0) > 0 && (
        <Box component="section" aria-labelledby="waiting">
          <Typography variant="h2" id="waiting">
            {count(j!.waiting.length, "student waits", "students wait")} for your yes
          </Typography>
          <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {j!.waiting.map((w) => (
              <Box
                component="li"
                key={w.id}
                sx={{
                  borderTop: 1,
                  borderColor: "divider",
                  minHeight: 40,
                  display: "flex",
                  gap: 1.5,
                  alignItems: "center",
                }}
              >
                <Box sx={{ flex: 1 }}>
                  <strong>{w.sortName}</strong>
                  {w.grade && `, grade ${w.grade}`}, since {sayMoment(w.since)}
                </Box>
                <Button
                  variant="outlined"
                  disabled={answer.isPending}
                  onClick={() => answer.mutate({ person: w.id, yes: true })}
                  aria-label={`Let ${w.sortName} in`}
                >
                  Let in
                </Button>
                <Button
                  color="inherit"
                  disabled={answer.isPending}
                  onClick={() => answer.mutate({ person: w.id, yes: false })}
                  aria-label={`Not ${w.sortName}`}
                >
                  No
                </Button>
              </Box>
            ))}
          </Box>
        </Box>
      )}
    </Desk>
  );
}

function Qr({ text }: { text: string }) {
  const image = useQuery({
    queryKey: ["qr", text],
    staleTime: Infinity,
    queryFn: () => QRCode.toDataURL(text, { margin: 2, width: 250, errorCorrectionLevel: "M" }),
  });
  return image.data ? (
    <img src={image.data} alt={`QR code that leads to ${text}`} width={250} height={250} />
  ) : null;
}
