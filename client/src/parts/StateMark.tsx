import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** How something stands: told by shape, colour and the word beside it. */
export type Mark = "done" | "attention" | "blocked" | "notYet" | "underway" | "none";

const colour: Record<Mark, string> = {
  done: "success.main",
  attention: "warning.main",
  blocked: "error.main",
  notYet: "text.secondary",
  underway: "primary.main",
  none: "text.secondary",
};

const shapes: Record<Mark, ReactNode> = {
  done: <circle cx="5" cy="5" r="4" fill="currentColor" />,
  attention: <path d="M5 .8 9.2 5 5 9.2.8 5Z" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  blocked: <rect x="1" y="1" width="8" height="8" fill="currentColor" />,
  notYet: <circle cx="5" cy="5" r="3.6" fill="none" stroke="currentColor" strokeWidth="1.4" />,
  underway: (
    <>
      <circle cx="5" cy="5" r="3.6" fill="none" stroke="currentColor" strokeWidth="1.4" />
      <path d="M5 1.4a3.6 3.6 0 0 0 0 7.2Z" fill="currentColor" />
    </>
  ),
  none: <path d="M1.5 5h7" stroke="currentColor" strokeWidth="1.5" />,
};

/** A word with the shape of its state before it; a sentence if it may wrap. */
export function StateMark({
  mark,
  children,
  strong,
  wrap,
}: {
  mark: Mark;
  children: ReactNode;
  strong?: boolean;
  wrap?: boolean;
}) {
  return (
    <Box
      component="span"
      sx={{
        color: colour[mark],
        display: "inline-flex",
        alignItems: wrap ? "baseline" : "center",
        gap: 0.75,
        whiteSpace: wrap ? "normal" : "nowrap",
        "& svg": { flex: "none" },
        fontWeight: strong ? 650 : 400,
      }}
    >
      <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden="true">
        {shapes[mark]}
      </svg>
      <span>{children}</span>
    </Box>
  );
}

/** A small drawn gauge: how much of a whole is there. */
export function Gauge({ done, of, mark }: { done: number; of: number; mark: Mark }) {
  const part = of === 0 ? 0 : Math.min(1, done / of);
  return (
    <Box
      component="svg"
      width="34"
      height="8"
      viewBox="0 0 34 8"
      aria-hidden="true"
      sx={{ color: colour[mark], flex: "none" }}
    >
      <rect x=".5" y=".5" width="33" height="7" fill="none" stroke="currentColor" opacity=".55" />
      <rect x="0" y="0" width={34 * part} height="8" fill="currentColor" />
    </Box>
  );
}
