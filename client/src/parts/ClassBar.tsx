import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../api/client";
import { CourseMark } from "./CourseMark";
import { StateMark, type Mark } from "./StateMark";
import { useTitleOf } from "./title";
import { stateWords } from "./words";
import { useYearOf } from "./yearShown";

const marks: Record<Schemas["ClassState"], Mark> = {
  InPreparation: "underway",
  Open: "done",
  Archived: "none",
};

/** The class in hand: its mark, name and state, above every desk of it. */
export function ClassBar({ head }: { head: Schemas["ClassHead"] }) {
  const department = head.kind === "Department";
  const kept = head.kind === "Kept";
  useTitleOf(head.name);
  useYearOf(head.year);
  return (
    <Box component="span" sx={{ display: "inline-flex", gap: 1.25, alignItems: "center", flexWrap: "wrap" }}>
      <CourseMark mark={head.mark} />
      <strong>{head.name}</strong>
      {!department && !kept && <StateMark mark={marks[head.state]}>{stateWords[head.state]}</StateMark>}
      <Link
        component={RouterLink}
        to={
          kept ? "/close/kept" : department ? "/plan/departments" : head.state === "Archived" ? "/loft" : "/"
        }
        variant="body2"
        color="text.secondary"
      >
        {kept
          ? "kept copy"
          : department
            ? "departments"
            : head.state === "Archived"
              ? "in the loft"
              : "year board"}
      </Link>
    </Box>
  );
}
