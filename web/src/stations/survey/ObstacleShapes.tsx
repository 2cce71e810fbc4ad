import type { Rect } from "../../api/types";
import { useDesk, useEvaluation, useStoredJob, useUnits } from "../../job/JobContext";
import { nameFits } from "../../roof/geometry";
import type { LayerProps } from "../../roof/layer";
import { obstacleName } from "../../roof/names";
import { ringPath } from "./SurveyShapes";

const corners = (r: Rect) => [
  { x_mm: r.x_mm, y_mm: r.y_mm },
  { x_mm: r.x_mm + r.length_mm, y_mm: r.y_mm },
  { x_mm: r.x_mm + r.length_mm, y_mm: r.y_mm + r.width_mm },
  { x_mm: r.x_mm, y_mm: r.y_mm + r.width_mm },
];

/** Obstacles hatched, the strip an open lid needs dashed. */
export function ObstacleShapes({ scale }: LayerProps) {
  const { selection, go } = useDesk();
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const shapes = new Map(evaluation.findings.shapes.map((s) => [s.id, s]));
  return (
    <g>
      <defs>
        <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line y2="7" stroke="var(--color-hair)" strokeWidth="1.6" />
        </pattern>
      </defs>
      {job.obstacles.map((obstacle) => {
        const shape = shapes.get(obstacle.id);
        if (!shape) return null;
        const { rect, lid } = shape;
        const path = `obstacles.${obstacle.id}`;
        const wide = scale.size(rect.length_mm);
        return (
          <g
            key={obstacle.id}
            role="button"
            tabIndex={-1}
            aria-label={obstacleName(obstacle, units)}
            className="cursor-pointer outline-none group"
            onClick={() => go("survey", path)}
            onKeyDown={(event) => {
              if (event.key === "Enter" || event.key === " ") go("survey", path);
            }}
          >
            {lid && (
              <rect
                x={scale.x(lid.x_mm)}
                y={scale.y(lid.y_mm)}
                width={scale.size(lid.length_mm)}
                height={scale.size(lid.width_mm)}
                fill="none"
                stroke="var(--color-ink)"
                strokeWidth={1}
                strokeDasharray="3 3"
              />
            )}
            <path
              d={ringPath(scale, shape.ring.length ? shape.ring : corners(rect))}
              fill={selection === path ? "var(--color-tape)" : "url(#hatch)"}
              stroke="var(--color-ink)"
              strokeWidth={1.2}
              strokeDasharray={obstacle.stays ? undefined : "2 3"}
              opacity={obstacle.stays ? 1 : 0.6}
              className="group-focus-visible:stroke-[4px]"
            />
            <text
              x={scale.x(rect.x_mm) + wide / 2}
              y={scale.y(rect.y_mm) - 4}
              textAnchor="middle"
              className="font-sign font-medium text-[12.5px] fill-ink"
              stroke="var(--color-paper)"
              strokeWidth={3}
              paintOrder="stroke"
            >
              {nameFits(obstacle.name, wide + 26) ? obstacle.name : ""}
            </text>
          </g>
        );
      })}
    </g>
  );
}
