/** What stands on the roof when the step that is looked at has ended: heavy is built, thin is still to come. */
import type { DayPlan } from "../../api/types";
import { useFinding, useStoredJob } from "../../job/JobContext";
import type { LayerProps } from "../../roof/layer";
import { shared } from "../../ui/shared";
import { allDone, whenWords } from "./road";

export const planLookedAt = shared<{ plan: DayPlan; moment: string } | null>(null);
const HELD = ["lay", "stick", "set", "snug"] as const;

export function DoneShapes({ scale }: LayerProps) {
  const looked = planLookedAt.use();
  const { vehicle } = useStoredJob();
  const half = (vehicle.roof_width?.mm ?? 2000) / 2;
  const feet = useFinding("feet");
  if (!looked) return null;
  const { plan, moment } = looked;
  const kinds = HELD.filter((k) => plan.steps.some((s) => s.kind === k));
  const held = kinds.length > 0 && allDone(plan, kinds, moment);
  const lifted = allDone(plan, ["lift"], moment);
  const words = lifted ? "panels on" : held ? "feet held, no panel yet" : "nothing held yet";
  return (
    <g pointerEvents="none">
      {held &&
        feet.map((f) => (
          <circle
            key={`${f.panel}.${f.foot}`}
            cx={scale.x(f.x_mm)}
            cy={scale.y(f.y_mm)}
            r={5}
            fill="var(--color-ink)"
          />
        ))}
      <text
        x={scale.x(0) + 8}
        y={scale.y(-half) + 22}
        fontSize={14}
        className="font-sign"
        fontWeight={600}
        fill="var(--color-ink)"
        stroke="var(--color-paper)"
        strokeWidth={4}
        paintOrder="stroke"
      >
        {whenWords(moment)}: {words}
      </text>
    </g>
  );
}
