/** The cables on the roof while Wire is open: thick for plus, thin for minus, with the spots they are led past to drag. */
import { type PointerEvent, useState } from "react";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { onTape } from "../../roof/geometry";
import type { LayerProps } from "../../roof/layer";
import { shared } from "../../ui/shared";

/** Whether Wire is open: the cables lie over everything else then. */
export const cablesLookedAt = shared(false);

export function CableShapes({ scale }: LayerProps) {
  const looked = cablesLookedAt.use();
  const harnesses = useFinding("harnesses");
  const { points } = useStoredJob().wiring;
  const clips = useFinding("seal_places").flatMap((p) => p.spots);
  if (!looked) return null;
  const line = (way: readonly { x_mm: number; y_mm: number }[], off: number) =>
    way.map((v, i) => `${i ? "L" : "M"}${scale.x(v.x_mm).toFixed(1)} ${(scale.y(v.y_mm) + off).toFixed(1)}`).join("");
  return (
    <g>
      <g pointerEvents="none" aria-hidden="true" fill="none" strokeLinejoin="round">
        {harnesses.flatMap((h) => [
          ...h.runs.map((run) => {
            const [off, width] = run.polarity === "+" ? [-1.5, 2.6] : [1.5, 1.2];
            return (
              <g key={run.id}>
                <path d={line(run.way.points, off)} stroke="var(--color-paper)" strokeWidth={width + 2} opacity={0.8} />
                <path d={line(run.way.points, off)} stroke="var(--color-ink)" strokeWidth={width} />
              </g>
            );
          }),
          ...h.jumpers.map((j) => (
            <path
              key={`${j.first} ${j.second}`}
              d={line(j.way.points, 0)}
              stroke="var(--color-ink)"
              strokeWidth={1.4}
              strokeDasharray="6 2"
            />
          )),
          ...(h.branch
            ? [
                <rect
                  key={h.controller}
                  x={scale.x(h.branch.x_mm) - 5}
                  y={scale.y(h.branch.y_mm) - 5}
                  width={10}
                  height={10}
                  fill="var(--color-ink)"
                />,
              ]
            : []),
        ])}
        {clips.map((c) => (
          <circle
            key={`${c.x_mm} ${c.y_mm}`}
            cx={scale.x(c.x_mm)}
            cy={scale.y(c.y_mm)}
            r={3}
            fill="var(--color-paper)"
            stroke="var(--color-ink)"
            strokeWidth={1.2}
          />
        ))}
      </g>
      {points.map((point, index) => (
        <Spot key={point.id} point={point} number={index + 1} scale={scale} />
      ))}
    </g>
  );
}

type SpotProps = {
  point: { id: string; x: { mm: number }; y: { mm: number } };
  number: number;
  scale: LayerProps["scale"];
};

const STEP_MM = 10;
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function Spot({ point, number, scale }: SpotProps) {
  const { handle, select } = useDesk();
  const units = useUnits();
  const [from, setFrom] = useState<{ px: number; py: number } | null>(null);
  const [by, setBy] = useState<readonly [number, number]>([0, 0]);
  const path = `wiring.points.${point.id}`;
  const put = (dx: number, dy: number) =>
    handle.change([
      { op: "set", path: `${path}.x`, value: { mm: onTape(point.x.mm + dx, units) } },
      { op: "set", path: `${path}.y`, value: { mm: onTape(point.y.mm + dy, units) } },
    ]);
  const moved = (event: PointerEvent) =>
    from ? ([(event.clientX - from.px) / scale.pxPerMm, (event.clientY - from.py) / scale.pxPerMm] as const) : by;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Spot ${number} cables are led past; arrows move it`}
      style={{ cursor: "grab", touchAction: "none" }}
      onFocus={() => select(path)}
      onKeyDown={(event) => {
        const step = ARROWS[event.key];
        if (!step) return;
        event.preventDefault();
        put(step[0] * STEP_MM, step[1] * STEP_MM);
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setFrom({ px: event.clientX, py: event.clientY });
      }}
      onPointerMove={(event) => from && setBy(moved(event))}
      onPointerUp={(event) => {
        if (!from) return;
        const [dx, dy] = moved(event);
        setFrom(null);
        setBy([0, 0]);
        if (Math.hypot(dx, dy) > STEP_MM) put(dx, dy);
      }}
    >
      <circle
        cx={scale.x(point.x.mm + by[0])}
        cy={scale.y(point.y.mm + by[1])}
        r={9}
        fill="var(--color-tape)"
        stroke="var(--color-ink)"
        strokeWidth={1.8}
      />
      <circle cx={scale.x(point.x.mm + by[0])} cy={scale.y(point.y.mm + by[1])} r={2} fill="var(--color-ink)" />
    </g>
  );
}
