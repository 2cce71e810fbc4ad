/**
 * Dragging a panel: the picture follows the pointer at once, the verdict follows through what-if, the drop is stored.
 * Panels of one array go along. Near a good place the panel snaps to it; with Alt held it does not.
 */
import { type PointerEvent, useRef, useState } from "react";
import { http, unwrap } from "../api/client";
import type { Edit, Panel, Rect, Snap, StationName, Units } from "../api/types";
import type { JobHandle } from "../job/useJob";
import { type Mm, onTape, type RoofScale } from "./geometry";
import { snapTo } from "./snapping";

export type Moved = { ids: readonly string[]; dx: Mm; dy: Mm; lines: readonly Snap[] };

const REACH_PX = 7;

/** The panels that move together with one: its array, or itself. */
export const together = (panels: readonly Panel[], one: Panel): Panel[] =>
  panels.filter((p) => p.id === one.id || (one.array && p.array === one.array));

export function positionEdits(panels: readonly Panel[], dx: Mm, dy: Mm, at: (path: string) => Mm | undefined): Edit[] {
  return panels.flatMap((panel) => {
    const x = at(`panels.${panel.id}.x`) ?? panel.x.mm;
    const y = at(`panels.${panel.id}.y`) ?? panel.y.mm;
    return [
      ...(dx ? [{ op: "set" as const, path: `panels.${panel.id}.x`, value: { mm: x + dx } }] : []),
      ...(dy ? [{ op: "set" as const, path: `panels.${panel.id}.y`, value: { mm: y + dy } }] : []),
    ];
  });
}

type Start = { panel: Panel; mates: Panel[]; size: Rect; px: number; py: number; far: boolean; snaps: readonly Snap[] };

export function useDrag(
  jobId: string,
  panels: readonly Panel[],
  handle: JobHandle,
  scale: RoofScale,
  units: Units,
  inSight: readonly StationName[],
) {
  const [moved, setMoved] = useState<Moved | null>(null);
  const start = useRef<Start | null>(null);

  const down = (event: PointerEvent<SVGElement>, panel: Panel, size: Rect) => {
    if (event.button !== 0 || event.shiftKey) return;
    const mates = together(panels, panel);
    if (mates.some((p) => p.locked)) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const from: Start = { panel, mates, size, px: event.clientX, py: event.clientY, far: false, snaps: [] };
    start.current = from;
    void unwrap(
      http.GET("/api/jobs/{job_id}/snaps", { params: { path: { job_id: jobId }, query: { panel: panel.id } } }),
    ).then(
      (snaps) => {
        from.snaps = snaps;
      },
      () => {},
    );
  };

  const move = (event: PointerEvent<SVGElement>) => {
    const from = start.current;
    if (!from) return;
    const px = event.clientX - from.px;
    const py = event.clientY - from.py;
    if (!from.far && Math.hypot(px, py) < 3) return;
    from.far = true;
    const { x, y } = { x: from.panel.x.mm, y: from.panel.y.mm };
    const free = { x: onTape(x + px / scale.pxPerMm, units), y: onTape(y + py / scale.pxPerMm, units), lines: [] };
    const to = event.altKey ? free : snapTo(from.snaps, from.size, free.x, free.y, REACH_PX / scale.pxPerMm);
    setMoved({ ids: from.mates.map((p) => p.id), dx: to.x - x, dy: to.y - y, lines: to.lines });
    handle.preview(
      positionEdits(from.mates, to.x - x, to.y - y, () => undefined),
      inSight,
    );
  };

  const up = async () => {
    const from = start.current;
    start.current = null;
    if (!from?.far || !moved) return;
    const edits = positionEdits(from.mates, moved.dx, moved.dy, () => undefined);
    if (edits.length) await handle.change(edits);
    setMoved(null);
  };

  const cancel = () => {
    start.current = null;
    setMoved(null);
    handle.preview([]);
  };

  return { moved, down, move, up, cancel };
}
