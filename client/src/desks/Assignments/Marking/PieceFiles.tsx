import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { sayMoment } from "../../../parts/words";
import { FileInView } from "./FileInView";

type File = Schemas["PieceFile"];
const keyOf = (f: File) => `${f.turn ?? ""}/${f.id}`;

/** What was handed in, two things side by side at the width of the screen; of more, each side says which one it shows. */
export function PieceFiles({ classId, view }: { classId: number; view: Schemas["PieceView"] }) {
  const { files, work } = view;
  const now = files.filter((f) => f.turn == null);
  const [chosen, setChosen] = useState<(string | null)[]>([null, null]);
  const first = files.find((f) => keyOf(f) === chosen[0]) ?? now[0] ?? files[0];
  const rest = files.filter((f) => f !== first);
  const second = rest.find((f) => keyOf(f) === chosen[1]) ?? now.find((f) => f !== first);
  if (!first) return <p className="soft">There is no file in it.</p>;
  const says = (f: File) => {
    const turn = work.turns.find((t) => t.id === f.turn);
    return turn ? `${f.name}, version of ${sayMoment(turn.handedInAt)}` : f.name;
  };
  const choice = (side: 0 | 1, value: File | undefined) =>
    files.length > 1 && (
      <TextField
        select
        variant="standard"
        label={side === 0 ? "Shown here" : "Beside it"}
        value={value ? keyOf(value) : ""}
        onChange={(e) => setChosen((was) => was.map((w, n) => (n === side ? e.target.value : w)))}
      >
        {side === 1 && !value && <MenuItem value="">nothing</MenuItem>}
        {(side === 0 ? files : rest).map((f) => (
          <MenuItem key={keyOf(f)} value={keyOf(f)}>
            {says(f)}
          </MenuItem>
        ))}
      </TextField>
    );
  return (
    <div className="piece-files" data-two={second !== undefined || undefined}>
      {[first, second].map((f, side) => (
        <div key={side} hidden={side === 1 && files.length < 2}>
          {choice(side as 0 | 1, f)}
          {f && <FileInView key={keyOf(f)} classId={classId} workId={work.id} file={f} />}
        </div>
      ))}
    </div>
  );
}
