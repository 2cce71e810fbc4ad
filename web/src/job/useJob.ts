/**
 * One job in this window: what the server last said, edits on their way, and a preview while something is dragged.
 *
 * Edits go out one after the other, each on top of the revision it was made on (see ``outbox.ts``). A server that is busy, full or
 * in trouble is asked again; only what it refuses is dropped, and then the person is told. Late previews are dropped.
 */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ApiError, http, Offline, unwrap } from "../api/client";
import { newUuid } from "../api/ids";
import type { Edit, JobAnswer, StationName } from "../api/types";
import { baseFor, keepParcels, type Parcel, restOn, standAlone, takeLeftParcels } from "./outbox";
import { fromPocket, pocketKey } from "./pocket";
import { answered, previewed, type Shown, show, shownNow, useShown } from "./shown";

export type Trouble =
  | { kind: "conflict"; revision: number }
  | { kind: "moved-on"; revision: number }
  | { kind: "offline" }
  | { kind: "failing"; message: string }
  | { kind: "unreadable"; message: string; revision: number; canUndo: boolean }
  | { kind: "gone"; message: string };

type Waiting = { done: (answer: JobAnswer) => void; failed: (problem: unknown) => void };

/** Edits to look at, and the stations to look at them in; all where none are named. */
type Look = { edits: Edit[]; inSight: readonly StationName[] | null };

const POLL_MS = 3000;
const NOTHING: readonly Edit[] = [];
const RETRY_MS = 1500;
/** A hand that holds still that long wants to know everything. */
const REST_MS = 120;

export const CLIENT: string = (() => {
  const kept = sessionStorage.getItem("client") ?? newUuid();
  sessionStorage.setItem("client", kept);
  return kept;
})();

export type JobHandle = {
  /** Whether there is anything to show yet. */
  open: boolean;
  saving: boolean;
  /** Edits that the server does not have yet: what stands for itself is shown at once, also without the network. */
  waiting: readonly Edit[];
  trouble: Trouble | null;
  /** What the server refused last, in words, until the person has seen it. */
  refusal: string | null;
  forgetRefusal: () => void;
  probe: number | null;
  setProbe: (speed: number | null) => void;
  /** For those who say themselves what was refused. */
  edit: (edits: Edit[]) => Promise<JobAnswer>;
  /** A refusal is told above the page; the promise is kept once the answer is there, whatever it is. */
  change: (edits: Edit[]) => Promise<void>;
  /** The length a path will have once everything on its way is stored; undefined when nothing is on its way. */
  onItsWay: (path: string) => number | undefined;
  /** How the job would be with these edits. While they change quickly only the stations in sight follow; all do once they rest. */
  preview: (edits: Edit[], inSight?: readonly StationName[]) => void;
  travel: (direction: "undo" | "redo") => Promise<void>;
  reload: () => Promise<void>;
  takeOver: () => void;
  /** Give up the edit that the server cannot take. */
  dropFirst: () => void;
};

