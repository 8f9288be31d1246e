// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import { useState } from "react";
import { expect, it, vi } from "vitest";
import { useSending } from "./useSending";

let arrive: ((sent: { id: number; name: string; size: number }) => void)[] = [];
vi.mock("../../api/client", () => ({
  ProblemError: class extends Error {},
  sendFile: (_: string, file: File) =>
    file.name === "lost.txt"
      ? Promise.reject(new Error())
      : new Promise((done) => (arrive = [...arrive, done])),
}));

it("what is taken off while a file is on its way stays off, and what did not arrive is said", async () => {
  const { result } = renderHook(() => {
    const [files, setFiles] = useState([{ id: 1 }, { id: 2 }]);
    return { files, setFiles, ...useSending("/x", (sent) => setFiles([...files, ...sent])) };
  });
  let sending: Promise<void>;
  act(() => {
    sending = result.current.send([new File(["x"], "plan.txt"), new File(["x"], "lost.txt")]);
  });
  expect(result.current.sending).toBe("plan.txt");
  act(() => result.current.setFiles([{ id: 2 }]));
  await act(async () => {
    arrive[0]!({ id: 3, name: "plan.txt", size: 1 });
    await sending;
  });
  expect(result.current.files.map((f) => f.id)).toEqual([2, 3]);
  expect(result.current.wrong).toEqual(["lost.txt did not arrive."]);
});
