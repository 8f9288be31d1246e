// @vitest-environment jsdom
import { act, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import "../testing";
import { desk } from "./desk";

const wait = () => act(() => new Promise((go) => setTimeout(go, 0)));

describe("a desk", () => {
  it("says that it is opening, then stands", async () => {
    const Close = desk(() => Promise.resolve({ Close: () => <h1>Close</h1> }), "Close");

    render(<Close />);
    expect(screen.getByRole("status", { name: "Opening" })).toBeTruthy();
    await wait();

    expect(screen.getByRole("heading", { name: "Close" })).toBeTruthy();
  });

  it("whose code does not come says so, and what to do", async () => {
    // It came anew a moment ago: once more would be for ever.
    sessionStorage.setItem("came-anew", String(Date.now()));
    const said = vi.spyOn(console, "error").mockImplementation(() => {});
    const Gone = desk(
      () =>
        Promise.reject<{ Gone: () => null }>(
          new TypeError("Failed to fetch dynamically imported module: /assets/Gone-1a.js"),
        ),
      "Gone",
    );

    render(<Gone />);
    await wait();

    expect(screen.getByRole("alert").textContent).toContain("This page could not be fetched.");
    said.mockRestore();
  });
});
