import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { sayMoment } from "../../parts/words";

/** Letters that the stand-in for the mail server kept. */
export function Outbox() {
  const letters = useQuery({ queryKey: ["outbox"], queryFn: () => take(api.GET("/api/outbox")) });
  return (
    <Desk
      title="Outbox"
      lead="No mail server is connected, so letters are kept here and go to nobody. Each is an .eml file in the folder outbox of the data."
    >
      <Problem error={letters.error} />
      {letters.data?.length === 0 && <Empty title="No letter has been written." />}
      {(letters.data ?? []).map((l) => (
        <Box key={l.file} component="section" sx={{ borderTop: 1, borderColor: "divider", py: 1.25 }}>
          <Typography variant="h3">{l.subject}</Typography>
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            to {l.to}, {sayMoment(l.at)}
          </Typography>
          <Typography component="pre" sx={{ whiteSpace: "pre-wrap", font: "inherit", m: 0, mt: 0.5 }}>
            {l.text}
          </Typography>
        </Box>
      ))}
    </Desk>
  );
}
