/**
 * One job in this window: what the server last said, edits on their way, and a preview while something is dragged.
 *
 * Edits go out one after the other, each on top of the revision before it, and stay in local storage until the server
 * has answered: a crash of either side loses nothing that was committed. Late previews are dropped.
 */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ApiError, http, Offline, unwrap } from "../api/client";
import type { Edit, Evaluation, JobAnswer } from "../api/types";

export type Trouble =
  | { kind: "conflict"; revision: number }
  | { kind: "moved-on"; revision: number }
  | { kind: "offline" }
  | { kind: "gone"; message: string };

type Parcel = { editId: string; edits: Edit[] };
type Waiting = { done: (answer: JobAnswer) => void; failed: (problem: unknown) => void };

const POLL_MS = 3000;
const RETRY_MS = 1500;

export const CLIENT: string = (() => {
  const kept = sessionStorage.getItem("client") ?? crypto.randomUUID();
  sessionStorage.setItem("client", kept);
  return kept;
})();

export type JobHandle = {
  answer: JobAnswer | null;
  evaluation: Evaluation | null;
  saving: boolean;
  trouble: Trouble | null;
  probe: number | null;
  setProbe: (speed: number | null) => void;
  edit: (edits: Edit[]) => Promise<JobAnswer>;
  /** The length a path will have once everything on its way is stored; undefined when nothing is on its way. */
  onItsWay: (path: string) => number | undefined;
  preview: (edits: Edit[]) => void;
  travel: (direction: "undo" | "redo") => Promise<void>;
  reload: () => Promise<void>;
  takeOver: () => void;
};

