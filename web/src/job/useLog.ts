/**
 * The log of the job in this window: what was ticked stands at once, goes out until the server has it, and is kept in local storage
 * meanwhile. An entry that goes out twice is written once, by its id.
 */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { ApiError, http, unwrap } from "../api/client";
import { newUuid } from "../api/ids";
import type { LogEntry, JobLog as Stored } from "../api/types";
import { fromPocket, pocketKey } from "./pocket";
import { CLIENT } from "./useJob";

export type Waiting = { entryId: string; entry: LogEntry };

const RETRY_MS = 1500;
const boxOf = (job: string) => `log:${job}`;

export function waitingEntries(storage: Storage, job: string): Waiting[] {
  try {
    const kept: unknown = JSON.parse(storage.getItem(boxOf(job)) ?? "[]");
    return Array.isArray(kept) ? (kept as Waiting[]) : [];
  } catch {
    return [];
  }
}

function keep(storage: Storage, job: string, waiting: readonly Waiting[]): void {
  if (waiting.length) storage.setItem(boxOf(job), JSON.stringify(waiting));
  else storage.removeItem(boxOf(job));
}

export type JobLog = {
  /** Titles of the steps that are done. */
  done: ReadonlySet<string>;
  /** Entries that the server does not have yet. */
  waiting: number;
  /** What the server refused, until it is sent again. */
  refusal: string | null;
  write: (entry: LogEntry) => void;
};

export function useLog(id: string): JobLog {
  const cache = useQueryClient();
  const [waiting, setWaiting] = useState(() => waitingEntries(localStorage, id));
  const [refusal, setRefusal] = useState<string | null>(null);
  const stored = useQuery({
    queryKey: ["log", id],
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/log", { params: { path: { job_id: id } } })),
    refetchInterval: 5000,
  }).data;

  useEffect(() => {
    void fromPocket<Stored>(pocketKey(["log", id])).then((carried) => {
      if (carried) cache.setQueryData<Stored>(["log", id], (now) => now ?? carried);
    });
  }, [cache, id]);

  const send = useCallback(async () => {
    for (const next of waitingEntries(localStorage, id)) {
      try {
        const written = await unwrap(
          http.POST("/api/jobs/{job_id}/log", {
            params: { path: { job_id: id } },
            body: { client: CLIENT, entry_id: next.entryId, entry: next.entry },
          }),
        );
        cache.setQueryData<Stored>(["log", id], (before) => merged(before, written));
        setRefusal(null);
      } catch (problem) {
        if (!(problem instanceof ApiError) || problem.status >= 500) return;
        setRefusal(problem.message);
      }
      const left = waitingEntries(localStorage, id).filter((w) => w.entryId !== next.entryId);
      keep(localStorage, id, left);
      setWaiting(left);
    }
  }, [cache, id]);

  useEffect(() => {
    void send();
    const again = setInterval(() => void send(), RETRY_MS);
    return () => clearInterval(again);
  }, [send]);

  const write = useCallback(
    (entry: LogEntry) => {
      const all = [...waitingEntries(localStorage, id), { entryId: newUuid(), entry }];
      keep(localStorage, id, all);
      setWaiting(all);
      void send();
    },
    [id, send],
  );

  return useMemo(
    () => ({
      done: stepsDone(stored?.steps_done ?? [], waiting),
      waiting: waiting.length,
      refusal,
      write,
    }),
    [stored, waiting, refusal, write],
  );
}

/** Answers may overtake one another: what is done and whether the chain is whole, the answer says that knows more. */
export function merged(before: Stored | undefined, written: Stored): Stored {
  if (!before) return written;
  const newest = (log: Stored) => log.entries.at(-1)?.number ?? 0;
  const later = newest(written) >= newest(before) ? written : before;
  const fresh = written.entries.filter((e) => !before.entries.some((b) => b.number === e.number));
  const entries = [...before.entries, ...fresh].sort((a, b) => a.number - b.number);
  return { entries, steps_done: later.steps_done, broken_at: later.broken_at };
}

/** What the server says is done, with the ticks that it does not have yet. */
export function stepsDone(stored: readonly string[], waiting: readonly Waiting[]): ReadonlySet<string> {
  const done = new Set(stored);
  for (const { entry } of waiting) if (entry.kind === "step") done[entry.done === false ? "delete" : "add"](entry.step);
  return done;
}
