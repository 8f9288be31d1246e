import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

/** What the banks of departments have newer than this class's copies. */
export function BankOffers({ classId }: { classId: number }) {
  const path = { params: { path: { classId } } };
  const offers = useQuery({
    queryKey: ["bank-offers", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/bank-offers", path)),
  });
  const taking = useAct((o: Schemas["BankOffer"], headers) =>
    take(
      api.POST("/api/classes/{classId}/bank-offers/taking", {
        ...path,
        body: { assignments: o.isAssignment ? [o.copy] : [], items: o.isAssignment ? [] : [o.copy] },
        headers,
      }),
    ),
  );
  if (!offers.data || offers.data.length === 0) return null;
  return (
    <Box component="section" aria-label="Newer in the bank">
      <Typography variant="h3" component="h2">
        <StateMark mark="underway" strong>
          {offers.data.length} newer in the bank
        </StateMark>
      </Typography>
      {offers.data.map((o) => (
        <Box key={`${o.isAssignment}-${o.copy}`} sx={{ borderTop: 1, borderColor: "divider", py: 0.75 }}>
          <Typography variant="body2">
            “{o.title}” was changed in {o.bankName}
            {o.newTitle !== o.title && `: it is called “${o.newTitle}” there`}.
          </Typography>
          {o.handedIn > 0 ? (
            <Typography variant="body2" sx={{ color: "text.secondary" }}>
              It stays: {count(o.handedIn, "piece was", "pieces were")} handed in for it.
            </Typography>
          ) : (
            <Button sx={{ ml: -1.75 }} disabled={taking.isPending} onClick={() => taking.mutate(o)}>
              Take the bank&rsquo;s
            </Button>
          )}
        </Box>
      ))}
      <Problem error={taking.error} />
    </Box>
  );
}
