import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { Schemas } from "../../../api/client";

/** The folders of a class, each to be ticked with all inside it. */
export function FolderTicks(props: {
  folders: Schemas["ShelfFolder"][];
  ticked: ReadonlySet<number>;
  flip: (id: number) => void;
}) {
  const ids = new Map(props.folders.map((f) => [f.id, f]));
  const depth = (f: Schemas["ShelfFolder"]): number =>
    f.parent != null && ids.has(f.parent) ? 1 + depth(ids.get(f.parent)!) : 0;
  const within = (f: Schemas["ShelfFolder"]): boolean =>
    f.parent != null &&
    ids.has(f.parent) &&
    (!f.staffOnly || ids.get(f.parent)!.staffOnly) &&
    (props.ticked.has(f.parent) || within(ids.get(f.parent)!));
  const ordered: Schemas["ShelfFolder"][] = [];
  const walk = (parent: number | null) => {
    for (const f of props.folders.filter(
      (x) => (x.parent != null && ids.has(x.parent) ? x.parent : null) === parent,
    )) {
      ordered.push(f);
      walk(f.id);
    }
  };
  walk(null);
  return (
    <Box>
      {ordered.map((f) => (
        <Box key={f.id} sx={{ pl: depth(f) * 2 }}>
          <FormControlLabel
            control={
              <Checkbox
                checked={props.ticked.has(f.id) || within(f)}
                disabled={within(f)}
                onChange={() => props.flip(f.id)}
                sx={{ py: 0.25 }}
              />
            }
            label={`${f.name}${f.things > 0 ? ` (${f.things})` : ""}${f.staffOnly ? ", staff only" : ""}`}
          />
        </Box>
      ))}
    </Box>
  );
}
