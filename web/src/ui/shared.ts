/** A value that views far apart share, without passing it through everything that lies between them. */
import { useSyncExternalStore } from "react";

export function shared<T>(first: T): { get: () => T; set: (next: T) => void; use: () => T } {
  let now = first;
  const listeners = new Set<() => void>();
  const get = () => now;
  const listen = (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  };
  return {
    get,
    set: (next) => {
      now = next;
      for (const listener of listeners) listener();
    },
    use: () => useSyncExternalStore(listen, get),
  };
}
