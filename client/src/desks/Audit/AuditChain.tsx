import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { count, sayMoment } from "../../parts/words";

/** Follows the chain of hashes, and says whether a line was changed, taken out or cut off. */
export function AuditChain() {
  const check = useAct(() => take(api.GET("/api/audit/check")));
  return (
    <>
      <Typography variant="h2">Is it as it was written?</Typography>
      <Typography variant="body2" sx={{ color: "text.secondary" }}>
        Each line has a hash that is made of it and of the line before. Whoever changes one, even in the
        database itself, breaks the chain there.
      </Typography>
      <Button variant="outlined" onClick={() => check.mutate(undefined)} disabled={check.isPending}>
        {check.isPending ? "Following the chain …" : "Follow the chain"}
      </Button>
      <Problem error={check.error} />
      {check.data && <Found found={check.data} />}
    </>
  );
}

function Found({ found }: { found: Schemas["AuditCheckView"] }) {
  return (
    <>
      <Alert severity={found.whole ? "success" : "error"} role="status">
        {found.whole
          ? `${count(found.lines, "line", "lines")} in an unbroken chain.`
          : found.wrong !== null
            ? `Line ${found.wrong}${found.wrongAt ? ` of ${sayMoment(found.wrongAt)}` : ""} is not as it was written, or lines before it are missing. The lines before it are whole.`
            : "The newest lines are missing: the trail was cut off at its end."}
      </Alert>
      {!found.whole && (
        <Typography variant="body2">
          Somebody has written into the database file itself. Keep the file as it is, compare it with a
          backup, and tell whoever answers for data protection at your school.
        </Typography>
      )}
      {found.letGo > 0 && (
        <Typography variant="body2">
          {count(found.letGo, "older line", "older lines")} {found.letGo === 1 ? "was" : "were"} let go of by
          the school&rsquo;s rule.
        </Typography>
      )}
      {found.erased > 0 && (
        <Typography variant="body2">
          In {count(found.erased, "line", "lines")} a person&rsquo;s name was taken out when they were erased.
        </Typography>
      )}
      {found.whole && (
        <Typography variant="body2" sx={{ color: "text.secondary", overflowWrap: "anywhere" }}>
          The newest hash, to be kept elsewhere: {found.lastHash}
        </Typography>
      )}
    </>
  );
}
