/**
 * What the window shows of a job: the stored answer, or what it would be while something is dragged.
 *
 * It lies in the query cache under one key; whoever needs a part of it subscribes to that part and is drawn again only when the
 * part has become another object.
 */
import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useCallback, useSyncExternalStore } from "react";
import { withNews } from "../api/news";
import type { Edit, Evaluation, JobAnswer, New } from "../api/types";

export type Shown = {
  answer: JobAnswer;
  evaluation: Evaluation;
  /** The edits whose outcome ``evaluation`` shows; null where it is the stored job's. */
  previewing: readonly Edit[] | null;
  /** The road speed that the answer was asked for; null is the highest driven. */
  probe: number | null;
};

const keyOf = (id: string) => ["job", id, "shown"] as const;

export function shownNow(cache: QueryClient, id: string): Shown | undefined {
  return cache.getQueryData<Shown>(keyOf(id));
}

export function show(cache: QueryClient, id: string, shown: Shown): void {
  cache.setQueryData(keyOf(id), shown);
}

/** An answer, whole or as news against the one that is shown. */
export function answered(shown: Shown | undefined, reply: JobAnswer | (Head & { changes: New[] })): JobAnswer | null {
  if (!("changes" in reply)) return reply;
  if (!shown) return null;
  const { changes, ...head } = reply;
  return { ...withNews(shown.answer, changes), ...head };
}

type Head = Omit<JobAnswer, "job" | "evaluation">;

/** The evaluation a preview told of, whole or as news against the stored one. */
export function previewed(shown: Shown, reply: Evaluation | { changes: New[] }): Evaluation {
  return "changes" in reply ? withNews(shown.answer, reply.changes).evaluation : reply;
}

/**
 * A part of what is shown of a job; undefined while nothing is there. ``part`` picks, it makes nothing new.
 *
 * Subscribes to the cache itself: an observer of the query library in each of hundreds of shapes would cost a drag two frames.
 */
export function useShown<T>(id: string, part: (shown: Shown) => T): T | undefined {
  const cache = useQueryClient();
  const subscribe = useCallback(
    (changed: () => void) =>
      cache.getQueryCache().subscribe(({ query }) => {
        if (query.queryKey[1] === id && query.queryKey[2] === "shown") changed();
      }),
    [cache, id],
  );
  return useSyncExternalStore(subscribe, () => {
    const shown = shownNow(cache, id);
    return shown && part(shown);
  });
}

/** What is shown stays in the cache although no observer of the library holds it there. */
export const SHOWN_STAYS = [["job"], { gcTime: Number.POSITIVE_INFINITY }] as const;
