import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  server: { proxy: { "/api": "http://127.0.0.1:5080", "/stand-ins": "http://127.0.0.1:5080" } },
  // Nothing inline: the server's content security policy allows files only.
  build: {
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1500,
    rolldownOptions: {
      output: {
        // Their names are listed in what every screen loads: no more of them than tells them apart.
        chunkFileNames: "assets/[hash].js",
        // What every screen needs comes in three files and not in fifty: each is a way to the server and back.
        codeSplitting: {
          groups: [
            {
              name: "base",
              test: /node_modules[\\/](react|react-dom|scheduler|react-router|cookie|set-cookie-parser|@tanstack[\\/](react-query|query-core)|openapi-fetch|@emotion|stylis)[\\/]/,
            },
            {
              name: "look",
              // But for what only menus and ticks need.
              test: /node_modules[\\/](?!.*(useRovingTabIndex|SwitchBase))(@mui[\\/](system|styled-engine|utils|private-theming)|clsx|@mui[\\/]material[\\/](styles|utils|colors|Box|Typography|Link|Button|ButtonBase|CssBaseline|GlobalStyles|Portal|SvgIcon|className|DefaultPropsProvider|zero-styled|internal|transitions|useColorScheme|Paper))[\\/]/,
            },
            {
              name: "shell",
              test: /src[\\/](api[\\/](client|queries|standing|useAct)|shell[\\/](Shell|YearStrip|Doorkeeper|desk)|parts[\\/](Desk|history|Problem|later|typed|keys|words|StateMark|CourseMark|typedNumber|useTicks|due|DayPart|table[\\/]looks)|desks[\\/]Assignments[\\/]today|theme|App|main)\b/,
            },
            {
              // What only staff have in the bar.
              name: "staff-bar",
              test: /src[\\/]shell[\\/](FindBox|Seasons|seasonList)\b/,
            },
            {
              // What a student's first screen does not have.
              name: "tables",
              test: /(node_modules[\\/]@mui[\\/]material[\\/](Table|TableBody|TableCell|TableHead|TableRow)|src[\\/]parts[\\/]table[\\/](PlainTable|columns|sorting|useHidden))\b/,
            },
          ],
        },
      },
    },
  },
  test: { include: ["src/**/*.test.{ts,tsx}"], testTimeout: 120_000 },
});
