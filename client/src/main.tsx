import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/bricolage-grotesque";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { unstable_HistoryRouter as HistoryRouter } from "react-router";
import { ProblemError } from "./api/client";
import { App } from "./App";
import { gate } from "./parts/typed";
import { theme } from "./theme";

const queries = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 5_000, retry: (n, e) => !(e instanceof ProblemError) && n < 2 },
  },
});

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <ThemeProvider theme={theme} defaultMode="system">
      <CssBaseline />
      <QueryClientProvider client={queries}>
        {/* At once, not in a transition: what is clicked after a folder was chosen must be that folder's. */}
        <HistoryRouter history={gate.history} useTransitions={false}>
          <App />
        </HistoryRouter>
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
);
