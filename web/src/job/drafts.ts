/** What is typed and not stored yet: text of boxes and half-typed rows, kept over a change of station, a reload and a crash. */
import { useCallback, useEffect, useState, useSyncExternalStore } from "react";

/** ``on`` is what the job held when the typing began: where that has changed since, storing it needs a clear yes. */
export type Draft = { text: string; on: string };

const keyOf = (job: string, path: string) => `draft:${job}:${path}`;
const listeners = new Set<() => void>();
let version = 0;

function told(): void {
  version += 1;
  for (const listener of listeners) listener();
}

export function readDraft(job: string, path: string): Draft | null {
  const kept = localStorage.getItem(keyOf(job, path));
  if (kept === null) return null;
  try {
    const read: unknown = JSON.parse(kept);
    if (typeof read === "object" && read !== null && "text" in read && "on" in read)
      return { text: String(read.text), on: String(read.on) };
  } catch {
    // a draft of an older version is plain text
  }
  return { text: kept, on: "" };
}

export function keepDraft(job: string, path: string, draft: Draft): void {
  localStorage.setItem(keyOf(job, path), JSON.stringify(draft));
  told();
}

export function dropDraft(job: string, path: string): void {
  if (localStorage.getItem(keyOf(job, path)) === null) return;
  localStorage.removeItem(keyOf(job, path));
  told();
}

/** Paths of the job whose boxes hold something that is not stored. */
export function useDrafts(job: string): readonly string[] {
  const list = useSyncExternalStore(subscribe, () => {
    const prefix = keyOf(job, "");
    return `${version}|${Object.keys(localStorage)
      .filter((k) => k.startsWith(prefix))
      .map((k) => k.slice(prefix.length))
      .join("|")}`;
  });
  return list.split("|").slice(1).filter(Boolean);
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener("storage", listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener("storage", listener);
  };
}

const rowKey = (job: string, name: string) => `row:${job}:${name}`;
const FILLED = "row-filled";

/** Fill a form from outside, for example because a remedy led to it. */
export function fillRow(job: string, name: string, value: unknown): void {
  localStorage.setItem(rowKey(job, name), JSON.stringify(value));
  window.dispatchEvent(new CustomEvent(FILLED, { detail: rowKey(job, name) }));
}

function readRow<T>(key: string, first: T): T {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? "null") as T | null) ?? first;
  } catch {
    return first;
  }
}

/** State of a half-typed row or form that outlives the component: kept until it is set back to its first value. */
export function useKept<T>(job: string, name: string, first: T): [T, (next: T) => void] {
  const key = rowKey(job, name);
  const [empty] = useState(first);
  const [value, setValue] = useState<T>(() => readRow(key, first));
  useEffect(() => {
    const filled = (event: Event) => {
      if (event instanceof CustomEvent && event.detail === key) setValue(readRow(key, empty));
    };
    window.addEventListener(FILLED, filled);
    return () => window.removeEventListener(FILLED, filled);
  }, [key, empty]);
  const set = useCallback(
    (next: T) => {
      setValue(next);
      const text = JSON.stringify(next);
      if (text === JSON.stringify(empty)) localStorage.removeItem(key);
      else localStorage.setItem(key, text);
    },
    [key, empty],
  );
  return [value, set];
}
