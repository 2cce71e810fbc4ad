/**
 * The log of the job in this window: what was ticked stands at once, goes out until the server has it, and is kept in local storage
 * meanwhile. An entry that goes out twice is written once, by its id.
 */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { ApiError, attachFile, http, unwrap } from "../api/client";
import { newUuid } from "../api/ids";
import type { LogEntry, JobLog as Stored } from "../api/types";
import { fromPocket, pocketKey, putInPocket } from "./pocket";
import { CLIENT } from "./useJob";

/** An entry as it is written here; how long ago that was is told when it goes out. */
export type NewEntry = LogEntry extends infer E ? (E extends unknown ? Omit<E, "ago_s"> : never) : never;
/** ``written``: by this machine's own clock, ms; ``photo``: where the pocket keeps the picture that has to go out first. */
export type Waiting = { entryId: string; entry: NewEntry; written?: number; photo?: string };
type Tick = { step: string; item: string };
export type RunningClock = { step: string; name: string; endsMs: number };

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
  /** Items ticked off in a step, as `step|item`. */
  ticked: ReadonlySet<string>;
  /** Clocks that run or have run out, by this machine's own clock. */
  clocks: readonly RunningClock[];
  /** Entries that the server does not have yet. */
  waiting: number;
  /** What the server refused, until it is sent again. */
  refusal: string | null;
  write: (entry: NewEntry) => void;
  /** Keep a photograph here until the server has it, then tell of it. */
  photograph: (picture: Blob, told: { text: string; place: string }) => Promise<void>;
};

export function useLog(id: string): JobLog {
  const cache = useQueryClient();
  const [waiting, setWaiting] = useState(() => waitingEntries(localStorage, id));
  const [refusal, setRefusal] = useState<string | null>(null);
  const { data: stored, dataUpdatedAt: receivedMs } = useQuery({
    queryKey: ["log", id],
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/log", { params: { path: { job_id: id } } })),
    refetchInterval: 5000,
  });

  useEffect(() => {
    void fromPocket<Stored>(pocketKey(["log", id])).then((carried) => {
      if (carried) cache.setQueryData<Stored>(["log", id], (now) => now ?? carried);
    });
  }, [cache, id]);

  const send = useCallback(async () => {
    for (const next of waitingEntries(localStorage, id)) {
      try {
        const entry = await withPicture(id, next);
        const written = await unwrap(
          http.POST("/api/jobs/{job_id}/log", {
            params: { path: { job_id: id } },
            body: { client: CLIENT, entry_id: next.entryId, entry: { ...entry, ago_s: agoSeconds(next) } },
          }),
        );
        cache.setQueryData<Stored>(["log", id], (before) => merged(before, written));
        setRefusal(null);
      } catch (problem) {
        if (!(problem instanceof ApiError) || problem.status >= 500) return;
        setRefusal(problem.message);
        if (problem.status === 401) return; // sent away or not paired yet: what was done stays here until it is let in
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
    (entry: NewEntry, photo?: string) => {
      const kept = { entryId: newUuid(), entry, written: Date.now(), ...(photo ? { photo } : {}) };
      const all = [...waitingEntries(localStorage, id), kept];
      keep(localStorage, id, all);
      setWaiting(all);
      void send();
    },
    [id, send],
  );
  const photograph = useCallback(
    async (picture: Blob, told: { text: string; place: string }) => {
      const key = `photo ${newUuid()}`;
      await putInPocket(key, picture);
      write({ kind: "photograph", digest: "0".repeat(64), ...told }, key);
    },
    [write],
  );

  return useMemo(
    () => ({
      done: stepsDone(stored?.steps_done ?? [], waiting),
      ticked: itemsTicked(stored?.ticked ?? [], waiting),
      clocks: clocksRunning(stored, waiting, receivedMs),
      waiting: waiting.length,
      refusal,
      write,
      photograph,
    }),
    [stored, receivedMs, waiting, refusal, write, photograph],
  );
}

/** Answers may overtake one another: what is done and whether the chain is whole, the answer says that knows more. */
export function merged(before: Stored | undefined, written: Stored): Stored {
  if (!before) return written;
  const newest = (log: Stored) => log.entries.at(-1)?.number ?? 0;
  const later = newest(written) >= newest(before) ? written : before;
  const fresh = written.entries.filter((e) => !before.entries.some((b) => b.number === e.number));
  const entries = [...before.entries, ...fresh].sort((a, b) => a.number - b.number);
  return { ...later, entries };
}

/** What the server says is done, with the ticks that it does not have yet. */
export function stepsDone(stored: readonly string[], waiting: readonly Waiting[]): ReadonlySet<string> {
  const done = new Set(stored);
  for (const { entry } of waiting) if (entry.kind === "step") done[entry.done === false ? "delete" : "add"](entry.step);
  return done;
}

export const tickKey = (step: string, item: string): string => `${step}|${item}`;

export function itemsTicked(stored: readonly Tick[], waiting: readonly Waiting[]): ReadonlySet<string> {
  const ticked = new Set(stored.map((tick) => tickKey(tick.step, tick.item)));
  for (const { entry } of waiting)
    if (entry.kind === "tick") ticked[entry.done === false ? "delete" : "add"](tickKey(entry.step, entry.item));
  return ticked;
}

/** The server says when a clock ends and what time it is there: the difference is what counts, whatever the time is here. */
export function clocksRunning(
  stored: Pick<Stored, "clocks" | "now"> | undefined,
  waiting: readonly Waiting[],
  receivedMs: number,
): readonly RunningClock[] {
  const running = new Map<string, RunningClock>();
  const ahead = stored ? receivedMs - Date.parse(stored.now) : 0;
  for (const clock of stored?.clocks ?? [])
    running.set(tickKey(clock.step, clock.name), { ...clock, endsMs: Date.parse(clock.ends) + ahead });
  for (const { entry, written = Date.now() } of waiting) {
    if (entry.kind === "timer")
      running.set(tickKey(entry.step, entry.name), {
        step: entry.step,
        name: entry.name,
        endsMs: written + entry.minutes * 60_000,
      });
    else if (entry.kind === "timer off") running.delete(tickKey(entry.step, entry.name));
  }
  return [...running.values()].sort((a, b) => a.endsMs - b.endsMs);
}

/** The entry as it goes out: a photograph by the hash the server keeps it under. */
async function withPicture(job: string, { entry, photo }: Waiting): Promise<NewEntry> {
  if (!photo || entry.kind !== "photograph") return entry;
  const picture = await fromPocket<Blob>(photo);
  if (!picture) return { kind: "remark", place: entry.place, text: `${entry.text} (a photograph was lost)`.trim() };
  return { ...entry, digest: await attachFile(job, "roof.jpg", picture) };
}

const agoSeconds = ({ written }: Waiting): number =>
  written === undefined ? 0 : Math.min(Math.max((Date.now() - written) / 1000, 0), 60 * 86_400);
