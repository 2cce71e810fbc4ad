/**
 * What a phone carries up the ladder: the last answers of the server, kept by the browser, so that a page that was killed while the
 * network was away opens with them. One small store by key; a browser that keeps nothing costs this and nothing else.
 */
import { type Query, type QueryKey, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

const NAME = "pocket";
const WRITES_AFTER_MS = 150;

function asked<T>(request: IDBRequest<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error);
  });
}

async function store(mode: IDBTransactionMode): Promise<IDBObjectStore> {
  const opening = indexedDB.open(NAME, 1);
  opening.onupgradeneeded = () => opening.result.createObjectStore(NAME);
  const database = await asked(opening);
  return database.transaction(NAME, mode).objectStore(NAME);
}

export async function putInPocket(key: string, value: unknown): Promise<void> {
  try {
    await asked((await store("readwrite")).put(value, key));
  } catch {
    // full or forbidden: the page works on while it is open
  }
}

export async function fromPocket<T>(key: string): Promise<T | undefined> {
  try {
    return (await asked((await store("readonly")).get(key))) as T | undefined;
  } catch {
    return undefined;
  }
}

export const pocketKey = (key: QueryKey): string => key.join(" ");

/** While ``on``, answers under these keys are kept whenever they have become others. */
export function useKeptInPocket(on: boolean, id: string): void {
  const cache = useQueryClient();
  useEffect(() => {
    if (!on) return;
    let late: ReturnType<typeof setTimeout> | undefined;
    const changed = new Map<string, unknown>();
    const write = () => {
      late = undefined;
      for (const [key, value] of changed) void putInPocket(key, value);
      changed.clear();
    };
    const note = (query: Query) => {
      const [first, job, third] = query.queryKey;
      const wanted = job === id && (first === "log" || (first === "job" && third === "shown"));
      if (!wanted || query.state.data === undefined) return;
      changed.set(pocketKey(query.queryKey), query.state.data);
      late ??= setTimeout(write, WRITES_AFTER_MS);
    };
    for (const query of cache.getQueryCache().getAll()) note(query);
    addEventListener("pagehide", write);
    const stop = cache.getQueryCache().subscribe(({ query }) => note(query));
    return () => {
      stop();
      removeEventListener("pagehide", write);
      clearTimeout(late);
      write();
    };
  }, [cache, id, on]);
}
