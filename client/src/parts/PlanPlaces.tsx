import type { Schemas } from "../api/client";
import { Places } from "./Places";

/** What is planned before anybody is enrolled; years, names and shared things are the coordinator's. */
export function PlanPlaces({ me }: { me: Schemas["Me"] }) {
  return (
    <Places
      label="What to plan"
      places={[
        ["/plan", "Folder plans"],
        ...(me.role === "Coordinator"
          ? ([
              ["/plan/years", "School years"],
              ["/plan/names", "Class names"],
              ["/plan/user-names", "User names"],
              ["/plan/first-passwords", "First passwords"],
              ["/plan/shared", "Sites and materials"],
              ["/plan/scales", "Scales"],
              ["/plan/rules", "School rules"],
            ] as const)
          : []),
        ["/plan/departments", "Departments"],
      ]}
    />
  );
}
