import Box from "@mui/material/Box";
import { Component, Suspense, type ComponentProps, type ReactNode } from "react";
import { ProblemError } from "../api/client";
import { loaded } from "../parts/later";
import { Problem } from "../parts/Problem";
import { isTyped } from "../parts/typed";

/* eslint-disable @typescript-eslint/no-explicit-any -- a desk takes what its address gives it */

/**
 * A desk whose code comes when it is opened.
 * @param load Where its file is.
 * @param name What the file calls it.
 */
export function desk<M, K extends keyof M>(load: () => Promise<M>, name: K) {
  const Loaded = loaded(load, name);
  return function Desk(props: ComponentProps<typeof Loaded>) {
    return (
      <Opening>
        <Loaded {...(props as any)} />
      </Opening>
    );
  };
}

/** Where something is waited for whose code is not there yet; says so if it does not come. */
export function Opening({ children }: { children: ReactNode }) {
  return (
    <NotThere>
      <Suspense fallback={<Box role="status" aria-label="Opening" sx={{ minHeight: "60vh" }} />}>
        {children}
      </Suspense>
    </NotThere>
  );
}

const cameAnew = "came-anew";

/** A page that is older than the program asks for code that is gone: it comes anew by itself where nothing is typed. */
class NotThere extends Component<{ children: ReactNode }, { error: unknown }> {
  override state: { error: unknown } = { error: null };

  static getDerivedStateFromError(error: unknown) {
    return { error };
  }

  override componentDidCatch(error: unknown) {
    if (!isOfLoading(error)) return;
    const last = Number(sessionStorage.getItem(cameAnew) ?? 0);
    if (isTyped() || Date.now() - last < 60_000) return;
    sessionStorage.setItem(cameAnew, String(Date.now()));
    window.location.reload();
  }

  override render() {
    const { error } = this.state;
    if (error === null) return this.props.children;
    // Whatever else it is, is for who stands above.
    if (!isOfLoading(error))
      throw error instanceof Error ? error : new Error("A desk could not be drawn.", { cause: error });
    return (
      <Box component="main" sx={{ p: 4, maxWidth: 640 }}>
        <Problem
          error={
            new ProblemError(
              0,
              "page-not-there",
              "This page could not be fetched.",
              "Spring Loft may have been updated, or the connection is gone. Reload the page when nothing typed is lost by it.",
            )
          }
        />
      </Box>
    );
  }
}

const isOfLoading = (error: unknown) =>
  error instanceof TypeError && /dynamically imported module|importing a module|preload/i.test(error.message);
