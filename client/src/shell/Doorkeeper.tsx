import Portal from "@mui/material/Portal";
import type { Schemas } from "../api/client";
import { useStanding } from "../api/standing";
import { later } from "../parts/later";

const AwayBar = later(() => import("./Doors"), "AwayBar");
const Renewal = later(() => import("./Doors"), "Renewal");
const StepAgain = later(() => import("./Doors"), "StepAgain");

/** Stands over every screen: a bar while the server is away, and a door where a session ended. The screen stays as it was. */
export function Doorkeeper({ me }: { me: Schemas["Me"] }) {
  const { away, ended, stepAgain } = useStanding();
  return (
    <>
      {/* Beside whatever dialog is open, not under it: what lies under one is not there for those who listen. */}
      {away && (
        <Portal>
          <AwayBar />
        </Portal>
      )}
      {ended && <Renewal me={me} />}
      {stepAgain && <StepAgain />}
    </>
  );
}
