import { createTheme, type ThemeOptions } from "@mui/material/styles";
import { tables } from "./parts/table/looks";

// The one place where type, colour, density and shape are set. Paper, ink, hairlines; one strong colour.
const text = '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif';
const heading = '"Bricolage Grotesque Variable", "Atkinson Hyperlegible Next Variable", sans-serif';

const options: ThemeOptions & { cssVariables: object } = {
  cssVariables: { colorSchemeSelector: "data-scheme" },
  colorSchemes: {
    light: {
      palette: {
        background: { default: "#fbf8f1", paper: "#fffdf8" },
        text: { primary: "#1d2a30", secondary: "#56626a" },
        divider: "#e2dacb",
        primary: { main: "#155a63", dark: "#0f464d", contrastText: "#fffdf8" },
        success: { main: "#4a7325" },
        warning: { main: "#8d590c" },
        error: { main: "#a33b27" },
        action: { hover: "#f5f0e4", selected: "#f0eadb" },
      },
    },
    dark: {
      palette: {
        background: { default: "#13191c", paper: "#192124" },
        text: { primary: "#ece7db", secondary: "#a9b3b1" },
        divider: "#2f3a3d",
        primary: { main: "#7cc3cb", dark: "#9bd4da", contrastText: "#0c1a1d" },
        success: { main: "#9cc774" },
        warning: { main: "#e0ad63" },
        error: { main: "#ef9a88" },
        action: { hover: "#1e282b", selected: "#243135" },
      },
    },
  },
  // In the text's own measure: with text twice as large a wide screen is a small one.
  breakpoints: { unit: "rem", values: { xs: 0, sm: 37.5, md: 56.25, lg: 75, xl: 96 } },
  shape: { borderRadius: 6 },
  spacing: 8,
  typography: {
    fontFamily: text,
    fontSize: 14,
    h1: {
      fontFamily: heading,
      fontSize: "1.6rem",
      fontWeight: 700,
      letterSpacing: "-0.01em",
      lineHeight: 1.2,
    },
    h2: { fontFamily: heading, fontSize: "1.12rem", fontWeight: 650, lineHeight: 1.3 },
    h3: { fontFamily: heading, fontSize: "0.98rem", fontWeight: 650, lineHeight: 1.4 },
    body1: { fontSize: "0.92rem", lineHeight: 1.55 },
    body2: { fontSize: "0.86rem", lineHeight: 1.5 },
    caption: { fontSize: "0.8rem" },
    button: { textTransform: "none", fontWeight: 650 },
  },
};

