import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../api/client";
import { canPasskeys, showPasskey } from "../api/passkeys";
import { useAct } from "../api/useAct";
import { Problem } from "./Problem";

/** Asks for one's second step: a code of an app, a recovery code, or a passkey. */
export function ShowStep({ onShown }: { onShown: () => void }) {
  const [code, setCode] = useState("");
  const [none, setNone] = useState(false);
  const mine = useQuery({
    queryKey: ["second-step"],
    queryFn: () => take(api.GET("/api/me/second-step")),
  });
  const byCode = useAct(
    (_: void, headers) => take(api.POST("/api/me/second-step/code", { body: { code }, headers })),
    onShown,
  );
  const byKey = useAct(
    async () => {
      const asked = await take(api.POST("/api/me/second-step/passkey/asking"));
      const answer = await showPasskey(asked.options);
      setNone(answer === null);
      if (answer !== null) await take(api.POST("/api/me/second-step/passkey", { body: { answer } }));
      return answer !== null;
    },
    (shown) => shown && onShown(),
  );
  const hasKeys = (mine.data?.passkeys.length ?? 0) > 0 && canPasskeys();
  const hasApp = mine.data?.appSince != null;
  return (
    <Box
      component="form"
      sx={{ display: "flex", flexDirection: "column", gap: 2, maxWidth: 340 }}
      onSubmit={(e) => {
        e.preventDefault();
        byCode.mutate();
      }}
    >
      <Problem error={mine.error} />
      {hasKeys && (
        <Button
          type="button"
          variant={hasApp ? "outlined" : "contained"}
          disabled={byKey.isPending}
          onClick={() => byKey.mutate(undefined)}
        >
          Use a passkey
        </Button>
      )}
      {none && <Typography role="status">No passkey was shown. Try once more, or type a code.</Typography>}
      <Problem error={byKey.error} />
      <TextField
        label={hasApp ? "Code of your app, or a recovery code" : "A recovery code"}
        value={code}
        autoFocus
        autoComplete="one-time-code"
        onChange={(e) => setCode(e.target.value)}
        error={byCode.error?.field === "code"}
      />
      <Problem error={byCode.error} />
      <Button type="submit" variant="contained" disabled={byCode.isPending || code.trim().length === 0}>
        Go on
      </Button>
      <Typography variant="body2" sx={{ color: "text.secondary" }}>
        Lost both? Another coordinator can end your second step in the directory.
      </Typography>
    </Box>
  );
}
