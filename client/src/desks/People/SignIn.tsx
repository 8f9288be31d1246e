import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { useTitle } from "../../parts/title";
import { ProviderDoors } from "../../parts/ProviderDoors";
import { SignInFields } from "../../parts/SignInFields";

/** The door: user name and password, or a provider of single sign-on. */
export function SignIn() {
  const [typed, setTyped] = useState({ userName: "", password: "" });
  const signIn = useAct(() => take(api.POST("/api/sign-in", { body: typed })));
  // A provider sent somebody back who was not let in: why is told once.
  const [ticket] = useState(() => new URLSearchParams(window.location.search).get("told"));
  const told = useQuery({
    queryKey: ["told", ticket],
    enabled: ticket !== null,
    staleTime: Infinity,
    retry: false,
    queryFn: () =>
      take(api.GET("/api/single-sign-on/told/{ticket}", { params: { path: { ticket: ticket! } } })),
  });
  useEffect(() => {
    if (ticket !== null) window.history.replaceState(null, "", "/");
  }, [ticket]);
  useTitle("Sign in");
  return (
    <Box
      component="main"
      sx={{ minHeight: "100vh", display: "grid", gridTemplateColumns: { xs: "1fr", md: "1.1fr 1fr" } }}
    >
      <Box
        sx={{
          display: { xs: "none", md: "flex" },
          flexDirection: "column",
          justifyContent: "center",
          px: 8,
          borderRight: 1,
          borderColor: "divider",
          bgcolor: "background.paper",
        }}
      >
        <Typography variant="h1" component="p" sx={{ fontSize: "2.6rem", maxWidth: 460 }}>
          A year of children&rsquo;s work, in good order.
        </Typography>
        <Typography sx={{ color: "text.secondary", mt: 2, maxWidth: 420 }}>
          Plan the year, set up classes, enroll, return every piece of work, and close the year with nothing
          lost.
        </Typography>
      </Box>
      {/* From the top, not in the middle: what comes late below moves nothing that one is about to press. */}
      <Box sx={{ pt: { xs: "12vh", md: "26vh" }, pb: 3, px: { xs: 3, md: 8 } }}>
        <Box
          component="form"
          sx={{ display: "flex", flexDirection: "column", gap: 2, maxWidth: 320 }}
          onSubmit={(e) => {
            e.preventDefault();
            signIn.mutate(undefined);
          }}
        >
          <Typography variant="h1">Sign in to Spring Loft</Typography>
          <SignInFields value={typed} onChange={setTyped} />
          <Problem error={signIn.error ?? (signIn.isPending ? null : told.error)} />
          <Button type="submit" variant="contained" disabled={signIn.isPending}>
            Sign in
          </Button>
          <ProviderDoors to={window.location.pathname + (ticket === null ? window.location.search : "")} />
          <Typography variant="body2" sx={{ color: "text.secondary" }}>
            Students: your user name and first password are on your sign-in slip. Lost it? Your teacher can
            give you a new one.
          </Typography>
        </Box>
      </Box>
    </Box>
  );
}
