import { useQuery, useQueryClient, type QueryKey, type UseQueryResult } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { ProblemError, Schemas } from "./client";

/** How often a run that sends no events is asked how far it is, in milliseconds. */
const pace = 600;

/** How long after a refusal the server is asked once more, in milliseconds. */
const again = 1500;

/**
 * A run as it goes on, whatever it does: read anew while it is at work, and whatever hangs on it once it is over. Where the
 * server tells of it by itself (`events`), it is not asked.
 */
export function useRun<View>(run: {
  key: QueryKey;
  read: () => Promise<View>;
  /** State of the run in what was read; undefined where no run is in it. */
  stateOf: (view: View) => Schemas["StepState"] | undefined;
  /** Where the server sends what `read` reads whenever it changes. */
  events?: string;
  /** First parts of the keys of what is read anew once it is over. */
  then?: readonly string[];
}): UseQueryResult<View, ProblemError> & { going: boolean; away: boolean } {
  const queries = useQueryClient();
  const { key, stateOf, events, then } = run;
  const query = useQuery<View, ProblemError>({
    queryKey: key,
    queryFn: run.read,
    refetchInterval: (q) =>
      events === undefined && q.state.data !== undefined && stateOf(q.state.data) === "Working"
        ? pace
        : false,
  });
  const { refetch } = query;
  const [attempt, setAttempt] = useState(0);
  const [away, setAway] = useState(false);
  const state = query.data === undefined ? undefined : stateOf(query.data);
  const going = state === "Working";
  const name = JSON.stringify(key);
  useEffect(() => {
    if (!going || events === undefined) return;
    const source = new EventSource(events);
    let wait: ReturnType<typeof setTimeout> | undefined;
    source.onopen = () => setAway(false);
    source.onmessage = (e) => {
      setAway(false);
      queries.setQueryData(JSON.parse(name) as QueryKey, JSON.parse(e.data as string));
    };
    source.onerror = () => {
      setAway(true);
      // A lost connection it takes up again by itself; one that was refused, after a session ended or while the server starts, is begun anew.
      if (source.readyState === EventSource.CLOSED)
        wait = setTimeout(() => void refetch().then(() => setAttempt((n) => n + 1)), again);
    };
    return () => {
      clearTimeout(wait);
      source.close();
    };
  }, [going, events, name, queries, refetch, attempt]);
  // A quick run may be over before it is first looked at: what is said beside it is read anew either way.
  const over = state !== undefined && !going;
  const hanging = then?.join() ?? "";
  useEffect(() => {
    if (!over || hanging === "") return;
    for (const part of hanging.split(",")) void queries.invalidateQueries({ queryKey: [part] });
  }, [over, hanging, queries]);
  // Where it is asked again and again, an answer that did not come says the same.
  return { ...query, going, away: going && (away || query.failureCount > 0) };
}
