// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { ProblemError } from "../api/client";
import "../testing";
import { Ask } from "./Ask";

function asked(more: Partial<Parameters<typeof Ask>[0]> = {}) {
  const [onAct, onClose] = [vi.fn(), vi.fn()];
  const drawn = render(
    <Ask open title="Bin “Papers”?" act="Bin it" onAct={onAct} onClose={onClose} {...more}>
      <label>
        Why <input />
      </label>
      <label>
        Really <input type="checkbox" />
      </label>
    </Ask>,
  );
  return { onAct, onClose, ...drawn };
}

describe("a question before an act", () => {
  it("is a dialog called by its question, and its button says what it does", async () => {
    const { onAct } = asked();

    expect(screen.getByRole("dialog", { name: "Bin “Papers”?" })).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Bin it" }));

    expect(onAct).toHaveBeenCalledOnce();
  });

  it("does its act by Enter in a field", async () => {
    const { onAct } = asked();

    await userEvent.type(screen.getByLabelText("Why"), "old{Enter}");

    expect(onAct).toHaveBeenCalledOnce();
  });

  it("closes by Escape where nothing is typed, or a tick alone", async () => {
    const { onClose } = asked();

    await userEvent.click(screen.getByLabelText("Really"));
    await userEvent.keyboard("{Escape}");

    expect(onClose).toHaveBeenCalledOnce();
  });

  it("asks before what was typed goes, and goes on typing", async () => {
    const { onClose } = asked();
    await userEvent.type(screen.getByLabelText("Why"), "because");

    await userEvent.keyboard("{Escape}");
    expect(onClose).not.toHaveBeenCalled();
    expect(screen.getByRole("alert").textContent).toContain("What you typed is not saved.");
    await userEvent.click(screen.getByRole("button", { name: "Go on typing" }));
    expect(screen.getByLabelText<HTMLInputElement>("Why").value).toBe("because");
    expect(document.activeElement).toBe(screen.getByLabelText("Why"));

    await userEvent.keyboard("{Escape}");
    await userEvent.click(screen.getByRole("button", { name: "Drop it" }));
    expect(onClose).toHaveBeenCalledOnce();
  });

  it("closes at once where what is typed is kept elsewhere", async () => {
    const { onClose } = asked({ kept: true });
    await userEvent.type(screen.getByLabelText("Why"), "because");

    await userEvent.keyboard("{Escape}");

    expect(onClose).toHaveBeenCalledOnce();
  });

  it("is shut while its act runs, and says what went wrong", () => {
    asked({
      busy: true,
      error: new ProblemError(422, "name-taken", "Another has that name.", "Choose another one."),
    });

    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Bin it" }).disabled).toBe(true);
    expect(screen.getByRole("alert").textContent).toBe("Another has that name. Choose another one.");
  });
});
