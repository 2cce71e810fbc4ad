import { selectedPanel, useDesk, useFinding, useUnits } from "../../job/JobContext";
import type { LayerProps } from "../../roof/layer";
import { length } from "../../ui/format";

/** On a strip narrower than that, dimensions would lie on one another. */
const NARROW_PX = 560;

/** Live distances of the selected panel to the edges and to its nearest neighbours. */
export function Dimensions({ scale }: LayerProps) {
  const panel = selectedPanel(useDesk().selection);
  const distances = useFinding("distances");
  const units = useUnits();
  if (!panel || scale.width <= NARROW_PX) return null;
  return (
    <g pointerEvents="none" aria-hidden="true" stroke="var(--color-ink)" strokeWidth={1}>
      {distances
        .filter((d) => d.panel === panel && Math.abs(d.mm) > 1)
        .map((d) => {
          const [x1, y1, x2, y2] = [scale.x(d.from_x_mm), scale.y(d.from_y_mm), scale.x(d.to_x_mm), scale.y(d.to_y_mm)];
          const level = Math.abs(y2 - y1) < Math.abs(x2 - x1);
          // long dimensions cross other panels: their figure stands near the far end, clear of the names
          const share = Math.hypot(x2 - x1, y2 - y1) > 90 ? 0.84 : 0.5;
          return (
            <g key={d.to}>
              <line x1={x1} y1={y1} x2={x2} y2={y2} />
              <circle cx={x1} cy={y1} r={1.8} fill="var(--color-ink)" />
              <circle cx={x2} cy={y2} r={1.8} fill="var(--color-ink)" />
              <text
                x={x1 + (x2 - x1) * share + (level ? 0 : 5)}
                y={y1 + (y2 - y1) * share + (level ? -4 : 4)}
                textAnchor={level ? "middle" : "start"}
                strokeWidth={3.5}
                stroke="var(--color-paper)"
                paintOrder="stroke"
                className="font-sign font-semibold text-[12.5px] fill-ink"
              >
                {length(d.mm, units).replace(" mm", "")}
              </text>
            </g>
          );
        })}
    </g>
  );
}
