/** A small roof to compare layouts by: edge, obstacles, panels; to scale, front to the left. */
import type { Rect } from "../../api/types";
import { useEvaluation } from "../../job/JobContext";

export function MiniRoof({ rects, label }: { rects: readonly Rect[]; label: string }) {
  const evaluation = useEvaluation();
  const { roof, survey, shapes } = evaluation.findings;
  if (!roof) return null;
  const pad = roof.length_mm * 0.01;
  const edge = survey.outline.map((p) => `${p.x_mm},${p.y_mm}`).join(" ");
  return (
    <svg
      role="img"
      aria-label={label}
      className="w-full block"
      viewBox={`${-pad} ${roof.y_mm - pad} ${roof.length_mm + 2 * pad} ${roof.width_mm + 2 * pad}`}
    >
      <polygon points={edge} fill="var(--color-paper)" stroke="var(--color-ink)" strokeWidth={18} />
      {shapes
        .filter((s) => s.kind === "obstacle")
        .map(({ id, rect: r }) => (
          <rect key={id} x={r.x_mm} y={r.y_mm} width={r.length_mm} height={r.width_mm} fill="var(--color-hair)" />
        ))}
      {rects.map((r) => (
        <rect
          key={`${r.x_mm} ${r.y_mm}`}
          x={r.x_mm}
          y={r.y_mm}
          width={r.length_mm}
          height={r.width_mm}
          fill="var(--color-ink)"
          fillOpacity={0.22}
          stroke="var(--color-ink)"
          strokeWidth={16}
        />
      ))}
    </svg>
  );
}
