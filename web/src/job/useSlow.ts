/** Slow work on the open job: started, followed, stopped. What is shown says of which revision it is. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ApiError, http, unwrap } from "../api/client";
import type { SlowAnswer } from "../api/types";

const POLL_MS = 350;
type WorkName = SlowAnswer["work"];
export type Answer<W extends WorkName> = Extract<SlowAnswer, { work: W }>;

export const goesOn = (answer: SlowAnswer | undefined): boolean =>
  answer?.state === "running" || answer?.state === "waiting";

/** The kinds of answers belong to the works by name; the server sends no other. */
function of<W extends WorkName>(work: W, answer: SlowAnswer): Answer<W> {
  if (answer.work !== work) throw new Error(`asked for ${work}, told ${answer.work}`);
  return answer as Answer<W>;
}

/** `others`: jobs that are looked at beside the open one. */
export async function startWork<W extends WorkName>(
  job: string,
  work: W,
  others: readonly string[] = [],
): Promise<Answer<W>> {
  const params = { path: { job_id: job, work }, query: { others: [...others] } };
  return of(work, await unwrap(http.POST("/api/jobs/{job_id}/slow/{work}", { params })));
}

export async function stopWork(job: string, work: WorkName, run: string): Promise<void> {
  const path = { job_id: job, work, run_id: run };
  await unwrap(http.DELETE("/api/jobs/{job_id}/slow/{work}/{run_id}", { params: { path } }));
}

async function readWork<W extends WorkName>(job: string, work: W, run: string): Promise<Answer<W>> {
  const path = { job_id: job, work, run_id: run };
  return of(work, await unwrap(http.GET("/api/jobs/{job_id}/slow/{work}/{run_id}", { params: { path } })));
}

/** Follows a run until it has ended; undefined without one. */
export function useRun<W extends WorkName>(job: string, work: W, run: string | null): Answer<W> | undefined {
  return useQuery({
    queryKey: ["slow", job, work, run],
    enabled: run !== null,
    retry: false,
    refetchInterval: (query) => (goesOn(query.state.data) ? POLL_MS : false),
    queryFn: () => readWork(job, work, run ?? ""),
  }).data;
}

/** Follows a run to its end and tells what it does meanwhile; stopped when nobody looks any more. */
async function toTheEnd<W extends WorkName>(
  job: string,
  work: W,
  others: readonly string[],
  signal: AbortSignal,
  say: (doing: string, soFar: Answer<W>) => void,
) {
  let answer = await startWork(job, work, others);
  while (goesOn(answer)) {
    say(answer.state === "waiting" ? "waits for its turn" : answer.doing, answer);
    await new Promise((resolve) => setTimeout(resolve, POLL_MS));
    if (signal.aborted) {
      await stopWork(job, work, answer.id);
      break;
    }
    answer = await readWork(job, work, answer.id);
  }
  if (answer.problem) throw new ApiError(answer.problem, 0);
  return answer;
}

/** Work that runs while somebody looks, anew for every revision; meanwhile what the last one found stays. */
export function useLookedAt<W extends WorkName>(
  job: string,
  work: W,
  revision: number,
  wanted = true,
  others: readonly string[] = [],
) {
  const [doing, setDoing] = useState("");
  const [soFar, setSoFar] = useState<Answer<W> | null>(null);
  const say = (words: string, answer: Answer<W>) => {
    setDoing(words);
    setSoFar(answer);
  };
  const query = useQuery({
    queryKey: ["looked at", job, work, revision, ...others],
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) => toTheEnd(job, work, others, signal, say),
  });
  /** What it has found while it still runs, of this revision. */
  const growing: Answer<W> | null = query.isFetching && soFar?.revision === revision ? soFar : null;
  return { ...query, doing, growing };
}
