import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take } from "../../api/client";
import { canPasskeys, makePasskey } from "../../api/passkeys";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";

/** Adds a passkey: this device, a phone, or a key on a ring. */
export function AddPasskey({ onClose }: { onClose: () => void }) {
  const [name, setName] = useState("");
  const [none, setNone] = useState(false);
  const add = useAct(
    async () => {
      const asked = await take(api.POST("/api/me/second-step/passkeys/asking"));
      const answer = await makePasskey(asked.options);
      setNone(answer === null);
      if (answer !== null) await take(api.POST("/api/me/second-step/passkeys", { body: { name, answer } }));
      return answer !== null;
    },
    (made) => made && onClose(),
  );
  return (
    <Ask
      open
      kept
      title="Add a passkey"
      act="Make it"
      busy={add.isPending}
      disabled={name.trim().length === 0 || !canPasskeys()}
      error={add.error}
      onAct={() => add.mutate(undefined)}
      onClose={onClose}
    >
      {canPasskeys() ? (
        <Typography sx={{ mb: 2 }}>
          Your browser will ask for a finger, a face, a PIN, or a key on a ring. Nothing of that comes to
          Spring Loft.
        </Typography>
      ) : (
        <Typography sx={{ mb: 2 }}>
          This browser can&rsquo;t make passkeys here: it needs an address with https. An app works
          everywhere.
        </Typography>
      )}
      <TextField
        label="What you call it, as “my phone”"
        value={name}
        onChange={(e) => setName(e.target.value)}
        sx={{ width: "100%" }}
      />
      {none && (
        <Typography role="status" sx={{ mt: 1.5 }}>
          No passkey was made. This device may be one of yours already.
        </Typography>
      )}
    </Ask>
  );
}
