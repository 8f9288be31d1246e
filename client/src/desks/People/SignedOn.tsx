import Typography from "@mui/material/Typography";
import { useEffect } from "react";
import { Desk } from "../../parts/Desk";
import { tellSignedOn } from "../../parts/ProviderDoors";

/** Where a sign-in in a window of its own ends: the screen that waits for it goes on, and the window is shut. */
export function SignedOn() {
  useEffect(() => {
    tellSignedOn();
    window.close();
  }, []);
  return (
    <Desk title="You are signed in">
      <Typography>Your other window goes on. You can close this one.</Typography>
    </Desk>
  );
}
