import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import { Link as RouterLink, useLocation } from "react-router";
import type { Schemas } from "../api/client";
import { useSchool } from "../api/queries";
import { later } from "../parts/later";
import { FindBox } from "./FindBox";
import { seasons } from "./seasons";
import { YearStrip } from "./YearStrip";

const DemoDate = later(() => import("./DemoDate"), "DemoDate");
const OwnList = later(() => import("./OwnList"), "OwnList");

/** What stands at the top of every screen: the year as the map, and the box that finds anything. */
export function Shell({ me, children }: { me: Schemas["Me"]; children: ReactNode }) {
  const school = useSchool();
  const place = useLocation();
  const classId = /^\/classes\/(\d+)/.exec(place.pathname)?.[1];
  const staff = me.role !== "Student";
  const year = school.data?.years.find((y) => y.id === school.data.current);
  return (
    <>
      <Link
        href="#desk"
        sx={{
          position: "absolute",
          left: -9999,
          "&:focus": { left: 8, top: 8, zIndex: 20, bgcolor: "background.paper", p: 1 },
        }}
      >
        Skip to the desk
      </Link>
      <Box
        component="header"
        sx={{
          position: "sticky",
          top: 0,
          zIndex: 10,
          bgcolor: "background.default",
          borderBottom: 1,
          borderColor: "divider",
          display: "grid",
          gridTemplateColumns: { xs: "1fr", md: "168px minmax(0, 1fr) 226px" },
          columnGap: 2,
          px: 2.75,
          pt: 1.25,
          minHeight: 87,
        }}
      >
        <Box
          component={RouterLink}
          to="/"
          sx={{
            display: "flex",
            gap: 1.25,
            color: "text.primary",
            textDecoration: "none",
            alignSelf: "start",
          }}
        >
          <LoftMark />
          <Box>
            <Typography
              variant="h2"
              component="div"
              sx={{ fontSize: "1.2rem", fontWeight: 700, lineHeight: 1.1 }}
            >
              Spring Loft
            </Typography>
            <Typography variant="caption" sx={{ color: "text.secondary", whiteSpace: "nowrap" }}>
              {school.data?.name}
            </Typography>
          </Box>
        </Box>
        <Box sx={{ display: { xs: staff ? "block" : "none", md: "block" } }}>
          {staff && <Seasons classId={classId} path={place.pathname} />}
          {!staff && <Box sx={{ height: 32 }} />}
          {year && <YearStrip year={year} today={school.data!.today} />}
        </Box>
        <Box sx={{ display: "flex", flexDirection: "column", gap: 0.75, alignItems: "stretch" }}>
          {staff ? <FindBox me={me} /> : <Box sx={{ height: 30 }} />}
          <Box
            component="nav"
            aria-label="Places"
            sx={{
              display: "flex",
              gap: 1.5,
              justifyContent: "flex-end",
              fontSize: "0.85rem",
              alignItems: "center",
            }}
          >
            {staff ? (
              <>
                <Place to="/" now={place.pathname === "/"}>
                  Year board
                </Place>
                <Place to="/loft" now={place.pathname === "/loft"}>
                  Loft
                </Place>
              </>
            ) : (
              <Place to="/" now={place.pathname === "/"}>
                My classes
              </Place>
            )}
            <OwnMenu me={me} isDemo={school.data?.isDemo ?? false} today={school.data?.today} />
          </Box>
        </Box>
      </Box>
      <div id="desk" tabIndex={-1}>
        {children}
      </div>
    </>
  );
}

// Desks of a class that belong to a season without being called after it.
const belongs: Record<string, string> = {
  groups: "enroll",
  slips: "enroll",
  "join-code": "enroll",
  invitations: "enroll",
  "see-as": "set-up",
  tidy: "close",
  shelf: "close",
};

function Seasons({ classId, path }: { classId?: string; path: string }) {
  // Plan, set up and enroll stand at the start of the strip, closing and rolling over at its end, work between.
  const margin: Record<string, string> = { work: "clamp(12px, 7vw, 80px)", close: "auto" };
  return (
    <Box
      component="nav"
      aria-label="Seasons"
      sx={{ display: "flex", columnGap: 2.5, height: 32, flexWrap: "nowrap", pr: 4 }}
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
            sx={{
              ml: margin[s.path] ?? 0,
              fontSize: "0.97rem",
              fontWeight: 600,
              color: now ? "primary.main" : "text.primary",
              borderBottom: "3px solid",
              borderColor: now ? "primary.main" : "transparent",
              whiteSpace: "nowrap",
              height: 27,
            }}
          >
            {s.name}
          </Link>
        );
      })}
    </Box>
  );
}

function Place({ to, now, children }: { to: string; now: boolean; children: ReactNode }) {
  return (
    <Link
      component={RouterLink}
      to={to}
      underline="none"
      aria-current={now ? "page" : undefined}
      sx={{
        color: now ? "primary.main" : "text.secondary",
        fontWeight: now ? 700 : 400,
        whiteSpace: "nowrap",
      }}
    >
      {children}
    </Link>
  );
}

function OwnMenu({ me, isDemo, today }: { me: Schemas["Me"]; isDemo: boolean; today?: string }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [moving, setMoving] = useState(false);
  return (
    <>
      <Button
        onClick={(e) => setAnchor(e.currentTarget)}
        aria-haspopup="menu"
        sx={{
          p: 0,
          minHeight: 24,
          minWidth: 0,
          fontWeight: 400,
          color: "text.secondary",
          whiteSpace: "nowrap",
        }}
      >
        {me.name.split(" ")[0]} ▾
      </Button>
      {anchor && (
        <OwnList
          me={me}
          isDemo={isDemo}
          anchor={anchor}
          onMove={() => setMoving(true)}
          onClose={() => setAnchor(null)}
        />
      )}
      {moving && today && <DemoDate today={today} onClose={() => setMoving(false)} />}
    </>
  );
}

function LoftMark() {
  return (
    <Box
      component="svg"
      width="28"
      height="28"
      viewBox="0 0 32 32"
      fill="none"
      aria-hidden="true"
      sx={{ color: "text.primary", mt: 0.25 }}
    >
      <path
        d="M4 15 16 5l12 10"
        stroke="currentColor"
        strokeWidth="2.6"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      <path d="M7 14v13h18V14" stroke="currentColor" strokeWidth="2.6" strokeLinejoin="round" />
      <path d="M16 25v-7" stroke="#4f7a28" strokeWidth="2.2" strokeLinecap="round" />
      <path d="M16 19c-4 0-5-2-5-5 4 0 5 2 5 5Zm0-1c0-3 2-5 5-5 0 3-1 5-5 5Z" fill="#4f7a28" />
    </Box>
  );
}