export function useJob(id: string): JobHandle {
  const cache = useQueryClient();
  const open = useShown(id, () => true) ?? false;
  const [refusal, setRefusal] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [saving, setSaving] = useState(false);
  const [waiting, setWaiting] = useState<readonly Edit[]>(NOTHING);
  const [probe, setProbeState] = useState<number | null>(null);
  const revision = useRef(0);
  const probeNow = useRef<number | null>(null);
  const queue = useRef<(Parcel & Partial<Waiting>)[]>([]);
  const busy = useRef(false);
  /** After a conflict nothing goes out until the person has chosen between reloading and taking over. */
  const held = useRef(false);
  const line = useRef<Promise<void>>(Promise.resolve());
  const travelling = useRef<{ direction: string; base: number; editId: string } | null>(null);

  const accept = useCallback(
    (answer: JobAnswer, probeAsked: number | null) => {
      revision.current = answer.revision;
      show(cache, id, { answer, evaluation: answer.evaluation, previewing: null, probe: probeAsked });
    },
    [cache, id],
  );

  const ask = useRef<{ running: boolean; next: Look | null; forgotten: number }>({
    running: false,
    next: null,
    forgotten: 0,
  });
  const forgetPreview = useCallback(() => {
    // what is on its way is about an edit that was refused
    ask.current.next = null;
    ask.current.forgotten += 1;
    const shown = shownNow(cache, id);
    if (shown?.previewing) show(cache, id, { ...shown, evaluation: shown.answer.evaluation, previewing: null });
  }, [cache, id]);

  /** What this window has, so that only what is new against it has to come. */
  const have = useCallback(() => {
    const shown = shownNow(cache, id);
    return shown ? { revision: shown.answer.revision, probe_m_s: shown.probe } : null;
  }, [cache, id]);

  const keep = useCallback(() => {
    keepParcels(localStorage, id, queue.current);
    setWaiting(queue.current.length ? queue.current.flatMap((parcel) => parcel.edits) : NOTHING);
  }, [id]);

  const send = useCallback(async () => {
    if (busy.current || held.current) return;
    busy.current = true;
    setSaving(queue.current.length > 0);
    while (queue.current[0]) {
      const parcel = queue.current[0];
      const probeAsked = probeNow.current;
      const shown = shownNow(cache, id);
      try {
        const reply = await unwrap(
          http.POST("/api/jobs/{job_id}/edits", {
            params: { path: { job_id: id } },
            body: {
              base_revision: parcel.base,
              client: CLIENT,
              edit_id: parcel.editId,
              edits: parcel.edits,
              probe_m_s: probeAsked,
              held: have(),
            },
          }),
        );
        const next = answered(shown, reply);
        if (!next) throw new Offline();
        queue.current.shift();
        restOn(queue.current, parcel.base, next.revision);
        setTrouble(null);
        if (!queue.current.length) accept(next, probeAsked);
        else revision.current = next.revision;
        parcel.done?.(next);
      } catch (problem) {
        if (problem instanceof Offline) {
          setTrouble({ kind: "offline" });
          break;
        }
        if (problem instanceof ApiError && problem.body.code === "conflict") {
          if (problem.body.current_revision && standAlone(parcel.edits)) {
            restOn(queue.current, parcel.base, problem.body.current_revision);
            continue;
          }
          held.current = true;
          setTrouble({ kind: "conflict", revision: problem.body.current_revision ?? 0 });
          break;
        }
        if (problem instanceof ApiError && (problem.status >= 500 || problem.status === 401)) {
          setTrouble({ kind: "failing", message: problem.message });
          break;
        }
        queue.current.shift();
        forgetPreview();
        parcel.failed?.(problem);
      }
      keep();
    }
    keep();
    busy.current = false;
    setSaving(queue.current.length > 0);
  }, [accept, cache, forgetPreview, have, id, keep]);

  const load = useCallback(async () => {
    const probeAsked = probeNow.current;
    try {
      accept(
        await unwrap(
          http.GET("/api/jobs/{job_id}", {
            params: { path: { job_id: id }, query: probeAsked === null ? {} : { probe_m_s: probeAsked } },
          }),
        ),
        probeAsked,
      );
      setTrouble(null);
    } catch (problem) {
      if (problem instanceof Offline && !shownNow(cache, id)) {
        const carried = await fromPocket<Shown>(pocketKey(["job", id, "shown"]));
        if (carried) accept(carried.answer, carried.probe);
      }
      setTrouble(troubleOf(problem));
    }
  }, [accept, cache, id]);

  useEffect(() => {
    queue.current.push(...takeLeftParcels(localStorage, id));
    keep();
    void load().then(send);
  }, [id, keep, load, send]);

  useEffect(() => {
    const retry = setInterval(() => {
      if (queue.current.length && revision.current) void send();
      else if (trouble?.kind === "offline" || trouble?.kind === "failing") void load();
    }, RETRY_MS);
    return () => clearInterval(retry);
  }, [trouble, send, load]);

  const seen = useQuery({
    queryKey: ["revision", id],
    enabled: open,
    refetchInterval: POLL_MS,
    retry: false,
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/revision", { params: { path: { job_id: id } } })),
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: each answer counts, also one that says the same again
  useEffect(() => {
    // while something is on its way, its own answer says how things stand
    if (queue.current.length || busy.current) return;
    if (seen.error instanceof Offline) setTrouble((now) => now ?? { kind: "offline" });
    else if (seen.data && seen.data.revision > revision.current)
      setTrouble({ kind: "moved-on", revision: seen.data.revision });
    else if (seen.data && !seen.error) setTrouble((now) => (now?.kind === "offline" ? null : now));
  }, [seen.data, seen.error, seen.dataUpdatedAt, seen.errorUpdatedAt]);

  const edit = useCallback(
    (edits: Edit[]) =>
      new Promise<JobAnswer>((done, failed) => {
        const base = baseFor(queue.current, revision.current);
        queue.current.push({ editId: newUuid(), edits, base, done, failed });
        keep();
        void send();
      }),
    [keep, send],
  );

  const change = useCallback(
    (edits: Edit[]) =>
      edit(edits).then(
        () => setRefusal(null),
        (problem) => setRefusal(problem instanceof Error ? problem.message : "Not stored."),
      ),
    [edit],
  );

  const lookAt = useCallback(
    async (edits: Edit[], stations: StationName[] | null) => {
      const before = shownNow(cache, id);
      const { forgotten } = ask.current;
      try {
        const reply = await unwrap(
          http.POST("/api/jobs/{job_id}/what-if", {
            params: { path: { job_id: id } },
            body: { edits, probe_m_s: probeNow.current, held: have(), stations },
          }),
        );
        const after = shownNow(cache, id);
        // late news belong to an answer that is no longer there, or to a drop that was refused
        const late = after?.answer !== before?.answer || forgotten !== ask.current.forgotten;
        if (after && !late && !busy.current)
          show(cache, id, { ...after, evaluation: previewed(after, reply), previewing: edits });
      } catch (problem) {
        if (problem instanceof Offline) setTrouble({ kind: "offline" });
      }
    },
    [cache, have, id],
  );

  const preview = useCallback(
    async (edits: Edit[], inSight: readonly StationName[] | null = null) => {
      ask.current.next = { edits, inSight };
      if (ask.current.running) return;
      ask.current.running = true;
      while (ask.current.next) {
        const now: Look = ask.current.next;
        ask.current.next = null;
        if (now.inSight) {
          await lookAt(now.edits, [...now.inSight]);
          if (!ask.current.next) await new Promise((rested) => setTimeout(rested, REST_MS));
          // moved on, or let go meanwhile
          if (ask.current.next || !shownNow(cache, id)?.previewing) continue;
        }
        await lookAt(now.edits, null);
      }
      ask.current.running = false;
    },
    [cache, id, lookAt],
  );

  const setProbe = useCallback(
    (speed: number | null) => {
      probeNow.current = speed;
      setProbeState(speed);
      void preview([]);
    },
    [preview],
  );

  const oneStep = useCallback(
    async (direction: "undo" | "redo") => {
      const unreadable = trouble?.kind === "unreadable" ? trouble.revision : null;
      if (busy.current || queue.current.length) {
        setRefusal("Undo waits until your last change is stored.");
        return;
      }
      const base = unreadable ?? revision.current;
      const before = travelling.current;
      // pressed again because no answer came: the same step, not a second one
      const again = before !== null && before.direction === direction && before.base === base;
      const step = again ? before : { direction, base, editId: newUuid() };
      travelling.current = step;
      const probeAsked = probeNow.current;
      const shown = shownNow(cache, id);
      if (shown && unreadable === null && !(direction === "undo" ? shown.answer.can_undo : shown.answer.can_redo)) {
        travelling.current = null;
        return; // pressed once more than there are steps
      }
      try {
        const reply = await unwrap(
          http.POST("/api/jobs/{job_id}/travel/{direction}", {
            params: { path: { job_id: id, direction } },
            body: { base_revision: base, client: CLIENT, edit_id: step.editId, probe_m_s: probeAsked, held: have() },
          }),
        );
        const next = answered(shown, reply);
        if (next) accept(next, probeAsked);
        else await load();
        travelling.current = null;
        setTrouble(null);
      } catch (problem) {
        if (problem instanceof ApiError && problem.body.code === "conflict")
          setTrouble({ kind: "moved-on", revision: problem.body.current_revision ?? 0 });
        else if (problem instanceof ApiError && problem.status < 500) setRefusal(problem.message);
        else setTrouble(troubleOf(problem));
      }
    },
    [accept, cache, have, id, load, trouble],
  );

  /** Steps pressed quickly go one after the other: each begins where the last one arrived. */
  const travel = useCallback(
    (direction: "undo" | "redo") => {
      line.current = line.current.then(() => oneStep(direction));
      return line.current;
    },
    [oneStep],
  );

  const reload = useCallback(async () => {
    queue.current = [];
    held.current = false;
    keep();
    setSaving(false);
    await load();
  }, [keep, load]);

  const takeOver = useCallback(() => {
    if (trouble?.kind === "conflict") {
      revision.current = trouble.revision;
      for (const parcel of queue.current) parcel.base = trouble.revision;
    }
    held.current = false;
    setTrouble(null);
    void send();
  }, [trouble, send]);

  const dropFirst = useCallback(() => {
    queue.current.shift()?.failed?.(new Error("Not stored: given up."));
    keep();
    setTrouble(null);
    void send();
  }, [keep, send]);

  const forgetRefusal = useCallback(() => setRefusal(null), []);

  const onItsWay = useCallback((path: string) => {
    const edits = queue.current.flatMap((parcel) => parcel.edits);
    const last = edits.findLast((e) => e.op === "set" && e.path === path);
    const value = last && "value" in last ? last.value : undefined;
    return typeof value === "object" && value !== null && "mm" in value && typeof value.mm === "number"
      ? value.mm
      : undefined;
  }, []);

  return useMemo(
    () => ({
      open,
      saving,
      waiting,
      trouble,
      refusal,
      forgetRefusal,
      probe,
      setProbe,
      edit,
      change,
      onItsWay,
      preview,
      travel,
      reload,
      takeOver,
      dropFirst,
    }),
    [
      open,
      saving,
      waiting,
      trouble,
      refusal,
      forgetRefusal,
      probe,
      setProbe,
      edit,
      change,
      onItsWay,
      preview,
      travel,
      reload,
      takeOver,
      dropFirst,
    ],
  );
}

/** What a failed reading or undoing means for the window. */
function troubleOf(problem: unknown): Trouble {
  if (!(problem instanceof ApiError)) return { kind: "offline" };
  if (problem.body.code === "unreadable_job")
    return {
      kind: "unreadable",
      message: problem.message,
      revision: problem.body.current_revision ?? 0,
      canUndo: problem.body.can_undo ?? false,
    };
  return problem.status >= 500
    ? { kind: "failing", message: problem.message }
    : { kind: "gone", message: problem.message };
}
