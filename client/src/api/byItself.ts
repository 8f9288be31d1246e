import type { QueryFunctionContext } from "@tanstack/react-query";

/**
 * Headers of what a screen asks, and asks again by the clock: the first time somebody wanted it; from then on nobody may be before
 * it, and a screen that is left alone keeps no sign-in awake. What somebody does in between keeps it awake by itself.
 */
export const byItself = ({ client, queryKey }: QueryFunctionContext): Record<string, string> =>
  client.getQueryData(queryKey) === undefined ? {} : { "By-Itself": "1" };
