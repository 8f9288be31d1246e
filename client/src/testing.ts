import { cleanup, configure } from "@testing-library/react";
import { afterEach } from "vitest";

// The browser of the tests has no layout: what asks for it gets nothing to do.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

// What is waited for comes when it comes, on a slow machine too: only what never comes fails.
configure({ asyncUtilTimeout: 60_000 });

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});
