import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { useArrival } from "./arrival";
import { useTitle } from "./title";

/** A desk: the work in the middle, at the right a slip that explains the thing in hand. */
export function Desk(props: {
  title: string;
  lead?: ReactNode;
  slip?: ReactNode;
  children: ReactNode;
  wide?: boolean;
}) {
  useTitle(props.title);
  const heading = useArrival<HTMLHeadingElement>();
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", md: props.slip ? "minmax(0, 1fr) 17rem" : "1fr" },
        minHeight: "calc(100vh - var(--bar))",
      }}
    >
      <Box
        component="main"
        sx={{ px: 2.75, py: 2, minWidth: 0, maxWidth: props.wide || props.slip ? "none" : 1120 }}
      >
        <Typography variant="h1" ref={heading} tabIndex={-1}>
          {props.title}
        </Typography>
        {props.lead && (
          <Typography
            component="div"
            sx={{ color: "text.secondary", mt: 0.5, mb: 1.5, "& strong": { color: "text.primary" } }}
          >
            {props.lead}
          </Typography>
        )}
        {props.children}
      </Box>
      {props.slip && (
        <Box
          component="aside"
          aria-label="Slip"
          sx={{
            borderLeft: { md: 1 },
            borderTop: { xs: 1, md: 0 },
            borderColor: { xs: "divider", md: "divider" },
            bgcolor: "background.paper",
            px: 2.25,
            py: 2.25,
          }}
        >
          <Box
            sx={{
              position: "sticky",
              top: "var(--under-the-bar)",
              display: "flex",
              flexDirection: "column",
              gap: 1.5,
            }}
          >
            {props.slip}
          </Box>
        </Box>
      )}
    </Box>
  );
}

/** An empty place: says what belongs there and offers the first step. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <Box
      sx={{
        border: "1.5px dashed",
        borderColor: "divider",
        borderRadius: 1,
        px: 3,
        py: 4,
        textAlign: "center",
        my: 1,
      }}
    >
      <Typography variant="h3" component="p">
        {title}
      </Typography>
      <Typography component="div" sx={{ color: "text.secondary", mt: 0.5 }}>
        {children}
      </Typography>
    </Box>
  );
}