export const theme = createTheme({
  ...options,
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        // How high the bar is under which heads stick; on a phone it is one line.
        ":root": {
          "--bar": "87px",
          "--under-the-bar": "calc(var(--bar) + 16px)",
          "@media (max-width: 56.2rem)": { "--bar": "3.5rem" },
        },
        html: { scrollPaddingTop: "calc(var(--bar) + 48px)" },
        body: { overflowY: "scroll", overflowWrap: "break-word" },
        // On paper there is only what is to be read.
        "@media print": {
          "header, nav, aside, [href='#desk']": { display: "none !important" },
          // What is only worked with; a head that is a button says the name of its column.
          "main .MuiButton-root:not(thead *), main .MuiToggleButtonGroup-root, main .MuiFormControl-root, main .tick, main .no-head, main .MuiAutocomplete-root":
            { display: "none !important" },
          // Ink on paper, whatever the screen is.
          "html[data-scheme]": {
            colorScheme: "light",
            "--mui-palette-text-primary": "#000",
            "--mui-palette-text-secondary": "#444",
            "--mui-palette-divider": "#999",
            "--mui-palette-background-default": "#fff",
            "--mui-palette-background-paper": "#fff",
            "--mui-palette-primary-main": "#0f464d",
            "--mui-palette-success-main": "#345216",
            "--mui-palette-warning-main": "#6d4507",
            "--mui-palette-error-main": "#7d2a1b",
            "--mui-palette-action-selected": "#fff",
          },
          body: { overflow: "visible", backgroundColor: "#fff !important" },
        },
        "@page": { margin: "10mm" },
        "a:not([class])": { color: "var(--mui-palette-primary-main)", textUnderlineOffset: "3px" },
        // Figures that stand under one another align; in running text they keep their own width.
        "td.MuiTableCell-alignRight, .figure": { fontVariantNumeric: "tabular-nums" },
        // Where the keyboard is: around every control, whatever its part draws by itself.
        "*:focus-visible, .Mui-focusVisible, label:has(> input[type=file]:focus-visible)": {
          outline: "2px solid var(--mui-palette-primary-main) !important",
          outlineOffset: "1px !important",
        },
        // Around the tick and not around the input that lies unseen on it; a framed field thickens its own frame, which leaves room for its label.
        ".MuiCheckbox-root input, .MuiRadio-root input, .MuiSwitch-root input, .MuiInputBase-input": {
          outline: "none !important",
        },
        ".MuiInputBase-root:not(.MuiOutlinedInput-root):focus-within": {
          outline: "2px solid var(--mui-palette-primary-main)",
          outlineOffset: 1,
        },
        // What lies in something that is cut off at its edge has the ring inside.
        "tr:focus-visible, td:focus-visible, .MuiMenuItem-root.Mui-focusVisible, .MuiListItemButton-root.Mui-focusVisible, [role=treeitem]:focus-visible, .MuiToggleButton-root.Mui-focusVisible, th .Mui-focusVisible":
          { outlineOffset: "-2px !important" },
        "@media (forced-colors: active)": {
          "*:focus-visible, .Mui-focusVisible, .MuiInputBase-root:focus-within": {
            outlineColor: "Highlight !important",
            outlineWidth: "4px !important",
          },
          // What is chosen has lost its ground; it has a frame.
          "[aria-selected=true], [aria-pressed=true], [aria-current]:not([aria-current=false]), .Mui-selected, .Mui-focused":
            { outline: "2px solid Highlight", outlineOffset: "-2px" },
        },
        // A table that is wider than the screen is moved in its place, and not the page.
        "@media (max-width: 56.2rem)": {
          "main table.MuiTable-root, aside table.MuiTable-root, .MuiDialog-root table.MuiTable-root": {
            display: "block",
            overflowX: "auto",
            maxWidth: "100%",
          },
          ".MuiToggleButtonGroup-root": { flexWrap: "wrap" },
        },
        ...tables,
        // A name that is cut off at its edge, with the whole over it.
        ".one-line": {
          display: "block",
          maxWidth: 280,
          overflow: "hidden",
          textOverflow: "ellipsis",
          whiteSpace: "nowrap",
        },
        ".narrow": { maxWidth: 220 },
        // A link that is a button, in a line of text.
        "button.in-line": { font: "inherit", textAlign: "left", verticalAlign: "baseline" },
        // What is touched is as large as a finger.
        "@media (pointer: coarse)": {
          ".MuiButton-root, .MuiToggleButton-root, .MuiMenuItem-root, .sort, .table-menu, .MuiInputBase-root, .folders .MuiTreeItem-content":
            { minHeight: "44px !important" },
          ".MuiButton-root, .MuiIconButton-root": { minWidth: "44px !important" },
          ".MuiCheckbox-root, .MuiRadio-root": { width: 44, height: 44 },
          ".tick": { width: 44 },
          "header a": { minHeight: 44, minWidth: 44, display: "inline-flex", alignItems: "center" },
          // A link that stands alone in its cell or line; in running text it is as high as its line.
          ".alone, li > a, li > button.MuiLink-root, td > a, th[scope=row] > a, td > button.MuiLink-root": {
            display: "inline-flex",
            alignItems: "center",
            minHeight: 44,
          },
        },
        ".shrinks": { minWidth: 0 },
        // Said to those who listen, and not shown.
        ".only-heard": {
          position: "absolute",
          width: 1,
          height: 1,
          overflow: "hidden",
          clipPath: "inset(50%)",
          whiteSpace: "nowrap",
        },
        // A dialog has no bar above it.
        ".MuiDialog-root": { "--bar": "0px" },
        // Beside a slip on a screen of middling width a wide table is moved within the desk, and does not lie over the slip.
        "@media screen and (min-width: 56.25rem) and (max-width: 74.95rem)": { main: { overflowX: "auto" } },
        // What is wrong, where it is wrong.
        ".problem": {
          marginBlock: 8,
          padding: "14px 16px",
          border: "1px solid var(--mui-palette-error-main)",
          borderRadius: 6,
          fontSize: "0.88rem",
          lineHeight: 1.5,
          overflowWrap: "anywhere",
        },
        "@media (prefers-reduced-motion: reduce)": {
          "*": { transition: "none !important", animation: "none !important" },
        },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, size: "small" },
      styleOverrides: {
        root: {
          paddingInline: 14,
          minHeight: 34,
          lineHeight: 1.2,
          "td &": { minHeight: 28, paddingBlock: 2 },
        },
        outlined: { backgroundColor: "var(--mui-palette-background-paper)" },
      },
    },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: "none" } } },
    MuiFormControl: { styleOverrides: { root: { maxWidth: "100%" } } },
    MuiTextField: { defaultProps: { size: "small" } },
    MuiCheckbox: { defaultProps: { size: "small" }, styleOverrides: { root: { padding: 6 } } },
    MuiTable: { defaultProps: { size: "small" } },
    MuiTableCell: {
      styleOverrides: {
        root: {
          height: 36,
          padding: "2px 8px",
          borderColor: "var(--mui-palette-divider)",
          fontSize: "0.88rem",
        },
        stickyHeader: { top: "var(--bar)", "@media (max-width: 74.95rem)": { position: "static" } },
        head: {
          fontWeight: 650,
          fontSize: "0.8rem",
          color: "var(--mui-palette-text-secondary)",
          backgroundColor: "var(--mui-palette-background-default)",
          borderBottom: "1.5px solid var(--mui-palette-text-primary)",
        },
      },
    },
    MuiTableRow: {
      styleOverrides: {
        root: {
          "&.Mui-selected, &.Mui-selected:hover": { backgroundColor: "var(--mui-palette-action-selected)" },
        },
      },
    },
    MuiLink: { defaultProps: { underline: "always" }, styleOverrides: { root: { textUnderlineOffset: 3 } } },
    MuiAutocomplete: {
      styleOverrides: {
        paper: {
          border: "1px solid var(--mui-palette-divider)",
          backgroundColor: "var(--mui-palette-background-paper)",
        },
      },
    },
    MuiMenu: {
      styleOverrides: {
        paper: {
          border: "1px solid var(--mui-palette-divider)",
          backgroundColor: "var(--mui-palette-background-paper)",
        },
      },
    },
    MuiPopover: { defaultProps: { elevation: 0 } },
    MuiDialog: {
      styleOverrides: {
        paper: {
          border: "1px solid var(--mui-palette-divider)",
          backgroundColor: "var(--mui-palette-background-paper)",
        },
      },
    },
    MuiDialogTitle: {
      styleOverrides: {
        root: { fontFamily: heading, fontWeight: 650, fontSize: "1.15rem", paddingBottom: 8 },
      },
    },
    MuiDialogActions: { styleOverrides: { root: { padding: "8px 24px 20px" } } },
    MuiAlert: { defaultProps: { variant: "outlined", icon: false } },
    MuiTooltip: { defaultProps: { enterDelay: 400 }, styleOverrides: { tooltip: { fontSize: "0.8rem" } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          textTransform: "none",
          padding: "3px 12px",
          fontWeight: 600,
          color: "var(--mui-palette-text-primary)",
        },
      },
    },
    MuiTableSortLabel: {
      styleOverrides: {
        root: { color: "inherit", "&.Mui-active": { color: "var(--mui-palette-primary-main)" } },
      },
    },
    MuiLinearProgress: { styleOverrides: { root: { height: 6, borderRadius: 3 } } },
  },
});
