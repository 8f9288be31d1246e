// @vitest-environment jsdom
import { act, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { describe, expect, it, vi } from "vitest";
import "../testing";
import { fetchSoon, later } from "./later";

function Typed({ of }: { of: string }) {
  const [text, setText] = useState("");
  return <input aria-label={of} value={text} onChange={(e) => setText(e.target.value)} />;
}

const wait = () => act(() => new Promise((go) => setTimeout(go, 0)));

describe("what comes later", () => {
  it("is fetched when it is opened, and nothing is shown until it is there", async () => {
    const load = vi.fn(() => Promise.resolve({ Slip: ({ of }: { of: string }) => <p>Slip of {of}</p> }));
    const Slip = later(load, "Slip");
    expect(load).not.toHaveBeenCalled();

    const { container } = render(<Slip of="Umi" />);
    expect(container.textContent).toBe("");
    await wait();

    expect(screen.getByText("Slip of Umi")).toBeTruthy();
    expect(load).toHaveBeenCalledOnce();
  });

  it("is drawn at once when it is there", async () => {
    const Slip = later(() => Promise.resolve({ Slip: () => <p>There</p> }), "Slip");
    render(<Slip />);
    await wait();

    const { container } = render(<Slip />);

    expect(container.textContent).toBe("There");
  });

  it("keeps what is typed in it when the screen under it is drawn anew", async () => {
    const Slip = later(() => Promise.resolve({ Slip: Typed }), "Slip");
    const { rerender } = render(<Slip of="Umi" />);
    await wait();
    fireEvent.change(screen.getByRole("textbox"), { target: { value: "typed" } });

    rerender(<Slip of="Rúna" />);

    expect(screen.getByRole("textbox", { name: "Rúna" })).toHaveProperty("value", "typed");
  });

  it("is fetched one after the other when nobody waits; what does not come is asked for again when it is opened", async () => {
    const order: string[] = [];
    let broken = true;
    later(() => {
      order.push("first");
      return Promise.resolve({ A: () => null });
    }, "A");
    const Second = later(() => {
      order.push("second");
      return broken ? Promise.reject(new TypeError("gone")) : Promise.resolve({ B: () => <p>Here</p> });
    }, "B");
    window.requestIdleCallback = (go) => {
      go({ didTimeout: false, timeRemaining: () => 1 });
      return 0;
    };

    fetchSoon();
    await wait();
    expect(order).toEqual(["first", "second"]);

    broken = false;
    render(<Second />);
    await wait();
    expect(screen.getByText("Here")).toBeTruthy();
  });
});
