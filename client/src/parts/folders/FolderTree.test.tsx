// @vitest-environment jsdom
import { fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import "../../testing";
import { FolderTree } from "./FolderTree";

type Folder = Schemas["FolderView"];

const folder = (id: number, name: string, parent: number | null = null, more: Partial<Folder> = {}) =>
  ({
    id,
    name,
    parent,
    rule: "AsAbove",
    right: "Manage",
    mine: false,
    ownOf: null,
    group: null,
    ...more,
  }) as Folder;

const few = [
  folder(1, "Start here"),
  folder(2, "Units"),
  folder(3, "Week 1", 2),
  folder(4, "Week 2", 2),
  folder(5, "Sheets", 3),
  folder(6, "Adeyemi, Umi", null, { ownOf: "Umi Adeyemi" }),
];

function Tree(props: {
  folders?: Folder[];
  chosen?: number;
  onMove?: (folder: Folder, into: Folder | null) => void;
}) {
  const [chosen, setChosen] = useState(props.chosen);
  return (
    <>
      <FolderTree
        folders={props.folders ?? few}
        counts={new Map([[3, 2]])}
        chosen={chosen}
        onChoose={setChosen}
        staff
        onMove={props.onMove}
      />
      <output>{chosen}</output>
    </>
  );
}

const names = () => screen.getAllByRole("treeitem").map((i) => i.querySelector(".folder-name")!.textContent);
const item = (name: string) => screen.getByRole("treeitem", { name: new RegExp(`^${name}`) });
const line = (name: string) => item(name).querySelector(".MuiTreeItem-content")!;
const chosen = () => document.querySelector("output")!.textContent;
const focused = () => document.activeElement?.querySelector(".folder-name")?.textContent;

describe("the tree of folders", () => {
  it("says where each stands: how deep, which of how many, open or shut", async () => {
    render(<Tree />);
    await userEvent.click(line("Units"));

    const week = item("Week 2");
    expect(["aria-level", "aria-posinset", "aria-setsize"].map((a) => week.getAttribute(a))).toEqual([
      "2",
      "2",
      "2",
    ]);
    expect(item("Units").getAttribute("aria-expanded")).toBe("true");
    expect(item("Start here").hasAttribute("aria-expanded")).toBe(false);
    expect(chosen()).toBe("2");
  });

  it("opens down to the one that is looked into", () => {
    render(<Tree chosen={5} />);

    expect(names()).toEqual(["Start here", "Units", "Week 1", "Sheets", "Week 2", "Adeyemi, Umi"]);
    expect(item("Sheets").getAttribute("aria-selected")).toBe("true");
  });

  it("is worked with the keys: to the last and the first, by the first letters, in and out", async () => {
    const user = userEvent.setup();
    render(<Tree chosen={1} />);
    await user.tab();
    expect(focused()).toBe("Start here");

    await user.keyboard("{End}");
    expect(focused()).toBe("Adeyemi, Umi");
    await user.keyboard("{Home}u");
    expect(focused()).toBe("Units");
    await user.keyboard("{ArrowRight}{ArrowRight}");
    expect(focused()).toBe("Week 1");
    await user.keyboard("{Enter}");
    expect(chosen()).toBe("3");
    await user.keyboard("{ArrowLeft}{ArrowLeft}{ArrowLeft}");
    expect([focused(), names().length]).toEqual(["Units", 3]);
  });

  it("is found by typing where there are many: what has it in its name and what that stands in, whatever the marks", async () => {
    const user = userEvent.setup();
    const many = [
      ...few,
      ...Array.from({ length: 20 }, (_, i) => folder(100 + i, `Unit ${i}`)),
      folder(200, "Übung", 5),
    ];
    render(<Tree folders={many} chosen={1} />);

    await user.type(screen.getByLabelText("Find a folder"), "ubung");
    expect(names()).toEqual(["Units", "Week 1", "Sheets", "Übung"]);
    await user.keyboard("{ArrowDown}");
    expect(focused()).toBe("Units");
    await user.type(screen.getByLabelText("Find a folder"), "xx");
    expect(screen.getByText("No folder has that in its name.")).toBeTruthy();
    await user.clear(screen.getByLabelText("Find a folder"));
    expect(names().length).toBe(23);
  });

  it("asks for nothing to be found where there are few", () => {
    render(<Tree />);
    expect(screen.queryByLabelText("Find a folder")).toBeNull();
  });

  it("takes a folder up and puts it into another with the keys, but not into itself, what stands in it, or where it is", async () => {
    const user = userEvent.setup();
    const moved = vi.fn();
    render(<Tree chosen={5} onMove={moved} />);
    const press = async (name: string, keys: string) => {
      item(name).focus();
      await user.keyboard(keys);
    };

    await press("Units", "{Control>}x{/Control}");
    expect(screen.getByText(/“Units” is taken up/)).toBeTruthy();
    for (const no of ["Units", "Week 1", "Sheets", "Adeyemi"]) await press(no, "{Control>}v{/Control}");
    expect(moved).not.toHaveBeenCalled();
    await press("Start here", "{Control>}v{/Control}");
    expect(moved.mock.calls[0]!.map((f: Folder) => f.name)).toEqual(["Units", "Start here"]);

    await press("Week 2", "{Control>}x{/Control}{Escape}");
    await press("Start here", "{Control>}v{/Control}");
    expect(moved).toHaveBeenCalledTimes(1);
    await press("Adeyemi", "{Control>}x{/Control}");
    expect(screen.queryByText(/is taken up/)).toBeNull();
  });

  it("is dragged onto another, or to the top", () => {
    const moved = vi.fn();
    render(<Tree chosen={5} onMove={moved} />);
    const dataTransfer = { setData: () => undefined, effectAllowed: "" };

    fireEvent.dragStart(line("Week 2"), { dataTransfer });
    // Whoever lets it be dropped there says so.
    expect(fireEvent.dragOver(line("Units"))).toBe(true);
    expect(fireEvent.dragOver(line("Start here"))).toBe(false);
    fireEvent.drop(line("Start here"));
    fireEvent.dragStart(line("Week 2"), { dataTransfer });
    fireEvent.drop(screen.getByText(/here to stand at the top/));

    expect((moved.mock.calls as [Folder, Folder | null][]).map(([f, into]) => [f.name, into?.name])).toEqual([
      ["Week 2", "Start here"],
      ["Week 2", undefined],
    ]);
  });

  it("moves nothing where nothing may be moved", async () => {
    const user = userEvent.setup();
    render(<Tree chosen={1} />);
    item("Units").focus();
    await user.keyboard("{Control>}x{/Control}");

    expect(screen.queryByText(/is taken up/)).toBeNull();
    expect(line("Units").getAttribute("draggable")).not.toBe("true");
  });
});
