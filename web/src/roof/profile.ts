/** Heights of the roof between the core's grid points, and the lines of the two sections. Interpolation only. */
import type { CrownFinding, Raised } from "../api/types";
import type { Mm } from "./geometry";

/** Where a value lies between sorted grid lines: index of the one before it, and how far on, 0 to 1. */
export function between(grid: readonly Mm[], at: Mm): { index: number; share: number } {
  const last = grid.length - 1;
  const first = grid[0] ?? 0;
  const end = grid[last] ?? 0;
  if (last < 1 || at <= first) return { index: 0, share: 0 };
  if (at >= end) return { index: last - 1, share: 1 };
  const index = grid.findIndex((line, i) => at >= line && at < (grid[i + 1] ?? Infinity));
  const low = grid[index] ?? 0;
  return { index, share: (at - low) / ((grid[index + 1] ?? low + 1) - low) };
}

function bilinear(crown: CrownFinding, values: readonly (readonly number[])[], x: Mm, y: Mm): number {
  const along = between(crown.x_mm, x);
  const across = between(crown.y_mm, y);
  const at = (i: number, j: number) => values[i]?.[j] ?? 0;
  const row = (i: number) => at(i, across.index) * (1 - across.share) + at(i, across.index + 1) * across.share;
  return row(along.index) * (1 - along.share) + row(along.index + 1) * along.share;
}

/** Height over the roof's middle, mm; a roof whose crown was not measured is flat. */
export function heightAt(crown: CrownFinding | null | undefined, x: Mm, y: Mm): Mm {
  return crown ? bilinear(crown, crown.height_mm, x, y) : 0;
}

/** One standard deviation of that height. */
export function doubtAt(crown: CrownFinding | null | undefined, x: Mm, y: Mm): Mm {
  return crown ? bilinear(crown, crown.sigma_mm, x, y) : 0;
}

export type Extent = { low: Mm; high: Mm };

/** Where an outline is cut by a line across at x: the outermost crossings; null where it is not cut. */
export function cutAcross(ring: readonly { x_mm: Mm; y_mm: Mm }[], x: Mm): Extent | null {
  const crossings = ring.flatMap((a, i) => {
    const b = ring[(i + 1) % ring.length];
    if (!b || (a.x_mm - x) * (b.x_mm - x) > 0) return [];
    if (a.x_mm === b.x_mm) return [a.y_mm, b.y_mm];
    return [a.y_mm + ((b.y_mm - a.y_mm) * (x - a.x_mm)) / (b.x_mm - a.x_mm)];
  });
  return crossings.length > 1 ? { low: Math.min(...crossings), high: Math.max(...crossings) } : null;
}

export type Stretch = { from: Mm; to: Mm };

export function samples({ from, to }: Stretch, count: number): Mm[] {
  return Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
}

/** An SVG path through points in pixels. */
export function path(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("");
}

/** Where a raised panel is cut across at x: its two ends as y and height over lying flat; null where it is not cut. */
export function raisedLine({ rect, up, rise_mm, low_mm }: Raised, x: Mm): [[Mm, Mm], [Mm, Mm]] | null {
  const along = (x - rect.x_mm) / rect.length_mm;
  if (along < 0 || along > 1) return null;
  const at = (share: number) => low_mm + (rise_mm - low_mm) * share;
  const [port, starboard] =
    up === "port" ? [1, 0] : up === "starboard" ? [0, 1] : up === "front" ? [1 - along, 1 - along] : [along, along];
  return [
    [rect.y_mm, at(port)],
    [rect.y_mm + rect.width_mm, at(starboard)],
  ];
}
