// @vitest-environment jsdom
import { render } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import "../testing";
import { useTitle, useTitleOf } from "./title";

function Bar({ of }: { of: string }) {
  useTitleOf(of);
  return null;
}

function Desk({ name, of }: { name: string; of?: string }) {
  useTitle(name);
  return of === undefined ? null : <Bar of={of} />;
}

describe("the window's title", () => {
  it("names the desk, and the class in hand for as long as it is", () => {
    const { rerender } = render(<Desk name="Set up" />);
    expect(document.title).toBe("Set up · Spring Loft");

    rerender(<Desk name="Set up" of="Clay 6B" />);
    expect(document.title).toBe("Set up · Clay 6B · Spring Loft");

    rerender(<Desk name="Close" of="Boats 7A" />);
    expect(document.title).toBe("Close · Boats 7A · Spring Loft");

    rerender(<Desk name="Year board" />);
    expect(document.title).toBe("Year board · Spring Loft");
  });
});
