import type { Schemas } from "../api/client";
import { Places } from "./Places";

/** What belongs to enrolling as a whole; what the records send is the coordinator's. */
export function EnrollPlaces({ me }: { me: Schemas["Me"] }) {
  return (
    <Places
      label="Where to enroll"
      places={[
        ["/enroll", "Rosters"],
        ["/enroll/directory", "Directory"],
        ...(me.role === "Coordinator"
          ? ([
              ["/enroll/deliveries", "Deliveries"],
              ["/enroll/families", "Families"],
            ] as const)
          : []),
        ["/enroll/combined", "Combined rosters"],
      ]}
    />
  );
}
