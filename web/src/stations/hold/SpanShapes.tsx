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
        return ends
          .filter((end) => end.foot.endsWith("a"))
          .map((front) => {
            const rear = ends.find((end) => end.foot === `${front.foot.slice(0, -1)}b`);
            return (
              rear && (
                <rect
                  key={`${panel.id} ${front.foot}`}
                  x={scale.x(front.x_mm)}
                  width={scale.size(rear.x_mm - front.x_mm)}
                  y={scale.y(front.y_mm) - high / 2}
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
