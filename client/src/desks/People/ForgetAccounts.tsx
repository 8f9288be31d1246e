import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { Problem } from "../../parts/Problem";
import { sayMoment } from "../../parts/words";

/** Forgets the accounts at providers of somebody who has lost them. */
export function ForgetAccounts(props: { id: number; name: string; onClose: () => void }) {
  const path = { params: { path: { personId: props.id } } };
  const seen = useQuery({
    queryKey: ["accounts", props.id],
    queryFn: () => take(api.GET("/api/people/{personId}/accounts", path)),
  });
  const forget = useAct(
    (_: void, headers) => take(api.DELETE("/api/people/{personId}/accounts", { ...path, headers })),
    props.onClose,
  );
  const none = seen.data?.length === 0;
  return (
    <Ask
      open
      title={`Forget the accounts of ${props.name}?`}
      act="Forget them"
      disabled={!seen.data || none}
      busy={forget.isPending}
      error={forget.error}
      onAct={() => forget.mutate()}
      onClose={props.onClose}
    >
      <Problem error={seen.error} />
      {none && <Typography>None is known: they have not signed in with a provider yet.</Typography>}
      {seen.data?.map((a) => (
        <Typography key={a.provider}>
          Known at <strong>{a.provider}</strong> since {sayMoment(a.since)}.
        </Typography>
      ))}
      {seen.data && !none && (
        <Typography sx={{ mt: 1.5 }}>
          For whoever has lost the account, or came in with somebody else’s. They are signed out everywhere;
          the next account that the directory knows them by is theirs, and a password is good again until
          then.
        </Typography>
      )}
    </Ask>
  );
}
