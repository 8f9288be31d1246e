import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import { Link as RouterLink } from "react-router";
import { seasons } from "./seasonList";

// Desks of a class that belong to a season without being called after it.
const belongs: Record<string, string> = {
  marking: "work",
  scores: "work",
  activity: "work",
  work: "work",
  groups: "enroll",
  slips: "enroll",
  "join-code": "enroll",
  invitations: "enroll",
  "see-as": "set-up",
  tidy: "close",
  shelf: "close",
};

const intoSight = (link: HTMLElement | null) =>
  link?.scrollIntoView?.({ block: "nearest", inline: "nearest" });

/** The seasons of the year, each leading to its desk: of the class in hand, where there is one. */
export function Seasons({ classId, path }: { classId?: string; path: string }) {
  // Plan, set up and enroll stand at the start of the strip, closing and rolling over at its end, work between.
  const margin: Record<string, string> = { work: "clamp(12px, 7vw, 80px)", close: "auto" };
  return (
    <Box
      component="nav"
      aria-label="Seasons"
      sx={{
        display: "flex",
        columnGap: 2.5,
        height: "2rem",
        flexWrap: "nowrap",
        pr: { md: 4 },
        overflowX: { xs: "auto", md: "visible" },
        scrollbarWidth: "none",
      }}
    >
      {seasons.map((s) => {
        const to =
          s.path === "plan"
            ? classId
              ? `/plan?class=${classId}`
              : "/plan"
            : classId
              ? `/classes/${classId}/${s.path}`
              : `/${s.path}`;
        const now =
          path === `/${s.path}` ||
          path.startsWith(`/${s.path}/`) ||
          (path.startsWith("/classes/") && path.endsWith(`/${s.path}`)) ||
          belongs[path.split("/")[3] ?? ""] === s.path;
        return (
          <Link
            key={s.path}
            component={RouterLink}
            to={to}
            underline="none"
            aria-current={now ? "page" : undefined}
            // On a phone the seasons are moved sideways: the one in which one is, is in sight.
            ref={now ? intoSight : undefined}
            sx={{
              ml: margin[s.path] ?? 0,
              fontSize: "0.97rem",
              fontWeight: 600,
              color: now ? "primary.main" : "text.primary",
              borderBottom: "3px solid",
              borderColor: now ? "primary.main" : "transparent",
              whiteSpace: "nowrap",
              height: "1.7rem",
            }}
          >
            {s.name}
          </Link>
        );
      })}
    </Box>
  );
}
