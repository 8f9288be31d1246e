import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import { Link as RouterLink, useLocation } from "react-router";

/** The desks of one season, side by side in a line. */
export function Places({
  label,
  places,
}: {
  label: string;
  places: readonly (readonly [to: string, name: string])[];
}) {
  const { pathname } = useLocation();
  return (
    <Box component="nav" aria-label={label} sx={{ display: "flex", gap: 2, mb: 1.75, flexWrap: "wrap" }}>
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
