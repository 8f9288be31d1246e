// @vitest-environment jsdom
import { act, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useEffect, useRef, useState } from "react";
import { describe, expect, it } from "vitest";
import "../testing";
import { keepFocus } from "./focusKept";

function List() {
  const root = useRef<HTMLDivElement>(null);
  const [rows, setRows] = useState(["a", "b", "c"]);
  useEffect(() => keepFocus(root.current!), []);
  return (
    <div ref={root}>
      <main>
        <button>Run</button>
        <ul>
          {rows.map((r) => (
            <li key={r}>
              <button>See {r}</button>
              <button onClick={() => setRows(rows.filter((x) => x !== r))}>Bin {r}</button>
            </li>
          ))}
        </ul>
        <p>Nothing here to click.</p>
      </main>
    </div>
  );
}

const has = (name: string) => waitFor(() => expect(document.activeElement?.textContent).toBe(name));
const press = async (name: string) => {
  screen.getByRole("button", { name }).focus();
  await userEvent.keyboard("{Enter}");
};

describe("the focus", () => {
  it("goes to the same act of the next row when its row is gone, to the last when there is none after", async () => {
    render(<List />);

    await press("Bin b");
    await has("Bin c");
    await press("Bin c");
    await has("Bin a");
  });

  it("goes to what is left around it when the list is empty", async () => {
    render(<List />);
    for (const r of ["a", "b", "c"]) await press(`Bin ${r}`);

    await has("Run");
  });

  it("is taken by nothing when somebody clicked beside everything", async () => {
    render(<List />);
    const bin = screen.getByRole("button", { name: "Bin a" });
    bin.focus();
    await userEvent.click(screen.getByText("Nothing here to click."));
    act(() => bin.click());

    expect(screen.queryByText("Bin a")).toBeNull();
    expect(document.activeElement).toBe(document.body);
  });
});
