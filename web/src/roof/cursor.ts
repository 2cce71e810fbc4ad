/** The one cursor of the three views: pointing at x in one marks it in the others. The last place is kept. */
import { useSyncExternalStore } from "react";
import type { Mm } from "./geometry";

export type Cursor = { x: Mm; y: Mm; inside: boolean };

let now: Cursor | null = null;
const listeners = new Set<() => void>();

export function pointAt(next: Cursor | null): void {
  now = next ?? (now && { ...now, inside: false });
  for (const listener of listeners) listener();
}

export function forgetCursor(): void {
  now = null;
}

export function useCursor(): Cursor | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => now,
  );
}
