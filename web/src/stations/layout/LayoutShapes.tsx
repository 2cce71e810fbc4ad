/** What the layout adds to the strip: areas to keep free, pairs of leads, and the lines a dragged panel snaps to. */
import { useStoredJob } from "../../job/JobContext";
import type { LayerProps } from "../../roof/layer";

export function FreeAreas({ scale }: LayerProps) {
  const job = useStoredJob();
  return (
    <g pointerEvents="none">
      {job.keep_free.map((area) => {
        const x = scale.x(area.x.mm);
        const y = scale.y(area.y.mm - area.width.mm / 2);
        return (
          <g key={area.id}>
            <rect
              x={x}
              y={y}
              width={scale.size(area.length.mm)}
              height={scale.size(area.width.mm)}
              fill="var(--color-chalk)"
              fillOpacity={0.07}
              stroke="var(--color-chalk)"
              strokeDasharray="2 4"
            />
            <text x={x + 4} y={y + 13} className="font-sign font-semibold text-[12px] fill-chalk">
              {area.name}
            </text>
          </g>
        );
      })}
    </g>
  );
}

export function SnapLines({ scale, drag }: LayerProps) {
  return (
    <g pointerEvents="none" aria-hidden="true">
      {drag.moved?.lines.map((line) => {
        const low = Math.min(line.low_mm, line.axis === "x" ? -scale.across / 2 : 0);
        const high = Math.max(line.high_mm, line.axis === "x" ? scale.across / 2 : scale.length);
        const [x1, x2, y1, y2] =
          line.axis === "x"
            ? [scale.x(line.line_mm), scale.x(line.line_mm), scale.y(low), scale.y(high)]
            : [scale.x(low), scale.x(high), scale.y(line.line_mm), scale.y(line.line_mm)];
        return (
          <g key={`${line.axis} ${line.at_mm}`}>
            <line x1={x1} x2={x2} y1={y1} y2={y2} stroke="var(--color-chalk)" strokeWidth={1.6} strokeDasharray="6 3" />
            <text
              x={line.axis === "x" ? x1 + 4 : scale.x(scale.length) - 6}
              y={line.axis === "x" ? y1 + 11 : y1 - 4}
              textAnchor={line.axis === "x" ? "start" : "end"}
              className="font-sign font-semibold text-[13px] fill-chalk"
              stroke="var(--color-paper)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {line.words}
            </text>
          </g>
        );
      })}
    </g>
  );
}
