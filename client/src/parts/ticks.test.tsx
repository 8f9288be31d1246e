// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it } from "vitest";
import "../testing";
import { TickAll, TickRow } from "./ticks";
import { useTicks } from "./useTicks";

function List({ rows, also = [] }: { rows: string[]; also?: string[] }) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set(also));
  const ticks = useTicks(rows, ticked, setTicked);
  return (
    <>
      <TickAll ticks={ticks} label="Tick all" />
      {rows.map((r) => (
        <TickRow key={r} ticks={ticks} of={r} label={r} />
      ))}
      <output>{[...ticked].sort().join()}</output>
    </>
  );
}

const ticked = () => screen.getByRole("status").textContent;
const click = (name: string) => userEvent.click(screen.getByRole("checkbox", { name }));

describe("ticks in a list", () => {
  it("are set and taken off one by one", async () => {
    render(<List rows={["a", "b", "c"]} />);

    await click("b");
    expect(ticked()).toBe("b");
    await click("b");
    expect(ticked()).toBe("");
  });

  it("go from one row through to another with Shift, both ways, and come off so", async () => {
    render(<List rows={["a", "b", "c", "d", "e"]} />);
    const user = userEvent.setup();
    const box = (name: string) => screen.getByRole("checkbox", { name });

    await user.click(box("d"));
    await user.keyboard("{Shift>}");
    await user.click(box("b"));
    expect(ticked()).toBe("b,c,d");
    await user.click(box("d"));
    expect(ticked()).toBe("");
    await user.keyboard("{/Shift}");
  });

  it("are set for all that are shown, and only those; a second time for none", async () => {
    render(<List rows={["a", "b"]} also={["z"]} />);

    await click("Tick all");
    expect(ticked()).toBe("a,b");
    expect(screen.getByText("2 of 2 ticked")).toBeTruthy();
    await click("Tick all");
    expect(ticked()).toBe("");
  });

  it("say that some are set, and how many", async () => {
    render(<List rows={["a", "b"]} />);

    await click("a");

    expect(screen.getByRole("checkbox", { name: "Tick all" }).getAttribute("data-indeterminate")).toBe(
      "true",
    );
    expect(screen.getByText("1 of 2 ticked").getAttribute("aria-live")).toBe("polite");
  });

  it("can't be set before there are rows", () => {
    render(<List rows={[]} />);

    expect(screen.getByRole<HTMLInputElement>("checkbox", { name: "Tick all" }).disabled).toBe(true);
  });
});
