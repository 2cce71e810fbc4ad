/**
 * Instruments fill the box that is in hand: one that asks for their kind (``data-reads``) and is empty, or still holds what an
 * instrument put there. What somebody typed is never overwritten.
 */
import { useEffect, useState } from "react";
import { http, unwrap } from "../api/client";

const POLL_MS = 1000;
const BY = new WeakMap<HTMLInputElement, { words: string; instrument: string }>();

/** Which instrument filled this box, where it still holds what that put there. */
export function instrumentOf(box: HTMLInputElement | null): string {
  const put = box ? BY.get(box) : undefined;
  return put && box?.value === put.words ? put.instrument : "";
}

/** Whether an instrument may write into a box that holds this. */
export const mayFill = (value: string, put: string | undefined): boolean => value === "" || value === put;

function fill(box: HTMLInputElement, words: string, instrument: string): void {
  if (!mayFill(box.value, BY.get(box)?.words) || box.value === words) return;
  BY.set(box, { words, instrument });
  // the page's own boxes watch for typing: set it as typing would
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(box, words);
  box.dispatchEvent(new Event("input", { bubbles: true }));
}

/** Listens while a box that asks for a reading is in hand. */
export function useInstruments(): void {
  const [box, setBox] = useState<HTMLInputElement | null>(null);
  useEffect(() => {
    const look = () => {
      const now = document.activeElement;
      setBox(now instanceof HTMLInputElement && now.dataset.reads ? now : null);
    };
    document.addEventListener("focusin", look);
    document.addEventListener("focusout", look);
    return () => {
      document.removeEventListener("focusin", look);
      document.removeEventListener("focusout", look);
    };
  }, []);
  useEffect(() => {
    if (!box) return;
    let last: number | null = null;
    let over = false;
    const ask = async () => {
      try {
        const told = await unwrap(http.GET("/api/instruments/readings", { params: { query: { after: last ?? 0 } } }));
        const newest = told.readings.at(-1)?.number;
        // what was said before the box was taken up is not meant for it
        const fits = last === null ? undefined : told.readings.findLast((r) => r.kind === box.dataset.reads);
        last = newest ?? last ?? 0;
        if (fits && !over && document.activeElement === box)
          fill(box, box.dataset.plain === undefined ? fits.words : `${fits.value}`, fits.instrument);
      } catch {
        // no answer, no reading: typing works
      }
    };
    void ask();
    const again = setInterval(() => void ask(), POLL_MS);
    return () => {
      over = true;
      clearInterval(again);
    };
  }, [box]);
}
