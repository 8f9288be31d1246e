import { useTitle } from "../../parts/title";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { api, take, type Schemas } from "../../api/client";
import { beginAnew } from "../../api/standing";
import { useAct } from "../../api/useAct";
import { ShowStep } from "../../parts/ShowStep";

/** Between the door and the house: the password was right, the second step is still to be shown. */
export function SecondStepDoor({ me }: { me: Schemas["Me"] }) {
  useTitle("Second step");
  return (
    <Box component="main" sx={{ px: { xs: 3, md: 8 }, py: 8, maxWidth: 560 }}>
      <Typography variant="h1">One more step, {me.name.split(" ")[0]}</Typography>
      <Typography sx={{ color: "text.secondary", mt: 1, mb: 3 }}>
        Your password was right. Now something that only you have.
      </Typography>
      <ShowStep onShown={() => undefined} />
      <SignOutHere name={me.name} />
    </Box>
  );
}

/** The way back to the door, where there is no menu yet. */
export function SignOutHere({ name }: { name: string }) {
  const leave = useAct(
    () => take(api.POST("/api/sign-out")),
    (out) => beginAnew(out.next),
  );
  return (
    <Button sx={{ mt: 3 }} onClick={() => leave.mutate(undefined)} disabled={leave.isPending}>
      Not {name}? Sign out
    </Button>
  );
}
