import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { showCodes } from "../../api/standing";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { count, sayMoment } from "../../parts/words";
import { AddPasskey } from "./AddPasskey";
import { SetUpApp } from "./SetUpApp";

/** One's own second step: codes of an app, passkeys, and recovery codes for the day when neither is at hand. */
export function SecondStep() {
  const mine = useQuery({ queryKey: ["second-step"], queryFn: () => take(api.GET("/api/me/second-step")) });
  const [open, setOpen] = useState<"app" | "passkey" | null>(null);
  const [away, setAway] = useState<{ what: string; go: () => void } | null>(null);
  const noApp = useAct((_: void, headers) => take(api.DELETE("/api/me/second-step/app", { headers })));
  const noKey = useAct((passkeyId: number, headers) =>
    take(
      api.DELETE("/api/me/second-step/passkeys/{passkeyId}", { params: { path: { passkeyId } }, headers }),
    ),
  );
  const renew = useAct(
    () => take(api.POST("/api/me/second-step/recovery-codes")),
    (out) => showCodes(out.codes),
  );
  const d = mine.data;
  if (!d?.mayHave) return <Problem error={mine.error} />;
  const has = d.appSince !== null || d.passkeys.length > 0;
  return (
    <Box component="section" aria-labelledby="second-step" sx={{ mt: 4 }}>
      <Typography variant="h2" id="second-step">
        Second step
      </Typography>
      <Typography sx={{ color: "text.secondary", mt: 0.5, mb: 1.5 }}>
        {has
          ? "Whoever has your password still needs this. It is asked at sign-in, and once more before acts that would hurt in the wrong hands."
          : d.required
            ? d.passkeysOffered
              ? "Choose one of the two; a passkey is the easier one on a device of your own."
              : "An app on your phone shows a new code every half minute."
            : "With one, your password alone lets nobody in. You can read and change the work of many children: we advise it."}
      </Typography>
      {d.appSince !== null && (
        <Line
          what="Codes of an app"
          since={`since ${sayMoment(d.appSince)}`}
          onAway={() => setAway({ what: "the app", go: () => noApp.mutate() })}
        />
      )}
      {d.passkeys.map((p) => (
        <Line
          key={p.id}
          what={`Passkey “${p.name}”`}
          since={`since ${sayMoment(p.made)}${p.used === null ? ", not used yet" : `, last used ${sayMoment(p.used)}`}`}
          onAway={() => setAway({ what: `the passkey “${p.name}”`, go: () => noKey.mutate(p.id) })}
        />
      ))}
      <Problem error={noApp.error ?? noKey.error ?? renew.error} />
      <Box sx={{ display: "flex", gap: 1.5, mt: 1.5, flexWrap: "wrap" }}>
        {d.appSince === null && (
          <Button variant="outlined" onClick={() => setOpen("app")}>
            Set up an app…
          </Button>
        )}
        {d.passkeysOffered && (
          <Button variant="outlined" onClick={() => setOpen("passkey")}>
            Add a passkey…
          </Button>
        )}
        {has && (
          <Button variant="outlined" disabled={renew.isPending} onClick={() => renew.mutate(undefined)}>
            Make new recovery codes
          </Button>
        )}
      </Box>
      {has && d.recoveryCodes < 3 && (
        <Alert severity="warning" sx={{ mt: 1.5, maxWidth: 560 }}>
          {d.recoveryCodes === 0
            ? "You have no recovery code. Without one, a lost phone shuts you out."
            : `${count(d.recoveryCodes, "recovery code is", "recovery codes are")} left.`}{" "}
          Make new ones and keep them on paper.
        </Alert>
      )}
      {!d.passkeysOffered && (
        <Typography variant="body2" sx={{ color: "text.secondary", mt: 1.5 }}>
          Passkeys can be used once those who run Spring Loft have given it the school&rsquo;s address.
        </Typography>
      )}
      {open === "app" && <SetUpApp onClose={() => setOpen(null)} />}
      {open === "passkey" && <AddPasskey onClose={() => setOpen(null)} />}
      <Ask
        open={away !== null}
        title={`Take ${away?.what ?? ""} away?`}
        act="Take it away"
        onAct={() => {
          away?.go();
          setAway(null);
        }}
        onClose={() => setAway(null)}
      >
        <Typography>You will not be able to sign in with it any more.</Typography>
      </Ask>
    </Box>
  );
}

function Line({ what, since, onAway }: { what: string; since: string; onAway: () => void }) {
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 2,
        py: 1,
        borderTop: 1,
        borderColor: "divider",
        maxWidth: 640,
      }}
    >
      <Typography sx={{ flex: 1 }}>
        <strong>{what}</strong>{" "}
        <Typography component="span" sx={{ color: "text.secondary" }}>
          {since}
        </Typography>
      </Typography>
      <Button onClick={onAway} aria-label={`Take away: ${what}`}>
        Take away
      </Button>
    </Box>
  );
}
