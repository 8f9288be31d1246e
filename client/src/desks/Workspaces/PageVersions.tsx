import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { Written } from "../../parts/Written";
import { sayMoment } from "../../parts/words";

/** Earlier versions of a page: who wrote them and when, how they read, and the way back. */
export function PageVersions(props: {
  classId: number;
  itemId: number;
  version: number;
  mayChange: boolean;
  onDone: () => void;
}) {
  const { classId, itemId } = props;
  const [shown, setShown] = useState<number | null>(null);
  const versions = useQuery({
    queryKey: ["versions", classId, itemId, props.version],
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/items/{itemId}/versions", { params: { path: { classId, itemId } } }),
      ),
  });
  const text = useQuery({
    queryKey: ["version", classId, itemId, shown],
    enabled: shown !== null,
    queryFn: async () =>
      take(
        api.GET("/api/classes/{classId}/items/{itemId}/versions/{version}", {
          params: { path: { classId, itemId, version: shown! } },
          parseAs: "text",
        }),
      ),
  });
  const back = useAct(
    (version: number, headers) =>
      take(
        api.POST("/api/classes/{classId}/items/{itemId}/versions/{version}/bring-back", {
          params: { path: { classId, itemId, version } },
          body: { version: props.version },
          headers,
        }),
      ),
    props.onDone,
  );
  return (
    <Box component="section" aria-label="Earlier versions" sx={{ mt: 2 }}>
      <Typography variant="h3">Earlier versions</Typography>
      <Problem error={versions.error ?? text.error ?? back.error} />
      {versions.data?.length === 0 && (
        <Typography color="text.secondary">This page has not been changed since it was added.</Typography>
      )}
      {(versions.data ?? []).map((v) => (
        <Box key={v.version} sx={{ borderTop: 1, borderColor: "divider", py: 0.5 }}>
          <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
            <Typography sx={{ flex: 1 }}>
              {sayMoment(v.at)}, {v.by}
            </Typography>
            <Button
              aria-expanded={shown === v.version}
              onClick={() => setShown(shown === v.version ? null : v.version)}
            >
              {shown === v.version ? "Fold it away" : "Look at it"}
            </Button>
            {props.mayChange && (
              <Button disabled={back.isPending} onClick={() => back.mutate(v.version)}>
                Bring it back
              </Button>
            )}
          </Box>
          {shown === v.version && typeof text.data === "string" && <Written text={text.data} />}
        </Box>
      ))}
    </Box>
  );
}
