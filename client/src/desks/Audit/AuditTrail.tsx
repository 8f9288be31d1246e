import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useInfiniteQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { Desk } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { sayMoment } from "../../parts/words";

/** Who did what to which thing, when. For coordinators. */
export function AuditTrail() {
  const trail = useInfiniteQuery({
    queryKey: ["audit"],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      take(
        api.GET("/api/audit", { params: { query: pageParam === undefined ? {} : { before: pageParam } } }),
      ),
    getNextPageParam: (last) => (last.length === 200 ? last[last.length - 1]!.id : undefined),
  });
  return (
    <Desk title="Audit trail" wide lead="Who did what to which thing, when. Lines are only ever added.">
      <Problem error={trail.error} />
      <Table aria-label="Audit trail" stickyHeader sx={{ "& thead th": { top: 87 } }}>
        <TableHead>
          <TableRow>
            <TableCell>When</TableCell>
            <TableCell>Who</TableCell>
            <TableCell>Did</TableCell>
            <TableCell>What</TableCell>
            <TableCell>Class</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {trail.data?.pages.flat().map((l) => (
            <TableRow key={l.id} hover>
              <TableCell sx={{ whiteSpace: "nowrap" }}>{sayMoment(l.at)}</TableCell>
              <TableCell sx={{ whiteSpace: "nowrap" }}>{l.who}</TableCell>
              <TableCell sx={{ whiteSpace: "nowrap" }}>
                <strong>{l.act}</strong>
              </TableCell>
              <TableCell>{l.detail}</TableCell>
              <TableCell sx={{ color: "text.secondary" }}>{l.className}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
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
