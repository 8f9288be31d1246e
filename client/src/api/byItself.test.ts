import { QueryClient } from "@tanstack/react-query";
import { expect, it } from "vitest";
import { byItself } from "./byItself";

it("is somebody's question the first time, and the screen's own from then on", async () => {
  const client = new QueryClient();
  const asked: Record<string, string>[] = [];
  const ask = () =>
    client.fetchQuery({
      queryKey: ["talk", 1],
      staleTime: 0,
      queryFn: (context) => {
        asked.push(byItself(context));
        return asked.length;
      },
    });
  await ask();
  await ask();
  expect(asked).toEqual([{}, { "By-Itself": "1" }]);
});
