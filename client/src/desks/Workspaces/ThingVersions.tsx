import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { Written } from "../../parts/Written";
import { sayBytes, sayMoment } from "../../parts/words";

/** Earlier versions of a page or a file: whose they are and from when, how they read or where to fetch them, and the way back. */
export function ThingVersions(props: {
  kind: Schemas["ItemKind"];
  classId: number;
  itemId: number;
  version: number;
  mayChange: boolean;
  onDone: () => void;
}) {
  const { classId, itemId } = props;
  const [shown, setShown] = useState<number | null>(null);
  const [compared, setCompared] = useState<number | null>(null);
  const page = props.kind === "Page";
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
  const differences = useQuery({
    queryKey: ["differences", classId, itemId, compared, props.version],
    enabled: compared !== null,
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/items/{itemId}/versions/{version}/differences", {
          params: { path: { classId, itemId, version: compared! } },
        }),
      ),
  });
  const look = (version: number | null, compare: number | null) => {
    setShown(version);
    setCompared(compare);
  };
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
      <Problem error={versions.error ?? text.error ?? differences.error ?? back.error} />
      {versions.data?.length === 0 && (
        <Typography color="text.secondary">It has not been changed since it was added.</Typography>
      )}
      {(versions.data ?? []).map((v) => (
        <Box key={v.version} sx={{ borderTop: 1, borderColor: "divider", py: 0.5 }}>
          <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
            <Typography sx={{ flex: 1 }}>
              {sayMoment(v.at)}, {v.by}
            </Typography>
            {page ? (
              <>
                <Button
                  aria-expanded={shown === v.version}
                  onClick={() => look(shown === v.version ? null : v.version, null)}
                >
                  {shown === v.version ? "Fold it away" : "Look at it"}
                </Button>
                <Button
                  aria-expanded={compared === v.version}
                  onClick={() => look(null, compared === v.version ? null : v.version)}
                >
                  {compared === v.version ? "Fold it away" : "Compare with now"}
                </Button>
              </>
            ) : (
              <Link
                href={`/api/classes/${classId}/items/${itemId}/versions/${v.version}`}
                download
                aria-label={`Download the version of ${sayMoment(v.at)}`}
              >
                Download, {sayBytes(v.size)}
              </Link>
            )}
            {props.mayChange && (
              <Button disabled={back.isPending} onClick={() => back.mutate(v.version)}>
                Bring it back
              </Button>
            )}
          </Box>
          {shown === v.version && typeof text.data === "string" && <Written text={text.data} />}
          {compared === v.version && differences.data && <Compared parts={differences.data} />}
        </Box>
      ))}
    </Box>
  );
}

/** An earlier text against the one of now: struck out what is gone, underlined what is new. */
function Compared({ parts }: { parts: readonly Schemas["TextDifference"][] }) {
  if (parts.every((p) => p.kind === "Same"))
    return <Typography color="text.secondary">It reads as it does now.</Typography>;
  return (
    <>
      <Typography variant="body2" color="text.secondary">
        Struck out is gone since, underlined is new.
      </Typography>
      <Typography component="div" sx={{ whiteSpace: "pre-wrap" }}>
        {parts.map((p, i) =>
          p.kind === "Gone" ? (
            <Box key={i} component="del" sx={{ color: "error.main" }}>
              {p.text}
            </Box>
          ) : p.kind === "New" ? (
            <Box key={i} component="ins" sx={{ color: "success.main", fontWeight: 700 }}>
              {p.text}
            </Box>
          ) : (
            p.text
          ),
        )}
      </Typography>
    </>
  );
}
