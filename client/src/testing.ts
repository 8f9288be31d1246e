import { cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

// The browser of the tests has no layout: what asks for it gets nothing to do.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});
