import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { count } from "../../parts/words";
import { GiveOut } from "./GiveOut";

/** The slip of a kept copy: what it is for, and all of it into a class in one act. */
export function KeptSlip({ workspace: w }: { workspace: Schemas["WorkspaceView"] }) {
  const [giving, setGiving] = useState(false);
  const tops = w.folders.filter((f) => f.parent == null);
  return (
    <>
      <Typography variant="h2">Kept from {w.head.yearLabel}</Typography>
      <Typography>
        {count(w.folders.length, "folder", "folders")}, {count(w.items.length, "thing", "things")},{" "}
        {count(w.assignments.length, "draft", "drafts")}. Only you open it. Take single things from their own
        menu, or all of it.
      </Typography>
      <Button variant="contained" disabled={tops.length === 0} onClick={() => setGiving(true)}>
        Use all of it in a class…
      </Button>
      <Button variant="outlined" component={RouterLink} to="/close/kept">
        All kept copies
      </Button>
      {giving && (
        <GiveOut
          workspace={w}
          folders={tops}
          assignments={w.assignments.filter((a) => a.folders.length > 0)}
          onClose={() => setGiving(false)}
        />
      )}
    </>
  );
}
