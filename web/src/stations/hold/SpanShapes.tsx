/** Bars under feet, from member to member. */
import { useEvaluation, useStoredJob } from "../../job/JobContext";
import { breadth } from "../../roof/carriers";
import type { LayerProps } from "../../roof/layer";

const THIN_PX = 4;

export function SpanShapes({ scale }: LayerProps) {
  const job = useStoredJob();
  const { feet } = useEvaluation().findings;
  return (
    <g pointerEvents="none">
      {job.panels.flatMap((panel) => {
        const ends = feet.filter((f) => f.panel === `${panel.id}-ends`);
        const high = panel.span ? Math.max(scale.size(breadth(panel.span.section)), THIN_PX) : THIN_PX;
        return feet
          .filter((f) => f.panel === panel.id && f.landing === "bar")
          .map((foot) => {
            const line = ends.filter((end) => Math.abs(end.y_mm - foot.y_mm) < 1).map((end) => end.x_mm);
            const front = Math.max(...line.filter((x) => x <= foot.x_mm));
            const rear = Math.min(...line.filter((x) => x > foot.x_mm));
            return (
              Number.isFinite(rear - front) && (
                <rect
                  key={`${panel.id} ${foot.foot}`}
                  x={scale.x(front)}
                  width={scale.size(rear - front)}
                  y={scale.y(foot.y_mm) - high / 2}
                  height={high}
                  fill="var(--color-paper)"
                  stroke="var(--color-ink)"
                  strokeWidth={1.3}
                />
              )
            );
          });
      })}
    </g>
  );
}
