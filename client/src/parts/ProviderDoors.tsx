import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, take } from "../api/client";

const signedOn = "spring-loft-signed-on";
const addressOf = (key: string, to: string) =>
  `/api/single-sign-on/${encodeURIComponent(key)}/begin?to=${encodeURIComponent(to)}`;

/** The providers that the operator has named. */
export const useProviders = () =>
  useQuery({
    queryKey: ["providers"],
    staleTime: Infinity,
    queryFn: () => take(api.GET("/api/single-sign-on")),
  });

/** The ways in by providers of single sign-on, where there are any. */
export function ProviderDoors({ to }: { to: string }) {
  const providers = useProviders().data ?? [];
  return providers.map((p) => (
    <Button key={p.key} variant="outlined" href={addressOf(p.key, to)}>
      Sign in with {p.name}
    </Button>
  ));
}

/** The same over a screen that stays as it is: in a window of its own, which says when it is done. */
export function ProviderWindows({ onSignedOn }: { onSignedOn: () => void }) {
  const providers = useProviders().data ?? [];
  useEffect(() => {
    const told = new BroadcastChannel(signedOn);
    told.onmessage = onSignedOn;
    return () => told.close();
  }, [onSignedOn]);
  return providers.map((p) => (
    <Button
      key={p.key}
      variant="outlined"
      onClick={() => window.open(addressOf(p.key, "/signed-on"), "_blank", "popup,width=520,height=700")}
    >
      Sign in with {p.name}
    </Button>
  ));
}

/** Tells the screens that wait in other windows that somebody signed in here. */
export function tellSignedOn() {
  const tell = new BroadcastChannel(signedOn);
  tell.postMessage("");
  tell.close();
}
