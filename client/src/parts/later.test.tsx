// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, expect, test } from "vitest";
import { later } from "./later";

afterEach(cleanup);

function Form({ label }: { label: string }) {
  const [text, setText] = useState("");
  return <input aria-label={label} value={text} onChange={(e) => setText(e.target.value)} />;
}

test("what stands in a dialog whose code came late stays when the screen under it is drawn anew", async () => {
  const Dialog = later(() => Promise.resolve({ Form }), "Form");
  const screenOf = render(<Dialog label="a" />);
  fireEvent.change(await screen.findByRole("textbox"), { target: { value: "typed" } });

  screenOf.rerender(<Dialog label="b" />);

  expect(screen.getByRole("textbox", { name: "b" })).toHaveProperty("value", "typed");
});

test("once its code is there a dialog is drawn at once", async () => {
  const Dialog = later(() => Promise.resolve({ Form }), "Form");
  render(<Dialog label="a" />);
  await screen.findByRole("textbox");
  cleanup();

  render(<Dialog label="c" />);

  expect(screen.getByRole("textbox", { name: "c" })).toBeTruthy();
});
