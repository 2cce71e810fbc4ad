/** Streams and pools on the roof while Water is looked at. */
import type { WaterFinding } from "../../api/types";

import { useDesk, useStoredJob } from "../../job/JobContext";
import type { LayerProps } from "../../roof/layer";
import { shared } from "../../ui/shared";

type Vertex = WaterFinding["pools"][number]["outline"][number];

export const waterLookedAt = shared<WaterFinding | null>(null);

export function WaterShapes({ scale }: LayerProps) {
  const water = waterLookedAt.use();
  if (!water) return null;
  const at = (v: Vertex | undefined) => (v ? `${scale.x(v.x_mm).toFixed(1)} ${scale.y(v.y_mm).toFixed(1)}` : "");
  return (
    <g pointerEvents="none" aria-hidden="true">
      {water.streams.map((stream) => (
        <path
          key={at(stream.points[0])}
          d={`M${stream.points.map(at).join("L")}`}
          fill="none"
          stroke="var(--color-chalk)"
          strokeWidth={1.3}
          strokeDasharray={stream.stands ? "2 3" : undefined}
          opacity={0.75}
          markerEnd="url(#water-head)"
        />
      ))}
      {water.pools.map((pool) => (
        <path
          key={`${pool.x_mm} ${pool.y_mm}`}
          d={`M${pool.outline.map(at).join("L")}Z`}
          fill="var(--color-chalk)"
          fillOpacity={0.5}
          stroke="var(--color-chalk)"
          strokeWidth={1.5}
        />
      ))}
      <defs>
        <marker id="water-head" markerWidth="7" markerHeight="7" refX="5" refY="3.5" orient="auto">
          <path d="M0 0.5 L6 3.5 L0 6.5" fill="none" stroke="var(--color-chalk)" strokeWidth={1.2} />
        </marker>
      </defs>
    </g>
  );
}

/** The gland, true to its base, with a tick where its mouth faces. */
export function GlandShape({ scale }: LayerProps) {
  const { gland } = useStoredJob().seal;
  const { select } = useDesk();
  if (!gland) return null;
  const half = Math.max(Math.abs(scale.x(gland.base.mm) - scale.x(0)) / 2, 5);
  const [x, y] = [scale.x(gland.x.mm), scale.y(gland.y.mm)];
  const [dx, dy] = { rear: [1, 0], front: [-1, 0], port: [0, -1], starboard: [0, 1] }[gland.faces] as [number, number];
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label="Gland of the cables"
      onClick={() => select("seal.gland")}
      onKeyDown={(event) => event.key === "Enter" && select("seal.gland")}
    >
      {/* what a gloved finger hits */}
      <rect x={x - 15} y={y - 15} width={30} height={30} fill="transparent" />
      <rect
        x={x - half}
        y={y - half}
        width={2 * half}
        height={2 * half}
        fill="var(--color-paper)"
        stroke="var(--color-ink)"
        strokeWidth={1.6}
      />
      <circle cx={x} cy={y} r={half * 0.45} fill="none" stroke="var(--color-ink)" strokeWidth={1.4} />
      <path d={`M${x + dx * half} ${y + dy * half} l${dx * 7} ${dy * 7}`} stroke="var(--color-ink)" strokeWidth={3} />
    </g>
  );
}
