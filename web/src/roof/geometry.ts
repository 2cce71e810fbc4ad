/** Pure geometry between roof millimetres and screen pixels. The two are different types so that they cannot be mixed. */
import type { Units } from "../api/types";

declare const pixel: unique symbol;
export type Px = number & { readonly [pixel]: true };
export type Mm = number;

export const px = (value: number): Px => value as Px;

export type Frame = { left: number; top: number; right: number; bottom: number };
export const FRAME: Frame = { left: 52, top: 26, right: 16, bottom: 44 };

/** The roof as the strip shows it: x aft to the right, y to starboard downwards, one scale for both. */
export class RoofScale {
  readonly pxPerMm: number;
  readonly width: Px;
  readonly height: Px;
  readonly length: Mm;
  readonly across: Mm;

  constructor(room: { width: number; height: number }, roof: { length: Mm; across: Mm }) {
    const wide = (room.width - FRAME.left - FRAME.right) / roof.length;
    const high = (room.height - FRAME.top - FRAME.bottom) / roof.across;
    this.pxPerMm = Math.max(Math.min(wide, high), 1e-6);
    this.length = roof.length;
    this.across = roof.across;
    this.width = px(FRAME.left + FRAME.right + roof.length * this.pxPerMm);
    this.height = px(FRAME.top + FRAME.bottom + roof.across * this.pxPerMm);
  }

  x(mm: Mm): Px {
    return px(FRAME.left + mm * this.pxPerMm);
  }
  y(mm: Mm): Px {
    return px(FRAME.top + (mm + this.across / 2) * this.pxPerMm);
  }
  size(mm: Mm): Px {
    return px(mm * this.pxPerMm);
  }
  mmX(value: number): Mm {
    return (value - FRAME.left) / this.pxPerMm;
  }
  mmY(value: number): Mm {
    return (value - FRAME.top) / this.pxPerMm - this.across / 2;
  }
}

export type RulerTick = { mm: Mm; label: string | null };

/** Ticks people find on a tape: half metres with whole ones named, or feet. */
export function ruler(length: Mm, units: Units): RulerTick[] {
  const step = units === "metric" ? 100 : 304.8;
  const named = units === "metric" ? 5 : length > 12_000 ? 2 : 1;
  return Array.from({ length: Math.floor(length / step + 1e-6) + 1 }, (_, i) => ({
    mm: i * step,
    label: i % named === 0 ? (units === "metric" ? String((i * step) / 1000) : `${i}'`) : null,
  }));
}

/** Ticks across, from the centre line to both sides. */
export function acrossTicks(across: Mm, units: Units): RulerTick[] {
  const half = across / 2;
  return ruler(half, units).flatMap((tick) =>
    tick.mm === 0 ? [{ ...tick, label: "0" }] : [tick, { mm: -tick.mm, label: tick.label }],
  );
}

const LETTER_PX = 6.6;

/** Whether a name fits into a width; where it does not, the drawing leaves it to the accessible name. */
export const nameFits = (name: string, width: number): boolean => name.length * LETTER_PX <= width;

const SIXTEENTH = 25.4 / 16;

/** A dragged or nudged position, rounded to what a tape shows. */
export function onTape(mm: Mm, units: Units): Mm {
  return units === "metric" ? Math.round(mm) : Math.round(mm / SIXTEENTH) * SIXTEENTH;
}

/** How far an arrow key moves: 1 mm or 1/16 in, with shift 10 mm or 1/2 in. */
export function nudge(key: string, big: boolean, units: Units): { dx: Mm; dy: Mm } | null {
  const step = units === "metric" ? (big ? 10 : 1) : big ? 12.7 : SIXTEENTH;
  const moves: Record<string, { dx: Mm; dy: Mm }> = {
    ArrowLeft: { dx: -step, dy: 0 },
    ArrowRight: { dx: step, dy: 0 },
    ArrowUp: { dx: 0, dy: -step },
    ArrowDown: { dx: 0, dy: step },
  };
  return moves[key] ?? null;
}
