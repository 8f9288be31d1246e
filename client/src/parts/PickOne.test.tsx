// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it } from "vitest";
import "../testing";
import { pathsOf, pickable } from "./folders/lines";
import { PickOne } from "./PickOne";

const folders = [
  { id: 1, name: "Units", parent: null, ownOf: null },
  { id: 2, name: "Übung", parent: 1, ownOf: null },
  { id: 3, name: "Umi", parent: 1, ownOf: "Umi Adeyemi" },
];

function Pick({ none, first = null }: { none?: string; first?: number | null }) {
  const [id, setId] = useState<number | null>(first);
  return (
    <>
      <PickOne label="Folder" none={none} options={pickable(folders)} value={id} onChange={setId} />
      <output>{String(id)}</output>
    </>
  );
}

const box = () => screen.getByRole<HTMLInputElement>("combobox", { name: "Folder" });
const picked = () => screen.getByRole("status").textContent;
const offered = () => screen.getAllByRole("option").map((o) => o.textContent);

describe("picking one of many", () => {
  it("finds it by any part of its name, whatever the marks, and takes it with Enter", async () => {
    render(<Pick />);

    await userEvent.type(box(), "ubu");
    expect(offered()).toEqual(["Units / Übung"]);
    await userEvent.keyboard("{Enter}");

    expect([picked(), box().value]).toEqual(["2", "Units / Übung"]);
  });

  it("offers the word for none, and says nothing was picked by it", async () => {
    render(<Pick none="the top" first={2} />);

    await userEvent.click(box());
    expect(offered()).toEqual(["the top", "Units", "Units / Übung"]);
    await userEvent.click(screen.getByRole("option", { name: "the top" }));

    expect([picked(), box().value]).toEqual(["null", "the top"]);
  });

  it("keeps what was picked when what is typed is nothing that there is", async () => {
    render(<Pick first={1} />);

    await userEvent.clear(box());
    await userEvent.type(box(), "zzz");
    expect(screen.getByText("Nothing has that in its name.")).toBeTruthy();
    await userEvent.tab();

    expect([picked(), box().value]).toEqual(["1", "Units"]);
  });

  it("shows nothing where what is picked is not among them", () => {
    render(<Pick first={99} />);
    expect(box().value).toBe("");
  });
});

describe("where folders stand", () => {
  it("is said from the top; of 5,000 in one another, for all of them", () => {
    expect(pathsOf(folders).get(2)).toBe("Units / Übung");
    const deep = Array.from({ length: 5000 }, (_, i) => ({
      id: i,
      name: `f${i}`,
      parent: i % 50 === 0 ? null : i - 1,
    }));
    expect(pathsOf(deep).get(4999)!.split(" / ")).toHaveLength(50);
  });
});
