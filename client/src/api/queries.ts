import { useQuery } from "@tanstack/react-query";
import { byItself } from "./byItself";
import { api, take } from "./client";

/** The person signed in; an error with status 401 if nobody is. */
export const useMe = () =>
  useQuery({ queryKey: ["me"], queryFn: () => take(api.GET("/api/me")), staleTime: 60_000, retry: false });

/** The school, its date and its years. */
export const useSchool = () =>
  useQuery({ queryKey: ["school"], queryFn: () => take(api.GET("/api/school")) });

/** How long what is binned waits, as "30 days"; "…" until it is known. */
export const useBinSpan = () => {
  const days = useSchool().data?.binDays;
  return days === undefined ? "…" : `${days} days`;
};

/** The year board; the current year if none is named, only the sections of a combined roster if one is. */
export const useBoard = (year?: number, combined?: number) =>
  useQuery({
    queryKey: ["board", year ?? null, combined ?? null],
    queryFn: (asked) =>
      take(api.GET("/api/board", { params: { query: { year, combined } }, headers: byItself(asked) })),
    // While a class is closing, its cell moves by itself.
    refetchInterval: (q) =>
      q.state.data?.rows.some((r) => r.cells.close.state === "Underway") ? 1000 : false,
  });

/** All folder plans. */
export const usePlans = () => useQuery({ queryKey: ["plans"], queryFn: () => take(api.GET("/api/plans")) });

/** A workspace as the person signed in sees it. */
export const useWorkspace = (classId: number) =>
  useQuery({
    queryKey: ["workspace", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}/workspace", { params: { path: { classId } } })),
  });

/** The head of a class alone. */
export const useHead = (classId: number) =>
  useQuery({
    queryKey: ["head", classId],
    queryFn: () => take(api.GET("/api/classes/{classId}", { params: { path: { classId } } })),
  });

/**
 * How many news are new, asked again at each place to which one goes. Not by the clock: a screen that is left alone would keep its
 * sign-in awake.
 */
export const useNewsCount = (place: string) =>
  useQuery({
    queryKey: ["news-count", place],
    queryFn: () => take(api.GET("/api/news/count")),
    placeholderData: (before) => before,
    staleTime: 60_000,
  });