export function useJob(id: string): JobHandle {
  const [answer, setAnswer] = useState<JobAnswer | null>(null);
  const [previewed, setPreviewed] = useState<Evaluation | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [saving, setSaving] = useState(false);
  const [probe, setProbeState] = useState<number | null>(null);
  const revision = useRef(0);
  const probeNow = useRef<number | null>(null);
  const queue = useRef<(Parcel & Partial<Waiting>)[]>([]);
  const busy = useRef(false);
  /** After a conflict nothing goes out until the person has chosen between reloading and taking over. */
  const held = useRef(false);
  const storageKey = `outbox:${id}`;

  const accept = useCallback((next: JobAnswer) => {
    revision.current = next.revision;
    setAnswer(next);
    setPreviewed(null);
  }, []);

  const keep = useCallback(() => {
    const parcels = queue.current.map(({ editId, edits }) => ({ editId, edits }));
    if (parcels.length) localStorage.setItem(storageKey, JSON.stringify(parcels));
    else localStorage.removeItem(storageKey);
  }, [storageKey]);

  const send = useCallback(async () => {
    if (busy.current || held.current) return;
    busy.current = true;
    setSaving(queue.current.length > 0);
    while (queue.current[0]) {
      const parcel = queue.current[0];
      try {
        const next = await unwrap(
          http.POST("/api/jobs/{job_id}/edits", {
            params: { path: { job_id: id } },
            body: {
              base_revision: revision.current,
              client: CLIENT,
              edit_id: parcel.editId,
              edits: parcel.edits,
              probe_m_s: probeNow.current,
            },
          }),
        );
        queue.current.shift();
        setTrouble(null);
        if (!queue.current.length) accept(next);
        else revision.current = next.revision;
        parcel.done?.(next);
      } catch (problem) {
        if (problem instanceof Offline) {
          setTrouble({ kind: "offline" });
          break;
        }
        if (problem instanceof ApiError && problem.body.code === "conflict") {
          held.current = true;
          setTrouble({ kind: "conflict", revision: problem.body.current_revision ?? 0 });
          break;
        }
        queue.current.shift();
        setPreviewed(null);
        parcel.failed?.(problem);
      }
      keep();
    }
    keep();
    busy.current = false;
    setSaving(queue.current.length > 0);
  }, [accept, id, keep]);

  const load = useCallback(async () => {
    try {
      accept(
        await unwrap(
          http.GET("/api/jobs/{job_id}", {
            params: { path: { job_id: id }, query: probeNow.current === null ? {} : { probe_m_s: probeNow.current } },
          }),
        ),
      );
      setTrouble(null);
    } catch (problem) {
      setTrouble(problem instanceof ApiError ? { kind: "gone", message: problem.message } : { kind: "offline" });
    }
  }, [accept, id]);

  useEffect(() => {
    const left = localStorage.getItem(storageKey);
    if (left) queue.current = JSON.parse(left) as Parcel[];
    void load().then(send);
  }, [load, send, storageKey]);

  useEffect(() => {
    const retry = setInterval(() => {
      if (trouble?.kind === "offline") void (revision.current ? send() : load());
    }, RETRY_MS);
    return () => clearInterval(retry);
  }, [trouble, send, load]);

  useEffect(() => {
    const poll = setInterval(async () => {
      if (document.hidden || queue.current.length || busy.current || !revision.current) return;
      try {
        const seen = await unwrap(http.GET("/api/jobs/{job_id}/revision", { params: { path: { job_id: id } } }));
        if (seen.revision > revision.current && !queue.current.length && !busy.current)
          setTrouble({ kind: "moved-on", revision: seen.revision });
        else setTrouble((now) => (now?.kind === "offline" ? null : now));
      } catch (problem) {
        if (problem instanceof Offline) setTrouble((now) => now ?? { kind: "offline" });
      }
    }, POLL_MS);
    return () => clearInterval(poll);
  }, [id]);

  const edit = useCallback(
    (edits: Edit[]) =>
      new Promise<JobAnswer>((done, failed) => {
        queue.current.push({ editId: crypto.randomUUID(), edits, done, failed });
        keep();
        void send();
      }),
    [keep, send],
  );

  const ask = useRef<{ running: boolean; next: Edit[] | null }>({ running: false, next: null });
  const preview = useCallback(
    async (edits: Edit[]) => {
      ask.current.next = edits;
      if (ask.current.running) return;
      ask.current.running = true;
      while (ask.current.next) {
        const now = ask.current.next;
        ask.current.next = null;
        const before = revision.current;
        try {
          const found = await unwrap(
            http.POST("/api/jobs/{job_id}/what-if", {
              params: { path: { job_id: id } },
              body: { edits: now, probe_m_s: probeNow.current },
            }),
          );
          if (before === revision.current && !busy.current) setPreviewed(found);
        } catch (problem) {
          if (problem instanceof Offline) setTrouble({ kind: "offline" });
        }
      }
      ask.current.running = false;
    },
    [id],
  );

  const setProbe = useCallback(
    (speed: number | null) => {
      probeNow.current = speed;
      setProbeState(speed);
      void preview([]);
    },
    [preview],
  );

  const travel = useCallback(
    async (direction: "undo" | "redo") => {
      if (busy.current || queue.current.length) return;
      try {
        accept(
          await unwrap(
            http.POST("/api/jobs/{job_id}/travel/{direction}", {
              params: { path: { job_id: id, direction } },
              body: {
                base_revision: revision.current,
                client: CLIENT,
                edit_id: crypto.randomUUID(),
                probe_m_s: probeNow.current,
              },
            }),
          ),
        );
      } catch (problem) {
        if (problem instanceof Offline) setTrouble({ kind: "offline" });
        else if (problem instanceof ApiError && problem.body.code === "conflict")
          setTrouble({ kind: "moved-on", revision: problem.body.current_revision ?? 0 });
      }
    },
    [accept, id],
  );

  const reload = useCallback(async () => {
    queue.current = [];
    held.current = false;
    keep();
    setSaving(false);
    await load();
  }, [keep, load]);

  const takeOver = useCallback(() => {
    if (trouble?.kind === "conflict") revision.current = trouble.revision;
    held.current = false;
    setTrouble(null);
    void send();
  }, [trouble, send]);

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
      answer,
      evaluation: previewed ?? answer?.evaluation ?? null,
      saving,
      trouble,
      probe,
      setProbe,
      edit,
      onItsWay,
      preview,
      travel,
      reload,
      takeOver,
    }),
    [answer, previewed, saving, trouble, probe, setProbe, edit, onItsWay, preview, travel, reload, takeOver],
  );
}
