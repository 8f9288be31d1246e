import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { PlainTable } from "../../parts/table/PlainTable";
import { count, sayMoment } from "../../parts/words";
import { SecondStep } from "./SecondStep";

/** Where one is signed in, who set the password, and the way to end what should not be. */
export function SignIns() {
  const seen = useQuery({ queryKey: ["sign-ins"], queryFn: () => take(api.GET("/api/me/sign-ins")) });
  const end = useAct((id: number, headers) =>
    take(api.DELETE("/api/me/sign-ins/{id}", { params: { path: { id } }, headers })),
  );
  const others = useAct((_: void, headers) => take(api.POST("/api/me/sign-ins/end-others", { headers })));
  const d = seen.data;
  const away = d?.sessions.filter((s) => !s.here).length ?? 0;
  return (
    <Desk
      title="Where you are signed in"
      lead="A place that you do not know? Sign it out, then choose another password."
      slip={
        d && (
          <>
            <Typography variant="h2">
              {away === 0 ? "Here only" : `Here and in ${count(away, "other place", "other places")}`}
            </Typography>
            <Typography>
              A sign-in ends by itself {count(d.idleHours, "hour", "hours")} after it was used last, and{" "}
              {count(d.mostDays, "day", "days")} after it began.
            </Typography>
            {away > 0 && (
              <Button variant="contained" disabled={others.isPending} onClick={() => others.mutate()}>
                Sign out everywhere else
              </Button>
            )}
            {others.data && (
              <Typography role="status">
                {count(others.data.ended, "place was", "places were")} signed out.
              </Typography>
            )}
            <Problem error={others.error} />
            <Typography variant="h2">Your password</Typography>
            <Typography>
              {d.setAt === null && d.accounts.length > 0
                ? "You need none: you sign in with a provider."
                : d.setBySelf
                  ? `You chose it on ${sayMoment(d.setAt!)}.`
                  : d.setBy != null
                    ? `${d.setBy} gave you a new first password on ${sayMoment(d.setAt!)}.`
                    : "It came with your account."}
            </Typography>
            <Link component={RouterLink} to="/password">
              Change password
            </Link>
            {d.accounts.map((a) => (
              <Typography key={a.provider}>
                You are known at {a.provider} since {sayMoment(a.since)}, and can sign in with it.
              </Typography>
            ))}
            <Typography variant="h2">Your data</Typography>
            <Typography>What Spring Loft has of you, to read, as JSON, and your files.</Typography>
            <Link href="/api/me/data" download>
              Download all of it
            </Link>
          </>
        )
      }
    >
      <Problem error={seen.error ?? end.error} />
      {d && (
        <PlainTable
          label="Places where you are signed in"
          rows={d.sessions}
          id={(s) => s.id}
          columns={[
            {
              head: "Browser",
              cell: (s) => (
                <>
                  {s.browser}
                  {s.with != null && `, with ${s.with}`}
                </>
              ),
            },
            { head: "Since", says: "worth", by: (s) => s.begun, cell: (s) => sayMoment(s.begun) },
            {
              head: "Last used",
              says: "worth",
              by: (s) => s.seen,
              cell: (s) => (s.here ? "now" : sayMoment(s.seen)),
            },
            { head: "Network address", cell: (s) => s.address },
            {
              head: "",
              cell: (s) =>
                s.here ? (
                  <StateMark mark="done">here</StateMark>
                ) : (
                  <Button
                    disabled={end.isPending}
                    onClick={() => end.mutate(s.id)}
                    aria-label={`Sign out ${s.browser}, since ${sayMoment(s.begun)}`}
                  >
                    Sign out
                  </Button>
                ),
              align: "right",
            },
          ]}
        />
      )}
      <SecondStep />
    </Desk>
  );
}
