import Box from "@mui/material/Box";

/** Colours of sections, light and dark; a letter and a stripe of its own tell them apart without colour. */
const colours: [light: string, dark: string][] = [
  ["#155a63", "#7cc3cb"],
  ["#8d590c", "#e0ad63"],
  ["#6a3d7c", "#c9a3d8"],
  ["#4a7325", "#9cc774"],
  ["#a33b27", "#ef9a88"],
  ["#2f4f8f", "#9db7ee"],
  ["#7a5230", "#d2ab86"],
  ["#5b6168", "#b9c0c6"],
];

/** How many colours there are. */
export const sectionColours = colours.length;

/** The letter of a section on its colour. */
export function SectionMark({ letter, colour }: { letter: string; colour: number }) {
  const [light, dark] = colours[colour % colours.length]!;
  return (
    <Box
      component="span"
      sx={{
        display: "inline-flex",
        alignItems: "center",
        justifyContent: "center",
        width: 20,
        height: 20,
        borderRadius: "4px",
        fontSize: 12.5,
        fontWeight: 700,
        color: "#fffdf8",
        bgcolor: light,
        "[data-scheme='dark'] &": { bgcolor: dark, color: "#0c1a1d" },
      }}
    >
      {letter}
    </Box>
  );
}

/** The edge of a row that belongs to a section: thicker where a section begins. */
export const sectionEdge = (colour: number, begins: boolean) => {
  const [light, dark] = colours[colour % colours.length]!;
  return {
    boxShadow: `inset 5px 0 0 ${light}`,
    "[data-scheme='dark'] &": { boxShadow: `inset 5px 0 0 ${dark}` },
    ...(begins && { "& td": { borderTop: "2px solid", borderTopColor: "text.primary" } }),
  };
};
