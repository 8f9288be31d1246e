import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { Link as RouterLink, useLocation } from "react-router";
import type { Schemas } from "../api/client";
import { useNewsCount, useSchool } from "../api/queries";
import { keepFocus } from "../parts/focusKept";
import { later } from "../parts/later";
import { useYearShown } from "../parts/yearShown";
import { YearStrip } from "./YearStrip";

const DemoDate = later(() => import("./DemoDate"), "DemoDate");
const OwnList = later(() => import("./OwnList"), "OwnList");
const FindBox = later(() => import("./FindBox"), "FindBox");
const Seasons = later(() => import("./Seasons"), "Seasons");

/** What stands at the top of every screen: the year as the map, and the box that finds anything. */
export function Shell({ me, children }: { me: Schemas["Me"]; children: ReactNode }) {
  const school = useSchool();
  const place = useLocation();
  const fresh = useNewsCount(place.pathname).data?.new;
  const desk = useRef<HTMLDivElement>(null);
  useEffect(() => keepFocus(desk.current!), []);
  const bar = useBar();
  const classId = /^\/classes\/(\d+)/.exec(place.pathname)?.[1];
  const staff = me.role !== "Student";
  // On a small screen the year line is folded away until it is wanted.
  const [folded, setFolded] = useState(true);
  const ofClass = useYearShown();
  const current = school.data?.years.find((y) => y.id === school.data.current);
  const year = school.data?.years.find((y) => y.id === ofClass) ?? current;
  const another = year !== undefined && year !== current;
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
        ref={bar}
        sx={{
          position: "sticky",
          top: 0,
          zIndex: 10,
          bgcolor: "background.default",
          borderBottom: 1,
          borderColor: "divider",
          display: { xs: "flex", md: "grid" },
          gridTemplateColumns: { md: "10.5rem minmax(0, 1fr) 16.2rem" },
          alignItems: { xs: "center", md: "stretch" },
          columnGap: { xs: 1.25, md: 2 },
          px: { xs: 1.5, md: 2.75 },
          pt: { md: 1.25 },
          height: { xs: "var(--bar)", md: "auto" },
          minHeight: "var(--bar)",
        }}
      >
        <Box
          component={RouterLink}
          to="/"
          aria-label={`Spring Loft, ${staff ? "year board" : "today"}`}
          sx={{
            display: "flex",
            gap: 1.25,
            color: "text.primary",
            textDecoration: "none",
            alignSelf: { xs: "center", md: "start" },
          }}
        >
          <LoftMark />
          <Box sx={{ display: { xs: "none", md: "block" } }}>
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
        <Box sx={{ minWidth: 0, flex: 1 }}>
          <Box sx={{ height: "2rem", display: staff ? undefined : { xs: "none", md: "block" } }}>
            {staff && <Seasons classId={classId} path={place.pathname} />}
          </Box>
          {year && (
            <Box
              className={folded ? "folded" : undefined}
              sx={{
                "@media (max-width: 56.2rem)": {
                  position: "absolute",
                  left: 0,
                  right: 0,
                  top: "100%",
                  px: 2,
                  py: 1,
                  bgcolor: "background.default",
                  borderBottom: 1,
                  borderColor: "divider",
                  "&.folded": { display: "none" },
                },
              }}
            >
              <YearStrip year={year} today={school.data!.today} another={another} />
            </Box>
          )}
        </Box>
        <Box
          sx={{
            display: "flex",
            flexDirection: { xs: "row-reverse", md: "column" },
            gap: 0.75,
            alignItems: { xs: "center", md: "stretch" },
          }}
        >
          <Box sx={{ minHeight: 30, display: staff ? "grid" : { xs: "none", md: "grid" } }}>
            {staff && <FindBox me={me} />}
          </Box>
          {year && (
            <Button
              onClick={() => setFolded(!folded)}
              aria-expanded={!folded}
              sx={{
                display: { xs: "none", sm: "inline-flex", md: "none" },
                whiteSpace: "nowrap",
                minWidth: 0,
              }}
            >
              Year line {folded ? "▾" : "▴"}
            </Button>
          )}
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
                <Place to="/today" now={place.pathname === "/today"}>
                  Today
                </Place>
                <Box component="span" sx={{ display: { xs: "none", sm: "contents" } }}>
                  <Place to="/" now={place.pathname === "/"}>
                    Year board
                  </Place>
                  <Place to="/loft" now={place.pathname === "/loft"}>
                    Loft
                  </Place>
                </Box>
              </>
            ) : (
              <Place to="/" now={place.pathname === "/"}>
                Today
              </Place>
            )}
            <Place to="/news" now={place.pathname === "/news"}>
              News{fresh ? ` ${fresh}` : ""}
            </Place>
            <OwnMenu me={me} isDemo={school.data?.isDemo ?? false} today={school.data?.today} />
          </Box>
        </Box>
      </Box>
      <div id="desk" ref={desk} tabIndex={-1}>
        {children}
      </div>
    </>
  );
}

/** The bar is as high as the text in it asks for; what sticks under it follows. */
function useBar() {
  const bar = useRef<HTMLElement>(null);
  useEffect(() => {
    const watch = new ResizeObserver(() => {
      const root = document.documentElement.style;
      root.removeProperty("--bar");
      const style = getComputedStyle(document.documentElement);
      const said = style.getPropertyValue("--bar").trim();
      const meant = parseFloat(said) * (said.endsWith("rem") ? parseFloat(style.fontSize) : 1);
      const high = bar.current!.offsetHeight;
      if (high > meant) root.setProperty("--bar", `${high}px`);
    });
    watch.observe(bar.current!);
    return () => watch.disconnect();
  }, []);
  return bar;
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
