import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import Link from "@mui/material/Link";
import type { Schemas } from "../api/client";
import { ruleWords } from "./words";

type Folder = Schemas["UnfoldedView"];

/** What a plan unfolds to: the tree with who may do what, long runs of like folders folded to their first few. */
export function UnfoldingTree({ tree }: { tree: Folder[] }) {
  const below = useMemo(() => {
    const map = new Map<number | null, number[]>();
    tree.forEach((f, i) => map.set(f.parent ?? null, [...(map.get(f.parent ?? null) ?? []), i]));
    return map;
  }, [tree]);
  return <Level tree={tree} below={below} of={null} depth={0} />;
}

function Level({
  tree,
  below,
  of,
  depth,
}: {
  tree: Folder[];
  below: Map<number | null, number[]>;
  of: number | null;
  depth: number;
}) {
  const [all, setAll] = useState(false);
  const here = below.get(of) ?? [];
  const most = depth === 0 ? 12 : 4;
  const shown = all || here.length <= most + 1 ? here : here.slice(0, most);
  return (
    <Box
      component="ul"
      sx={{
        listStyle: "none",
        m: 0,
        pl: depth === 0 ? 0 : 2.25,
        ml: depth === 0 ? 0 : 0.75,
        borderLeft: depth === 0 ? 0 : 1,
        borderColor: "divider",
      }}
    >
      {shown.map((i) => {
        const f = tree[i]!;
        return (
          <li key={i}>
            <Box sx={{ display: "flex", gap: 1, alignItems: "baseline", minHeight: 25 }}>
              <Typography
                component="span"
                variant="body2"
                sx={{
                  fontWeight: depth === 0 ? 650 : 400,
                  fontStyle: f.forEach ? "italic" : "normal",
                  overflow: "hidden",
                  textOverflow: "ellipsis",
                  whiteSpace: "nowrap",
                }}
              >
                {f.name}
              </Typography>
              <Box sx={{ flex: 1 }} />
              <Typography
                component="span"
                variant="caption"
                sx={{ color: "text.secondary", whiteSpace: "nowrap" }}
              >
                {f.forEach ? "one each, stands ready" : ruleWords[f.rule]}
              </Typography>
            </Box>
            {below.has(i) && <Level tree={tree} below={below} of={i} depth={depth + 1} />}
          </li>
        );
      })}
      {shown.length < here.length && (
        <li>
          <Link
            component="button"
            type="button"
            variant="body2"
            color="text.secondary"
            onClick={() => setAll(true)}
          >
            {here.length - shown.length} more
          </Link>
        </li>
      )}
    </Box>
  );
}

/** Counts over an unfolding, with their nouns. */
export function UnfoldingCounts({ view }: { view: Schemas["UnfoldingView"] }) {
  const figures: [number, string, boolean][] = [
    [view.folders, view.folders === 1 ? "folder" : "folders", false],
    [view.forEachStudent, "more for each student", false],
    [view.schoolWeeks, "school weeks", false],
    [view.clashes, "name clashes", view.clashes > 0],
  ];
  return (
    <Box sx={{ display: "flex", gap: 3.5, borderBottom: 1, borderColor: "divider", pb: 1, mb: 1 }}>
      {figures.map(([n, what, warn]) => (
        <Box key={what}>
          <Typography variant="h2" component="div" sx={{ color: warn ? "warning.main" : "text.primary" }}>
            {n}
          </Typography>
          <Typography variant="caption" sx={{ color: "text.secondary" }}>
            {what}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
