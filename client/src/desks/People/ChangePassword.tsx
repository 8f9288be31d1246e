import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ProblemError, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { useGoOn } from "../../parts/typed";
import { sayMoment } from "../../parts/words";

/** A new password: asked for at the first sign-in, or wanted later. */
export function ChangePassword({ first, name }: { first?: boolean; name: string }) {
  const [oldPassword, setOld] = useState("");
  const [newPassword, setNew] = useState("");
  const [again, setAgain] = useState("");
  const go = useGoOn();
  const change = useAct(
    (_: void, headers) => take(api.POST("/api/me/password", { body: { oldPassword, newPassword }, headers })),
    () => go("/"),
  );
  const seen = useQuery({
    queryKey: ["sign-ins"],
    enabled: first === true,
    queryFn: () => take(api.GET("/api/me/sign-ins")),
  });
  const madeBy = seen.data && !seen.data.setBySelf ? seen.data.setBy : null;
  const differ = again.length > 0 && again !== newPassword;
  const wrong = change.error instanceof ProblemError ? change.error.field : undefined;
  return (
    <Desk
      title={first ? `Welcome, ${name.split(" ")[0]}` : "Change password"}
      lead={
        first
          ? `The password on your slip is for the first time only. Choose one that nobody else knows.${
              madeBy != null
                ? ` ${madeBy} made that slip on ${sayMoment(seen.data!.setAt!)}: if you did not expect it, tell a teacher whom you trust.`
                : ""
            }`
          : "Other places where you are signed in will be signed out."
      }
    >
      <Box
        component="form"
        sx={{ display: "flex", flexDirection: "column", gap: 2, maxWidth: 360 }}
        onSubmit={(e) => {
          e.preventDefault();
          if (!differ) change.mutate();
        }}
      >
        <TextField
          label={first ? "Password from your slip" : "Password now"}
          type="password"
          autoFocus
          autoComplete="current-password"
          value={oldPassword}
          error={wrong === "oldPassword"}
          onChange={(e) => setOld(e.target.value)}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          value={newPassword}
          error={wrong === "newPassword"}
          onChange={(e) => setNew(e.target.value)}
          helperText="8 characters or more. Three plain words are good."
        />
        <TextField
          label="New password again"
          type="password"
          autoComplete="new-password"
          value={again}
          error={differ}
          onChange={(e) => setAgain(e.target.value)}
          helperText={differ ? "The two are not the same yet." : " "}
        />
        <Problem error={change.error} />
        <Button type="submit" variant="contained" disabled={change.isPending || differ || again.length === 0}>
          Set new password
        </Button>
      </Box>
    </Desk>
  );
}
