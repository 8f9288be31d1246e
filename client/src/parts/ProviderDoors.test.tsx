// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import "../testing";
import { ProviderDoors, ProviderWindows, tellSignedOn } from "./ProviderDoors";
import type { ReactNode } from "react";

function at(children: ReactNode, providers = [{ key: "island", name: "Island District" }]) {
  const queries = new QueryClient();
  queries.setQueryData(["providers"], providers);
  return render(<QueryClientProvider client={queries}>{children}</QueryClientProvider>);
}

describe("ways in by providers", () => {
  it("lead to each, and back to where one wanted to go", () => {
    at(<ProviderDoors to="/classes/7/work?a=b" />);

    expect(screen.getByRole("link", { name: "Sign in with Island District" }).getAttribute("href")).toBe(
      "/api/single-sign-on/island/begin?to=%2Fclasses%2F7%2Fwork%3Fa%3Db",
    );
  });

  it("are none where there are none", () => {
    expect(at(<ProviderDoors to="/" />, []).container.textContent).toBe("");
  });

  it("over a screen open a window of their own, and go on when it says so", async () => {
    const opened = vi.spyOn(window, "open").mockReturnValue(null);
    const onSignedOn = vi.fn();
    at(<ProviderWindows onSignedOn={onSignedOn} />);

    await userEvent.click(screen.getByRole("button", { name: "Sign in with Island District" }));
    expect(opened.mock.calls[0]![0]).toBe("/api/single-sign-on/island/begin?to=%2Fsigned-on");
    tellSignedOn();

    await waitFor(() => expect(onSignedOn).toHaveBeenCalledOnce());
  });
});
