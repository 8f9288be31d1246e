import Box from "@mui/material/Box";
import { type Schemas } from "../../api/client";
import { StateMark, type Mark } from "../../parts/StateMark";

const kinds: Record<Schemas["PutKind"], [Mark, string]> = {
  Add: ["done", "added"],
  Adopt: ["done", "there already"],
  Change: ["underway", "changed"],
  Remove: ["notYet", "goes"],
  KeepTeachers: ["attention", "teacher's, stays"],
  KeepFull: ["attention", "not empty, stays"],
};

/** What a plan does or did in a class, line by line; alike ones once, with how many. */
export function PutLines({ lines }: { lines: Schemas["PutLine"][] }) {
  const told = new Map<string, { line: Schemas["PutLine"]; n: number }>();
  for (const line of lines) {
    const key = `${line.kind}|${line.folder}|${line.why}`;
    told.set(key, { line, n: (told.get(key)?.n ?? 0) + 1 });
  }
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, columns: { md: 2 }, columnGap: 3 }}>
      {[...told].map(([key, { line: l, n }]) => (
        <Box component="li" key={key} sx={{ breakInside: "avoid" }}>
          <StateMark mark={kinds[l.kind][0]}>{kinds[l.kind][1]}</StateMark> <strong>{l.folder}</strong>
          {n > 1 && ` × ${n}`}
          {l.kind !== "Add" && (
            <Box component="span" sx={{ color: "text.secondary" }}>
              : {l.why}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
