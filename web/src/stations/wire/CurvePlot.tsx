/** Current over voltage as ink, power as a hatched hill, the controller's window as tape, its working point as a plumb line. */
import type { ArrayCurve } from "../../api/types";
import { plotOf } from "./plot";

const W = 620;
const H = 270;

export function CurvePlot({ curve }: { curve: ArrayCurve }) {
  const plot = plotOf(curve, W, H);
  const at = { x: plot.x(curve.at_v), y: plot.yPower(curve.at_w) };
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="w-full max-w-[760px]"
      role="img"
      aria-label={`Curves of ${curve.name}: works at ${curve.at_v.toFixed(1)} volts and ${Math.round(curve.at_w)} watts`}
    >
      <defs>
        <pattern id="wire-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V5" stroke="var(--color-ink)" strokeWidth="0.7" opacity="0.35" />
        </pattern>
      </defs>
      <rect
        x={plot.x(curve.low_v)}
        y={plot.top}
        width={Math.max(plot.x(Math.min(curve.high_v ?? plot.mostV, plot.mostV)) - plot.x(curve.low_v), 0)}
        height={plot.base - plot.top}
        fill="var(--color-tape)"
        opacity={0.35}
      />
      <path d={plot.power} fill="url(#wire-hatch)" stroke="var(--color-ink)" strokeWidth={1} strokeDasharray="5 3" />
      {plot.strings.map((s) => (
        <path key={s.id} d={s.path} fill="none" stroke="var(--color-ink)" strokeWidth={1} opacity={0.55} />
      ))}
      <path d={plot.joined} fill="none" stroke="var(--color-ink)" strokeWidth={2.4} />
      {curve.maxima.map(({ volts, watts }) => (
        <circle
          key={volts}
          cx={plot.x(volts)}
          cy={plot.yPower(watts)}
          r={3.5}
          fill="var(--color-paper)"
          stroke="var(--color-ink)"
        />
      ))}
      <path d={`M${at.x} ${plot.base}V${at.y - 10}`} stroke="var(--color-ink)" strokeWidth={1.6} />
      <path d={`M${at.x - 6} ${at.y - 14}h12l-6 9z`} fill="var(--color-ink)" />
      <g fontSize={12} fill="var(--color-ink)">
        {plot.ticksV.map((v) => (
          <g key={v}>
            <path d={`M${plot.x(v)} ${plot.base}v5`} stroke="var(--color-ink)" />
            <text x={plot.x(v)} y={plot.base + 17} textAnchor="middle">
              {v}
            </text>
          </g>
        ))}
        <text x={W - 4} y={plot.base + 30} textAnchor="end">
          volts
        </text>
        {plot.ticksA.map((a) => (
          <g key={a}>
            <path d={`M${plot.left} ${plot.yAmps(a)}h-5`} stroke="var(--color-ink)" />
            <text x={plot.left - 8} y={plot.yAmps(a) + 4} textAnchor="end">
              {a}
            </text>
          </g>
        ))}
        <text x={plot.left - 8} y={plot.top - 6} textAnchor="end">
          A
        </text>
        <text
          x={at.x + (at.x > W * 0.7 ? -10 : 10)}
          y={at.y + 34}
          textAnchor={at.x > W * 0.7 ? "end" : "start"}
          fontWeight={600}
          fontSize={14}
          stroke="var(--color-paper)"
          strokeWidth={4}
          paintOrder="stroke"
        >
          {Math.round(curve.at_w)} W at {curve.at_v.toFixed(1)} V
        </text>
      </g>
      <path
        d={`M${plot.left} ${plot.top}V${plot.base}H${W - 4}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={1.2}
      />
    </svg>
  );
}
