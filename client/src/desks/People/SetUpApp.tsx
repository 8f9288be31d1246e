import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { toDataURL } from "qrcode";
import { useEffect, useState } from "react";
import { api, take } from "../../api/client";
import { showCodes } from "../../api/standing";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";

/** Sets up an authenticator app: a square picture to be read by it, and a first code that shows that it was. */
export function SetUpApp({ onClose }: { onClose: () => void }) {
  const [code, setCode] = useState("");
  const begin = useAct(() => take(api.POST("/api/me/second-step/app")));
  const confirm = useAct(
    () => take(api.PUT("/api/me/second-step/app", { body: { code } })),
    (out) => {
      onClose();
      showCodes(out.codes);
    },
  );
  const { mutate } = begin;
  useEffect(() => mutate(undefined), [mutate]);
  const image = useQuery({
    queryKey: ["picture-of", begin.data?.address],
    enabled: begin.data !== undefined,
    gcTime: 0,
    queryFn: () => toDataURL(begin.data!.address, { margin: 2, width: 200, errorCorrectionLevel: "M" }),
  });
  return (
    <Ask
      open
      kept
      title="Set up an app"
      act="Set it up"
      busy={confirm.isPending}
      disabled={code.trim().length === 0 || begin.data === undefined}
      error={confirm.error}
      onAct={() => confirm.mutate(undefined)}
      onClose={onClose}
    >
      <Typography>
        Open an authenticator app on your phone, add an account, and point it at this picture.
      </Typography>
      <Problem error={begin.error} />
      <Box sx={{ display: "flex", gap: 2, my: 2, alignItems: "center", flexWrap: "wrap" }}>
        {image.data ? (
          <img src={image.data} alt="QR code with the secret for your app" width={200} height={200} />
        ) : (
          <Box sx={{ width: 200, height: 200 }} />
        )}
        {begin.data && (
          <Typography variant="body2" sx={{ flex: 1, minWidth: 180, overflowWrap: "anywhere" }}>
            No camera? Type this secret into the app:
            <br />
            <strong>{begin.data.secret.match(/.{1,4}/g)!.join(" ")}</strong>
          </Typography>
        )}
      </Box>
      <TextField
        label="The code that the app shows"
        value={code}
        autoComplete="one-time-code"
        sx={{ width: "100%" }}
        onChange={(e) => setCode(e.target.value)}
        error={confirm.error?.field === "code"}
      />
    </Ask>
  );
}
