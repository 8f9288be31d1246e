import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../api/client";
import { byItself } from "../../api/byItself";
import { useAct } from "../../api/useAct";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark, type Mark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";

const marks: Record<Schemas["LetterState"], Mark> = {
  Waiting: "underway",
  Sent: "done",
  GivenUp: "attention",
};

function standing(l: Schemas["LetterView"]) {
  if (l.state === "Sent") return `sent ${sayMoment(l.sentAt!)}`;
  if (l.state === "GivenUp")
    return l.mayTryAgain ? `given up after ${count(l.tries, "try", "tries")}` : "taken back";
  if (l.tries === 0 || !l.nextAt) return "on its way";
  return `not taken ${count(l.tries, "time", "times")}; next try ${sayMoment(l.nextAt)}`;
}

/** Letters on their way and what became of those before; without a mail server, also those that the stand-in keeps. */
export function Outbox() {
  const letters = useQuery({
    queryKey: ["letters"],
    queryFn: (asked) => take(api.GET("/api/letters", { headers: byItself(asked) })),
    refetchInterval: (q) => (q.state.data?.letters.some((l) => l.state === "Waiting") ? 2000 : false),
  });
  const stays = letters.data?.stayHere === true;
  const sent = letters.data?.letters.filter((l) => l.state === "Sent").length ?? 0;
  // Asked anew with each letter that goes.
  const kept = useQuery({
    queryKey: ["outbox", sent],
    queryFn: () => take(api.GET("/api/outbox")),
    enabled: stays,
    placeholderData: (before) => before,
  });
  const again = useAct((letterId: number, headers) =>
    take(api.POST("/api/letters/{letterId}/again", { params: { path: { letterId } }, headers })),
  );
  const rows = letters.data?.letters ?? [];
  return (
    <Desk
      title="Outbox"
      wide
      lead={
        stays
          ? "No mail server is connected, so letters are kept here and go to nobody. Each is an .eml file in the folder outbox of the data."
          : `A letter that the mail server does not take is tried again for ${letters.data?.triedForDays ?? "…"} days; nothing else waits for it.`
      }
    >
      <Problem error={letters.error ?? kept.error ?? again.error} />
      {letters.data && rows.length === 0 && (kept.data?.length ?? 0) === 0 && (
        <Empty title="No letter has been written." />
      )}
      {rows.length > 0 && (
        <PlainTable
          label="Letters"
          rows={rows}
          id={(l) => l.id}
          columns={[
            { head: "To", cell: (l) => l.to },
            { head: "About", cell: (l) => l.subject },
            { head: "Written", says: "worth", by: (l) => l.writtenAt, cell: (l) => sayMoment(l.writtenAt) },
            {
              head: "Stands",
              cell: (l) => (
                <>
                  <StateMark mark={l.state === "GivenUp" && !l.mayTryAgain ? "none" : marks[l.state]}>
                    {standing(l)}
                  </StateMark>
                  {l.trouble && (
                    <Typography variant="body2" color="textSecondary">
                      {l.trouble}
                    </Typography>
                  )}
                </>
              ),
            },
            {
              head: "",
              cell: (l) =>
                l.mayTryAgain &&
                l.tries > 0 && (
                  <Button
                    color="inherit"
                    disabled={again.isPending}
                    onClick={() => again.mutate(l.id)}
                    aria-label={`Try the letter to ${l.to} again`}
                  >
                    Try again
                  </Button>
                ),
              align: "right",
            },
          ]}
        />
      )}
      {stays && (kept.data?.length ?? 0) > 0 && (
        <Box component="section" sx={{ mt: 3 }}>
          <Typography variant="h2">Kept on this machine</Typography>
          {kept.data!.map((l) => (
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
        </Box>
      )}
    </Desk>
  );
}
