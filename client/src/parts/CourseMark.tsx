import Box from "@mui/material/Box";
import type { ReactNode } from "react";

// Marks of courses: drawn for us, one line weight, a colour each that reads on paper and in the dark.
const drawn: Record<string, [string, ReactNode]> = {
  hull: ["#9a5b1f", <path key="p" d="M2 8h12c-1 4-3 5-6 5S3 12 2 8Zm6 0V2l4 4" />],
  pot: [
    "#a1452f",
    <path key="p" d="M5 2h6M5.5 2c0 3-2.500 3.500-2.500 7 0 3 2 5 5 5s5-2 5-5c0-3.500-2.500-4-2.500-7" />,
  ],
  wave: [
    "#1f6f8b",
    <path key="p" d="M1 6c2.500-3 4.500-3 7 0s4.500 3 7 0M1 11c2.500-3 4.500-3 7 0s4.500 3 7 0" />,
  ],
  flag: ["#7a4b8f", <path key="p" d="M3 15V2m0 0 10 1.500-3 3 3 3L3 9" />],
  leaf: ["#4a7325", <path key="p" d="M3 14C3 6 7 2 14 2c0 7-4 10-9 10m-2 2c1-4 3-6 7-8" />],
  book: [
    "#5b5f2c",
    <path
      key="p"
      d="M8 4C6 2.500 4 2.500 1.500 3v10c2.500-.5 4.500-.5 6.500 1 2-1.500 4-1.500 6.500-1V3C12 2.500 10 2.500 8 4Zm0 0v10"
    />,
  ],
  compass: ["#2f5fa3", <path key="p" d="M8 1v2m0 10v2M1 8h2m10 0h2M8 4l2 4-2 4-2-4Z" />],
  note: [
    "#9c3a66",
    <path
      key="p"
      d="M6 12V3l7-1.500V10M6 12a2 2 0 1 1-4 0 2 2 0 0 1 4 0Zm7-2a2 2 0 1 1-4 0 2 2 0 0 1 4 0Z"
    />,
  ],
  sprig: [
    "#56626a",
    <path key="p" d="M8 15V7m0 2C4 9 3 7 3 3c4 0 5 2 5 6Zm0-1c0-3 1.500-5 5-5 0 3.500-1.500 5-5 5Z" />,
  ],
};

/** The marks there are, as the server names them. */
export const markNames = Object.keys(drawn);

/** The mark that all classes of a course wear. */
export function CourseMark({ mark }: { mark: string }) {
  const [colour, path] = drawn[mark] ?? drawn.sprig!;
  return (
    <Box
      component="svg"
      width="16"
      height="16"
      viewBox="0 0 16 16"
      aria-hidden="true"
      sx={[
        { flex: "none", color: colour, verticalAlign: "-3px" },
        // The same colours, lifted so that they stand out on the dark ground.
        (t) => t.applyStyles("dark", { filter: "brightness(1.9) saturate(0.8)" }),
      ]}
      fill="none"
      stroke="currentColor"
      strokeWidth="1.6"
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      {path}
    </Box>
  );
}
