/** Which of a panel's good places the pointer is near enough to: pure geometry on what the server lists. */
import type { Rect, Snap } from "../api/types";
import type { Mm } from "./geometry";

export type Snapped = { x: Mm; y: Mm; lines: Snap[] };

/** How near a panel has to come to a thing, along its line, for that line to matter. */
const NEAR_MM = 700;

const reaches = (snap: Snap, low: Mm, high: Mm): boolean =>
  snap.low_mm - NEAR_MM <= high && snap.high_mm + NEAR_MM >= low;

function nearest(snaps: readonly Snap[], at: Mm, within: Mm): Snap | null {
  let best: Snap | null = null;
  for (const snap of snaps) if (Math.abs(snap.at_mm - at) <= (best ? Math.abs(best.at_mm - at) : within)) best = snap;
  return best;
}

/** Pull x (front edge) and y (middle) to the nearest places within reach of the pointer. */
export function snapTo(snaps: readonly Snap[], size: Rect, x: Mm, y: Mm, within: Mm): Snapped {
  const half = size.width_mm / 2;
  const alongX = snaps.filter((s) => s.axis === "x" && reaches(s, y - half, y + half));
  const toX = nearest(alongX, x, within);
  const atX = toX?.at_mm ?? x;
  const alongY = snaps.filter((s) => s.axis === "y" && reaches(s, atX, atX + size.length_mm));
  const toY = nearest(alongY, y, within);
  return { x: atX, y: toY?.at_mm ?? y, lines: [toX, toY].filter((s): s is Snap => s !== null) };
}
