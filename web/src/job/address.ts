/**
 * What is looked at stands in the address: the selection, the open part. Both may change at once, and the router's
 * setter knows nothing of a change that is still on its way: so changes of one moment go in together.
 */
import type { useSearchParams } from "react-router";

type Setter = ReturnType<typeof useSearchParams>[1];
let waiting: Map<string, string | null> | null = null;

export function putInAddress(setParams: Setter, key: string, value: string | null): void {
  if (waiting) {
    waiting.set(key, value);
    return;
  }
  waiting = new Map([[key, value]]);
  queueMicrotask(() => {
    const all = waiting ?? new Map<string, string | null>();
    waiting = null;
    setParams(
      (before) => {
        const after = new URLSearchParams(before);
        for (const [name, told] of all) {
          if (told) after.set(name, told);
          else after.delete(name);
        }
        return after;
      },
      { replace: true },
    );
  });
}
