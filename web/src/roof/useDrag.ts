/** Dragging a panel: the picture follows the pointer at once, the verdict follows through what-if, the drop is stored. */
import { type PointerEvent, useRef, useState } from "react";
import type { Edit, Panel, Units } from "../api/types";
import type { JobHandle } from "../app/useJob";
import { onTape, type RoofScale } from "./geometry";

export type Moved = { id: string; x: number; y: number };

export function positionEdits(id: string, x: number, y: number): Edit[] {
  return [
    { op: "set", path: `panels.${id}.x`, value: { mm: x } },
    { op: "set", path: `panels.${id}.y`, value: { mm: y } },
  ];
}

export function useDrag(handle: JobHandle, scale: RoofScale, units: Units) {
  const [moved, setMoved] = useState<Moved | null>(null);
  const start = useRef<{ id: string; px: number; py: number; x: number; y: number; far: boolean } | null>(null);

  const down = (event: PointerEvent<SVGElement>, panel: Panel) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    start.current = { id: panel.id, px: event.clientX, py: event.clientY, x: panel.x.mm, y: panel.y.mm, far: false };
  };

  const move = (event: PointerEvent<SVGElement>) => {
    const from = start.current;
    if (!from) return;
    const dx = event.clientX - from.px;
    const dy = event.clientY - from.py;
    if (!from.far && Math.hypot(dx, dy) < 3) return;
    from.far = true;
    const x = onTape(from.x + dx / scale.pxPerMm, units);
    const y = onTape(from.y + dy / scale.pxPerMm, units);
    setMoved({ id: from.id, x, y });
    handle.preview(positionEdits(from.id, x, y));
  };

  const up = async () => {
    const from = start.current;
    start.current = null;
    if (!from?.far || !moved) return;
    try {
      await handle.edit(positionEdits(moved.id, moved.x, moved.y));
    } finally {
      setMoved(null);
    }
  };

  const cancel = () => {
    start.current = null;
    setMoved(null);
    handle.preview([]);
  };

  return { moved, down, move, up, cancel };
}
