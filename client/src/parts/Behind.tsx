import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";

/** Somebody saved a newer one of what is being written here: both are said, and a person decides. */
export function Behind(props: {
  behind: boolean;
  theirs: ReactNode;
  onTheirs: () => void;
  onMine: () => void;
}) {
  if (!props.behind) return null;
  return (
    <Alert
      severity="warning"
      role="alert"
      sx={{ my: 1 }}
      action={
        <>
          <Button color="inherit" onClick={props.onTheirs}>
            Take theirs
          </Button>
          <Button color="inherit" onClick={props.onMine}>
            Keep mine
          </Button>
        </>
      }
    >
      Somebody else saved while you were writing. What you wrote is still here. {props.theirs}
    </Alert>
  );
}
