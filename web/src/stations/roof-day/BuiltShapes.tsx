/** What is built, heavy, over what was planned, thin; how far off is the line between. */
import { useFinding } from "../../job/JobContext";
import type { LayerProps } from "../../roof/layer";

const ARM = 7;

export function BuiltShapes({ scale }: LayerProps) {
  const built = useFinding("as_built");
  return (
    <g pointerEvents="none">
      {built.map((foot) => {
        const x = scale.x(foot.x_mm);
        const y = scale.y(foot.y_mm);
        const was = { x: scale.x(foot.planned_x_mm), y: scale.y(foot.planned_y_mm) };
        const bad = foot.state === "off" || foot.pilot === "through";
        const ink = bad ? "var(--color-signal)" : "var(--color-ink)";
        return (
          <g key={foot.id}>
            <path d={cross(was.x, was.y)} stroke="var(--color-ink)" strokeWidth={1} fill="none" />
            <path d={`M${was.x},${was.y}L${x},${y}`} stroke={ink} strokeWidth={1.5} strokeDasharray="3 2" />
            <path d={cross(x, y)} stroke={ink} strokeWidth={3.5} fill="none" />
            {foot.pilot === "through" && (
              <circle cx={x} cy={y} r={ARM + 2} stroke={ink} strokeWidth={2.5} fill="none" />
            )}
          </g>
        );
      })}
    </g>
  );
}

const cross = (x: number, y: number) => `M${x - ARM},${y}H${x + ARM}M${x},${y - ARM}V${y + ARM}`;
