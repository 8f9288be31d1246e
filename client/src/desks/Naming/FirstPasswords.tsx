import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Desk } from "../../parts/Desk";
import { PatternField } from "../../parts/PatternField";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { useTyped } from "../../parts/typed";

/** The school's one rule for first passwords, tried out, and whether a classmate could guess them. */
export function FirstPasswords({ me }: { me: Schemas["Me"] }) {
  const [draft, setDraft] = useState<string>();
  useTyped(draft !== undefined);
  // The rule in force, and the one that is being tried: what is wrong with that one takes nothing off the screen.
  const inForce = useQuery({
    queryKey: ["first-passwords"],
    queryFn: () => take(api.GET("/api/naming/first-passwords", { params: { query: {} } })),
  });
  const seen = useQuery({
    queryKey: ["first-passwords", draft],
    enabled: draft !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => take(api.GET("/api/naming/first-passwords", { params: { query: { rule: draft } } })),
  });
  const save = useAct(
    (_: void, headers) =>
      take(
        api.PUT("/api/naming/first-passwords", {
          body: { rule: draft ?? null, version: inForce.data!.version },
          headers,
        }),
      ),
    () => setDraft(undefined),
  );
  const v = seen.data ?? inForce.data;
  return (
    <Desk
      title="First passwords"
      lead="One rule for the whole school. A first password stands on the slip until it has been used, and never after."
    >
      <PlanPlaces me={me} />
      {!v ? (
        <Problem error={inForce.error} />
      ) : (
        <Box sx={{ maxWidth: 640 }}>
          <PatternField
            value={draft ?? v.rule}
            placeholders={v.placeholders}
            error={seen.isError}
            onChange={setDraft}
          />
          <Problem error={seen.error ?? save.error} />
          {!seen.isError && (
            <Box role="status">
              <Typography>
                Like {v.examples.join(", ") || "nothing yet: nobody is in the directory"}
              </Typography>
              {v.warning ? (
                <Typography sx={{ "& span": { whiteSpace: "normal" } }}>
                  <StateMark mark="blocked">{v.warning}</StateMark>
                </Typography>
              ) : (
                <StateMark mark="done" wrap>
                  {Math.round(v.guesses).toLocaleString()} possible: no classmate guesses one from their own
                  slip.
                </StateMark>
              )}
            </Box>
          )}
          <Button
            variant="outlined"
            sx={{ mt: 1 }}
            disabled={draft === undefined || draft === inForce.data?.rule || seen.isError || save.isPending}
            onClick={() => save.mutate()}
          >
            Save the rule for first passwords
          </Button>
        </Box>
      )}
    </Desk>
  );
}
