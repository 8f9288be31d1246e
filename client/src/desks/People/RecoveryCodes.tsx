import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { copyText } from "../../parts/copy";

/** New recovery codes, the only time that they are shown. */
export function RecoveryCodes({ codes, onKept }: { codes: readonly string[]; onKept: () => void }) {
  const [copied, setCopied] = useState(false);
  return (
    <Box component="section" aria-labelledby="recovery-codes" sx={{ mt: 4, maxWidth: 560 }}>
      <Typography variant="h2" id="recovery-codes">
        Your recovery codes
      </Typography>
      <Alert severity="warning" sx={{ my: 1.5 }}>
        They are shown this once. Keep them on paper, not on the phone that they are to stand in for. Each
        works once; older ones work no more.
      </Alert>
      <Box
        component="ul"
        aria-label="Recovery codes"
        sx={{
          columnCount: { xs: 1, sm: 2 },
          fontFamily: "monospace",
          fontSize: "1.1rem",
          pl: 3,
          lineHeight: 1.9,
        }}
      >
        {codes.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1.5, mt: 1.5 }}>
        <Button variant="outlined" onClick={() => window.print()}>
          Print
        </Button>
        <Button variant="outlined" onClick={() => void copyText(codes.join("\n")).then(setCopied)}>
          {copied ? "Copied" : "Copy"}
        </Button>
        <Button variant="contained" onClick={onKept}>
          I have kept them
        </Button>
      </Box>
    </Box>
  );
}
