import { Places } from "../../parts/Places";

/** One class, or many at once. */
export const SetUpPlaces = () => (
  <Places
    label="How to make classes"
    places={[
      ["/set-up", "One class"],
      ["/set-up/many", "Many at once"],
    ]}
  />
);
