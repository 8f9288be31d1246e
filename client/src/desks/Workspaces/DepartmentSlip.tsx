import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { DetailsForm } from "./DetailsForm";

/** The slip of a department: its members, its bank, and the copies in classes that the bank has moved on from. */
export function DepartmentSlip({ workspace: w }: { workspace: Schemas["WorkspaceView"] }) {
  const classId = w.head.id;
  const [asking, setAsking] = useState<"details" | null>(null);
  const go = useNavigate();
  const path = { params: { path: { classId } } };
  const roster = useQuery({
    queryKey: ["roster", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/roster", path)),
  });
  const copies = useQuery({
    queryKey: ["bank-copies", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/bank-copies", path)),
  });
  const members = (roster.data ?? []).filter((r) => !r.left);
  const behind = copies.data ?? [];
  return (
    <>
      <Typography variant="h2">{count(members.length, "member", "members")}</Typography>
      <Typography>{members.map((m) => m.sortName).join("; ")}</Typography>
      <Button variant="outlined" component={RouterLink} to={`/classes/${classId}/enroll`}>
        Add members
      </Button>
      <Typography variant="h2" sx={{ mt: 1 }}>
        The bank
      </Typography>
      <Typography>
        {count(w.assignments.length, "assignment", "assignments")},{" "}
        {count(w.items.length, "file, link or page", "files, links and pages")}. Choose one, or a folder, and
        use it in classes: each gets a copy that remembers where it is from.
      </Typography>
      <Button variant="contained" onClick={() => void go(`/classes/${classId}/work/new`)}>
        Put an assignment in the bank…
      </Button>
      <Problem error={roster.error ?? copies.error} />
      {behind.length === 0 ? (
        <Typography variant="body2">
          <StateMark mark="done">no copy is behind the bank</StateMark>
        </Typography>
      ) : (
        <Box component="section" aria-label="Copies behind the bank">
          <Typography variant="h3" component="h2">
            <StateMark mark="underway" strong>
              {count(behind.length, "copy is", "copies are")} behind
            </StateMark>
          </Typography>
          {behind.slice(0, 8).map((o) => (
            <Typography
              key={`${o.isAssignment}-${o.copy}`}
              variant="body2"
              sx={{ borderTop: 1, borderColor: "divider", py: 0.5 }}
            >
              “{o.title}” in {o.className}
              {o.handedIn > 0
                ? `: stays as it is, ${count(o.handedIn, "piece was", "pieces were")} handed in`
                : ": offered to its teacher"}
            </Typography>
          ))}
          {behind.length > 8 && <Typography variant="body2">and {behind.length - 8} more</Typography>}
        </Box>
      )}
      <Button sx={{ alignSelf: "start", ml: -1.75 }} onClick={() => setAsking("details")}>
        About this department…
      </Button>
      {asking === "details" && <DetailsForm head={w.head} onClose={() => setAsking(null)} />}
    </>
  );
}
