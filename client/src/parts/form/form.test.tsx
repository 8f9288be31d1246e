// @vitest-environment jsdom
import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { beforeEach, describe, expect, it } from "vitest";
import "../../testing";
import { ProblemError } from "../../api/client";
import { useRefusal } from "./refusal";
import { TextPart } from "./TextPart";
import { useKeptForm } from "./useKeptForm";

const saved = { title: "", points: "20" };

function Form({ onSave, error: first = null }: { onSave?: (v: typeof saved) => void; error?: unknown }) {
  const form = useKeptForm("boat", saved);
  const [error, setError] = useState<unknown>(null);
  const beside = useRefusal(form, error, ["title", "points"]);
  return (
    <form onSubmit={(e) => void form.handleSubmit((v) => (first ? setError(first) : onSave?.(v)))(e)}>
      <TextPart
        control={form.control}
        name="title"
        label="Title"
        check={(t) => (t.trim() === "" ? "Type a title." : undefined)}
      />
      <TextPart control={form.control} name="points" label="Points" help="Empty for none" />
      <p role="status">{beside instanceof ProblemError ? beside.what : form.kept ? "kept" : "as saved"}</p>
      <button type="button" onClick={form.drop}>
        Drop
      </button>
      <button>Save</button>
    </form>
  );
}

function Held({ form, onSave }: { form: ReturnType<typeof useKeptForm<typeof saved>>; onSave: () => void }) {
  return (
    <>
      <TextPart control={form.control} name="title" label="Title" />
      <button onClick={onSave}>Save</button>
    </>
  );
}

const status = () => screen.getByRole("status").textContent;
const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });

describe("a form", () => {
  beforeEach(() => sessionStorage.clear());

  it("keeps what was typed when it goes and comes again, until it is dropped", async () => {
    const first = render(<Form />);
    type("Title", "Pinch pot");
    await waitFor(() => expect(status()).toBe("kept"));
    first.unmount();

    render(<Form />);
    expect(screen.getByLabelText<HTMLInputElement>("Title").value).toBe("Pinch pot");
    fireEvent.click(screen.getByText("Drop"));
    await waitFor(() => expect(status()).toBe("as saved"));
    expect(screen.getByLabelText<HTMLInputElement>("Title").value).toBe("");
  });

  it("is dropped at once, also where the screen goes with it", async () => {
    function Leaving() {
      const form = useKeptForm("mast", saved);
      const [gone, setGone] = useState(false);
      if (gone) return <p>gone</p>;
      return (
        <Held
          form={form}
          onSave={() => {
            form.drop();
            setGone(true);
          }}
        />
      );
    }
    render(<Leaving />);
    type("Title", "Pinch pot");
    await waitFor(() => expect(sessionStorage.length).toBe(1));
    fireEvent.click(screen.getByText("Save"));
    await screen.findByText("gone");
    expect(sessionStorage.length).toBe(0);
  });

  it("says what is wrong under the field before anything is sent", async () => {
    let sent = 0;
    render(<Form onSave={() => sent++} />);
    fireEvent.click(screen.getByText("Save"));
    await screen.findByText("Type a title.");
    expect(screen.getByLabelText("Title").getAttribute("aria-invalid")).toBe("true");
    expect(sent).toBe(0);
    type("Title", "Pot");
    fireEvent.click(screen.getByText("Save"));
    await waitFor(() => expect(sent).toBe(1));
  });

  it("puts what the server refused at the field it is about, with the focus in it", async () => {
    render(
      <Form
        error={
          new ProblemError(
            422,
            "points-range",
            "-3 points is not between 0 and 10,000.",
            "Type a number in that range.",
            "points",
          )
        }
      />,
    );
    type("Title", "Pot");
    fireEvent.click(screen.getByText("Save"));
    await screen.findByText("-3 points is not between 0 and 10,000. Type a number in that range.");
    expect(document.activeElement).toBe(screen.getByLabelText("Points"));
    expect(status()).toBe("kept");
  });

  it("says beside the form what is about no field of it", async () => {
    render(
      <Form
        error={new ProblemError(409, "changed-meanwhile", "Somebody changed it meanwhile.", "Look again.")}
      />,
    );
    type("Title", "Pot");
    fireEvent.click(screen.getByText("Save"));
    await waitFor(() => expect(status()).toBe("Somebody changed it meanwhile."));
  });
});
