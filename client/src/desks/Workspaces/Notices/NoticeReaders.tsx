import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../../api/client";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { PlainTable } from "../../../parts/table/PlainTable";
import { sayMoment } from "../../../parts/words";

/** Who has seen a notice and who has not; those who have not come first. */
export function NoticeReaders({ notice, onClose }: { notice: Schemas["NoticeLine"]; onClose: () => void }) {
  const readers = useQuery({
    queryKey: ["notice-readers", notice.id],
    queryFn: () =>
      take(api.GET("/api/notices/{noticeId}/readers", { params: { path: { noticeId: notice.id } } })),
  });
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="notice-readers">
      <DialogTitle id="notice-readers">
        Seen by {notice.seen} of {notice.for}
      </DialogTitle>
      <DialogContent>
        <Problem error={readers.error} />
        {readers.data && (
          <PlainTable
            label="Who has seen it"
            rows={readers.data}
            id={(r) => r.person}
            columns={[
              { head: "Student", main: true, cell: (r) => r.sortName },
              { head: "Class", cell: (r) => r.className },
              {
                head: "Seen",
                by: (r) => r.seenAt,
                cell: (r) => (
                  <StateMark mark={r.seenAt ? "done" : "notYet"}>
                    {r.seenAt ? sayMoment(r.seenAt) : "not yet"}
                  </StateMark>
                ),
              },
            ]}
          />
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
