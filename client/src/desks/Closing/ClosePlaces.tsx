import { Places } from "../../parts/Places";
import type { Schemas } from "../../api/client";

/** What belongs to closing the year as a whole. */
export function ClosePlaces({ me }: { me: Schemas["Me"] }) {
  return (
    <Places
      label="Where to close the year"
      places={[
        ["/close", "Classes"],
        ["/close/take-homes", "Take-homes"],
        ["/close/kept", "Kept copies"],
        ...(me.role === "Coordinator" ? ([["/close/gate", "The gate"]] as const) : []),
        ["/loft", "Loft"],
      ]}
    />
  );
}
