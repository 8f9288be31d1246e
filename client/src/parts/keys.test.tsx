// @vitest-environment jsdom
import { fireEvent, render, screen } from "@testing-library/react";
import { useEffect, useState } from "react";
import { describe, expect, it } from "vitest";
import "../testing";
import { isTyping } from "./keys";

/** A screen with a key of its own, and a field that somebody else may take away. */
function Screen() {
  const [field, setField] = useState<"there" | "gone">("there");
  const [binned, setBinned] = useState(0);
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      if (e.key === "b" && !isTyping(e.target)) setBinned((n) => n + 1);
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  }, []);
  return (
    <>
      <p role="status">{binned}</p>
      {field !== "gone" && <textarea aria-label="Words" />}
      <button onClick={() => setField("gone")}>Take away</button>
    </>
  );
}

const press = (key: string) => fireEvent.keyDown(document.activeElement ?? document.body, { key });
const binned = () => Number(screen.getByRole("status").textContent);

/** As somebody else does it: no pointer of one's own goes there. */
const byAnother = (name: string) => fireEvent.click(screen.getByText(name));

function typing() {
  render(<Screen />);
  const words = screen.getByLabelText("Words");
  words.focus();
  fireEvent.input(words, { target: { value: "a" } });
  press("b");
  expect(binned()).toBe(0);
  return words;
}

describe("keys of a screen", () => {
  it("are not what one goes on typing when the field is taken away", () => {
    typing();
    byAnother("Take away");
    press("b");
    expect(binned()).toBe(0);
    fireEvent.pointerDown(document.body);
    press("b");
    expect(binned()).toBe(1);
  });

  it("are there again at once when one has left the field oneself", () => {
    const words = typing();
    fireEvent.pointerDown(document.body);
    words.blur();
    press("b");
    expect(binned()).toBe(1);
  });

  it("are there after Enter, which ends what is typed, also where the field goes with it", () => {
    typing();
    press("Enter");
    byAnother("Take away");
    press("b");
    expect(binned()).toBe(1);
  });
});
