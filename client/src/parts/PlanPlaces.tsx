import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import { Link as RouterLink, useLocation } from "react-router";
import type { Schemas } from "../api/client";

/** The three things that are planned before anybody is enrolled; a teacher sees the folder plans. */
export function PlanPlaces({ me }: { me: Schemas["Me"] }) {
  const { pathname } = useLocation();
  if (me.role !== "Coordinator") return null;
  const places = [
    ["/plan", "Folder plans"],
    ["/plan/years", "School years"],
    ["/plan/names", "Class names"],
  ] as const;
  return (
    <Box component="nav" aria-label="What to plan" sx={{ display: "flex", gap: 2, mb: 1 }}>
      {places.map(([to, name]) => (
        <Link
          key={to}
          component={RouterLink}
          to={to}
          variant="body2"
          underline={pathname === to ? "none" : "always"}
          aria-current={pathname === to ? "page" : undefined}
          sx={{
            fontWeight: pathname === to ? 700 : 400,
            color: pathname === to ? "text.primary" : "primary.main",
          }}
        >
          {name}
        </Link>
      ))}
    </Box>
  );
}
