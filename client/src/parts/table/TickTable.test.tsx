// @vitest-environment jsdom
import { act, render, screen, within, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { beforeEach, describe, expect, it } from "vitest";
import "../../testing";
import type { Column } from "./columns";
import { TickTable } from "./TickTable";

interface Boat {
  id: number;
  name: string;
  length: number | null;
  built: string;
}

const boats: Boat[] = [
  { id: 1, name: "Skiff 10", length: 4, built: "2026-03-01T10:00:00Z" },
  { id: 2, name: "skiff 9", length: 12, built: "2026-01-31T10:00:00Z" },
  { id: 3, name: "Äolus", length: null, built: "2025-12-01T10:00:00Z" },
  { id: 4, name: "=SUM(A1)", length: 5, built: "2026-02-01T10:00:00Z" },
  { id: 5, name: "Barge, old", length: 30, built: "2024-02-01T10:00:00Z" },
];

const columns: Column<Boat>[] = [
  { head: "Boat", cell: (b) => <strong>{b.name}</strong> },
  { head: "Length", align: "right", by: (b) => b.length, cell: (b) => (b.length ? `${b.length} m` : "–") },
  { head: "Built", by: (b) => b.built, says: "worth", cell: (b) => b.built.slice(8, 10) },
  { head: "", cell: (b) => <button aria-label={`Launch ${b.name}`}>Launch</button> },
];

function List(props: { rows?: Boat[]; ticks?: boolean }) {
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  return (
    <TickTable
      label="Boats"
      rows={props.rows ?? boats}
      id={(b) => b.id}
      columns={columns}
      ticks={
        props.ticks
          ? {
              ticked,
              set: setTicked,
              may: (b) => b.id !== 3,
              label: (b) => `Tick ${b.name}`,
              all: "Tick all",
            }
          : undefined
      }
    />
  );
}

const names = () => screen.getAllByRole("rowheader").map((c) => c.textContent);
const sort = (head: string) => userEvent.click(screen.getByRole("button", { name: head }));
const open = () => userEvent.click(screen.getByRole("button", { name: "Table: Boats" }));

beforeEach(() => localStorage.clear());

describe("a table", () => {
  it("says which row is which, and names its columns", () => {
    render(<List />);

    const row = screen.getByRole("row", { name: /Barge/ });
    expect(within(row).getByRole("rowheader").textContent).toBe("Barge, old");
    expect(screen.getAllByRole("columnheader").map((h) => h.textContent)).toEqual([
      "Boat",
      "Length",
      "Built",
      "Table…",
    ]);
    // On a phone each value stands beside the name of its column.
    expect(within(row).getAllByRole("cell")[0]!.getAttribute("data-head")).toBe("Length");
  });

  it("is sorted up, down, and as it came; numbers in words by their worth, letters whatever their marks", async () => {
    render(<List />);
    const came = names();

    await sort("Boat");
    expect(names()).toEqual(["=SUM(A1)", "Äolus", "Barge, old", "skiff 9", "Skiff 10"]);
    expect(screen.getByRole("columnheader", { name: "Boat" }).getAttribute("aria-sort")).toBe("ascending");
    await sort("Boat");
    expect(names()).toEqual(["Skiff 10", "skiff 9", "Barge, old", "Äolus", "=SUM(A1)"]);
    expect(screen.getByRole("columnheader", { name: "Boat" }).getAttribute("aria-sort")).toBe("descending");
    await sort("Boat");
    expect(names()).toEqual(came);
    expect(screen.getByRole("columnheader", { name: "Boat" }).hasAttribute("aria-sort")).toBe(false);
  });

  it("is sorted by worth and not by words; what says nothing stands at the end both ways", async () => {
    render(<List />);

    await sort("Length");
    expect(names()).toEqual(["Skiff 10", "=SUM(A1)", "skiff 9", "Barge, old", "Äolus"]);
    await sort("Length");
    expect(names()).toEqual(["Barge, old", "skiff 9", "=SUM(A1)", "Skiff 10", "Äolus"]);
    await sort("Built");
    expect(names()[0]).toBe("Barge, old");
  });

  it("has a row below another only where something stands in it", () => {
    render(
      <TickTable
        label="Boats"
        rows={boats}
        id={(b) => b.id}
        columns={columns}
        below={(b) => [1, 2].filter((n) => n === b.id).map((n) => <p key={n}>Below {n}</p>)}
      />,
    );

    expect(screen.getAllByRole("row")).toHaveLength(1 + boats.length + 2);
  });

  it("has nothing to sort and no menu where there are few rows", () => {
    render(<List rows={boats.slice(0, 4)} />);

    expect(screen.queryByRole("button", { name: "Boat" })).toBeNull();
    expect(screen.queryByRole("button", { name: "Table: Boats" })).toBeNull();
  });

  it("goes to the clipboard as it is sorted, without what is only done, guarded against formulas", async () => {
    const user = userEvent.setup();
    render(<List />);
    await user.click(screen.getByRole("button", { name: "Boat" }));
    await user.click(screen.getByRole("button", { name: "Table: Boats" }));

    await user.click(await screen.findByRole("menuitem", { name: "Copy 5 rows" }));

    const lines = (await navigator.clipboard.readText()).split("\n").map((l) => l.split("\t"));
    expect(lines[0]).toEqual(["Boat", "Length", "Built"]);
    expect(lines.map((l) => l[0])).toEqual([
      "Boat",
      "'=SUM(A1)",
      "Äolus",
      "Barge, old",
      "skiff 9",
      "Skiff 10",
    ]);
    // As it is shown; a moment as a spreadsheet reads it, with its year.
    expect(lines.map((l) => l[1])).toEqual(["Length", "5 m", "–", "30 m", "12 m", "4 m"]);
    expect(lines[3]![2]).toMatch(/^2024-02-01 \d\d:\d\d$/);
    expect(screen.getAllByText("Copied 5 rows").some((e) => e.getAttribute("aria-live") === "polite")).toBe(
      true,
    );
  });

  it("gives what is ticked, where something is", async () => {
    const user = userEvent.setup();
    render(<List ticks />);
    await user.click(screen.getByRole("checkbox", { name: "Tick skiff 9" }));
    await user.click(screen.getByRole("button", { name: "Table: Boats" }));

    await user.click(await screen.findByRole("menuitem", { name: "Copy 1 ticked row" }));

    expect((await navigator.clipboard.readText()).split("\n")).toHaveLength(2);
  });

  it("takes no row for ticked that has no tick, whatever is said of it", () => {
    render(
      <TickTable
        label="Boats"
        rows={boats}
        id={(b) => b.id}
        columns={columns}
        ticks={{
          ticked: new Set(boats.map((b) => b.id)),
          set: () => undefined,
          may: (b) => b.id !== 3,
          label: (b) => `Tick ${b.name}`,
          all: "Tick all",
        }}
      />,
    );

    expect(screen.getByText("4 of 4 ticked")).toBeTruthy();
    expect(screen.getByRole("row", { name: /Äolus/ }).classList.contains("Mui-selected")).toBe(false);
    expect(screen.getByRole("row", { name: /Barge/ }).classList.contains("Mui-selected")).toBe(true);
  });

  it("ticks through the rows as they are sorted, and never one that has no tick", async () => {
    const user = userEvent.setup();
    render(<List ticks />);
    await user.click(screen.getByRole("button", { name: "Boat" }));

    await user.click(screen.getByRole("checkbox", { name: "Tick =SUM(A1)" }));
    await user.keyboard("{Shift>}");
    await user.click(screen.getByRole("checkbox", { name: "Tick skiff 9" }));
    await user.keyboard("{/Shift}");

    expect(screen.getByText("3 of 4 ticked")).toBeTruthy();
    expect(screen.queryByRole("checkbox", { name: "Tick Äolus" })).toBeNull();
  });

  it("hides columns, and remembers it in this browser", async () => {
    const { unmount } = render(<List />);
    await open();
    expect(screen.queryByRole("menuitemcheckbox", { name: "Boat" })).toBeNull();

    await userEvent.click(await screen.findByRole("menuitemcheckbox", { name: "Length" }));
    unmount();
    render(<List />);

    expect(screen.queryByRole("columnheader", { name: "Length" })).toBeNull();
    await open();
    await userEvent.click(await screen.findByRole("menuitemcheckbox", { name: "Length" }));
    expect(localStorage).toHaveLength(0);
  });

  it("hides none where there is no menu to show it again", () => {
    localStorage.setItem("columns of Boats", JSON.stringify(["Length"]));
    const { rerender } = render(<List rows={boats.slice(0, 3)} />);

    expect(screen.getByRole("columnheader", { name: "Length" })).toBeTruthy();
    rerender(<List />);
    expect(screen.queryByRole("columnheader", { name: "Length" })).toBeNull();
  });

  it("has the rows that stand after all others also where not all are drawn", async () => {
    const rows = Array.from({ length: 300 }, (_, i) => ({ ...boats[0]!, id: i, name: `Boat ${i}` }));
    const { container } = render(
      <TickTable
        label="Boats"
        rows={rows}
        id={(b) => b.id}
        columns={columns}
        after={
          <tr>
            <td>The mean of all</td>
          </tr>
        }
      />,
    );

    await waitFor(() =>
      expect(container.querySelector("tbody tr:last-child")!.textContent).toBe("The mean of all"),
    );
    expect(container.querySelectorAll("tbody th").length).toBeLessThan(200);
  });

  it("draws of very many rows those near the window, says how many there are, and draws all on paper", async () => {
    const rows = Array.from({ length: 400 }, (_, i) => ({ ...boats[0]!, id: i, name: `Boat ${i}` }));
    const { container } = render(<List rows={rows} />);
    const drawn = () => container.querySelectorAll("tbody th").length;
    await waitFor(() => expect(drawn()).toBeGreaterThan(0));

    expect(container.querySelector("table")!.getAttribute("aria-rowcount")).toBe("401");
    expect(container.querySelector("tbody tr[aria-rowindex]")!.getAttribute("aria-rowindex")).toBe("2");
    expect(drawn()).toBeLessThan(200);
    act(() => void window.dispatchEvent(new Event("beforeprint")));
    expect(drawn()).toBe(400);
    act(() => void window.dispatchEvent(new Event("afterprint")));
    expect(drawn()).toBeLessThan(200);
  });
});
