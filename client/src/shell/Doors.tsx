import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { api, take, type ProblemError, type Schemas } from "../api/client";
import { beginAnew, standing, steppedAgain } from "../api/standing";
import { Problem } from "../parts/Problem";
import { ProviderWindows } from "../parts/ProviderDoors";
import { ShowStep } from "../parts/ShowStep";
import { SignInFields } from "../parts/SignInFields";

/** Says that the server is away, until it is back. */
export function AwayBar() {
  const queries = useQueryClient();
  // Asked again until it answers: the answer itself takes the bar away.
  const ask = useQuery({
    queryKey: ["is-there"],
    queryFn: () => take(api.GET("/api/school")),
    refetchInterval: 5000,
    retry: false,
    gcTime: 0,
  });
  useEffect(
    () => () => {
      // Back again: what could not be read meanwhile is read now.
      void queries.invalidateQueries();
    },
    [queries],
  );
  return (
    <Box sx={{ position: "fixed", left: 0, right: 0, bottom: 0, zIndex: 1400 }}>
      <Alert
        severity="warning"
        role="alert"
        variant="filled"
        action={
          <Button color="inherit" disabled={ask.isFetching} onClick={() => void ask.refetch()}>
            Try again
          </Button>
        }
      >
        <strong>Spring Loft can’t be reached.</strong> What you have on the screen and what you typed stay
        here.
      </Alert>
    </Box>
  );
}

/** Asks for the second step once more. */
export function StepAgain() {
  return (
    <Dialog open aria-labelledby="step-again" onClose={() => steppedAgain(false)}>
      <DialogTitle id="step-again">Once more: is it you?</DialogTitle>
      <DialogContent>
        <Typography sx={{ color: "text.secondary", mb: 2 }}>
          What you are about to do would hurt in the wrong hands. It goes on as soon as you have shown your
          second step.
        </Typography>
        <ShowStep onShown={() => steppedAgain(true)} />
      </DialogContent>
      <DialogActions>
        <Button onClick={() => steppedAgain(false)}>Leave it</Button>
      </DialogActions>
    </Dialog>
  );
}

/** The door over a screen whose sign-in ended. */
export function Renewal({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [typed, setTyped] = useState({ userName: "", password: "" });
  const [step, setStep] = useState(false);
  const goOn = useCallback(() => {
    standing.renewed();
    void queries.invalidateQueries();
  }, [queries]);
  const look = useCallback(async () => {
    const now = await take(api.GET("/api/me"));
    // Somebody else's screen is not this one's.
    if (now.id !== me.id) beginAnew();
    else if (now.door === "StepNeeded") setStep(true);
    else goOn();
  }, [me.id, goOn]);
  const enter = useMutation<unknown, ProblemError>({
    mutationFn: async () => {
      await take(api.POST("/api/sign-in", { body: typed }));
      await look();
    },
  });
  const signedOn = useCallback(() => void look().catch(() => undefined), [look]);
  return (
    // Nothing of the screen is to be read while nobody is signed in.
    <Dialog
      open
      aria-labelledby="renewal"
      slotProps={{ backdrop: { sx: { bgcolor: "background.default" } } }}
    >
      {step ? (
        <>
          <DialogTitle id="renewal">One more step, {me.name.split(" ")[0]}</DialogTitle>
          <DialogContent sx={{ pt: "8px !important" }}>
            <ShowStep onShown={goOn} />
          </DialogContent>
        </>
      ) : (
        <Box
          component="form"
          onSubmit={(e) => {
            e.preventDefault();
            enter.mutate();
          }}
        >
          <DialogTitle id="renewal">Your sign-in has ended</DialogTitle>
          <DialogContent sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
            <Typography>
              Sign in once more, {me.name.split(" ")[0]}: your screen and what you typed are as you left them.
            </Typography>
            <SignInFields value={typed} onChange={setTyped} />
            <Problem error={enter.error} />
            <ProviderWindows onSignedOn={signedOn} />
          </DialogContent>
          <DialogActions>
            <Button variant="outlined" onClick={() => beginAnew()}>
              I am somebody else
            </Button>
            <Button variant="contained" type="submit" disabled={enter.isPending}>
              Sign in and go on
            </Button>
          </DialogActions>
        </Box>
      )}
    </Dialog>
  );
}
