import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { api, take } from "../../api/client";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { PlainTable } from "../../parts/table/PlainTable";
import { sayMoment } from "../../parts/words";
import { AuditChain } from "./AuditChain";

/** Who did what to which thing, when and from where; and whether the trail is as it was written. For coordinators. */
export function AuditTrail() {
  const [typed, setTyped] = useState({ text: "", day: "" });
  const sought = useDeferredValue(typed);
  const trail = useInfiniteQuery({
    queryKey: ["audit", sought.text.trim(), sought.day],
    initialPageParam: undefined as number | undefined,
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) =>
      take(
        api.GET("/api/audit", {
          params: {
            query: { before: pageParam, text: sought.text.trim() || undefined, day: sought.day || undefined },
          },
        }),
      ),
    getNextPageParam: (last) => (last.length === 200 ? last[last.length - 1]!.id : undefined),
  });
  const lines = trail.data?.pages.flat();
  return (
    <Desk
      title="Audit trail"
      wide
      lead="Who did what to which thing, when and from where. Lines are only ever added, and each is chained to the one before."
      slip={<AuditChain />}
    >
      <Box sx={{ display: "flex", gap: 1.5, mb: 1.5, flexWrap: "wrap" }}>
        <TextField
          label="Look for a name, an act or a word"
          value={typed.text}
          onChange={(e) => setTyped({ ...typed, text: e.target.value })}
          sx={{ width: 300 }}
        />
        <TextField
          label="From this day back"
          type="date"
          value={typed.day}
          onChange={(e) => setTyped({ ...typed, day: e.target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      </Box>
      <Problem error={trail.error} />
      {lines?.length === 0 && <Empty title="No line is like that">Take a word less, or a later day.</Empty>}
      <PlainTable
        label="Audit trail"
        rows={lines ?? []}
        id={(l) => l.id}
        columns={[
          { head: "When", says: "worth", by: (l) => l.at, cell: (l) => sayMoment(l.at), look: "line" },
          { head: "Who", cell: (l) => l.who },
          { head: "Did", cell: (l) => <strong>{l.act}</strong>, look: "line" },
          { head: "What", cell: (l) => l.detail, look: "any" },
          { head: "Class", cell: (l) => l.className, look: "soft" },
          {
            head: "From",
            cell: (l) => l.address,
            look: "soft",
            title: (l) => (l.session === null ? undefined : `In sign-in ${l.session}`),
          },
        ]}
      />
      {trail.hasNextPage && (
        <Button
          variant="outlined"
          sx={{ mt: 2 }}
          onClick={() => void trail.fetchNextPage()}
          disabled={trail.isFetching}
        >
          Show older lines
        </Button>
      )}
    </Desk>
  );
}
