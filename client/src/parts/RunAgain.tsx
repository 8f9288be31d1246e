import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import { api, take } from "../api/client";
import { useAct } from "../api/useAct";
import { Problem } from "./Problem";

/** A run that ended with something failed: why, where it was a fault of the whole, and the button that takes it up again. */
export function RunAgain(props: {
  run: number;
  /** Why the run as a whole failed; null where single ones failed. */
  reason: string | null | undefined;
  /** What is tried again, as "3 classes". */
  what: string;
}) {
  const again = useAct((_: void, headers) =>
    take(api.POST("/api/runs/{runId}/again", { params: { path: { runId: props.run } }, headers })),
  );
  return (
    <>
      {props.reason && <Alert severity="error">{props.reason}</Alert>}
      <Button variant="contained" disabled={again.isPending} onClick={() => again.mutate()}>
        Try {props.what} again
      </Button>
      <Problem error={again.error} />
    </>
  );
}
