/** Streams and pools on the roof while Water is looked at. */
import type { WaterFinding } from "../../api/types";

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
