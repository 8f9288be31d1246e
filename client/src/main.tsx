import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/bricolage-grotesque";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { ProblemError } from "./api/client";
import { App } from "./App";
import { theme } from "./theme";

const queries = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 5_000, retry: (n, e) => !(e instanceof ProblemError) && n < 2 },
  },
});

// One door for all addresses: which desk stands where is in App.
const router = createBrowserRouter([{ path: "*", element: <App /> }]);

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <ThemeProvider theme={theme} defaultMode="system">
      <CssBaseline />
      <QueryClientProvider client={queries}>
        {/* At once, not in a transition: what is clicked after a folder was chosen must be that folder's. */}
        <RouterProvider router={router} useTransitions={false} />
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
);
