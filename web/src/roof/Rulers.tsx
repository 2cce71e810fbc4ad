import type { Units } from "../api/types";
import { acrossTicks, type RoofScale, ruler } from "./geometry";

/** Rulers from the datum: along under the roof, across at its front. */
export function Rulers({ scale, units }: { scale: RoofScale; units: Units }) {
  const bottom = scale.y(scale.across / 2);
  const left = scale.x(0);
  return (
    <g pointerEvents="none" aria-hidden="true" stroke="var(--color-chalk)" className="font-sign text-[12px]">
      {ruler(scale.length, units).map((tick) => (
        <g key={tick.mm} transform={`translate(${scale.x(tick.mm)} ${bottom + 18})`}>
          <line y2={tick.label ? 8 : 4} strokeWidth={1} />
          {tick.label && (
            <text y={19} textAnchor="middle" stroke="none" fill="var(--color-chalk)">
              {tick.label}
              {tick.mm === 0 && units === "metric" ? " m" : ""}
            </text>
          )}
        </g>
      ))}
      {acrossTicks(scale.across, units).map((tick) => (
        <g key={tick.mm} transform={`translate(${left - 2} ${scale.y(tick.mm)})`}>
          <line x2={tick.label ? -8 : -4} strokeWidth={1} />
          {tick.label && (
            <text x={-11} y={4} textAnchor="end" stroke="none" fill="var(--color-chalk)">
              {tick.label}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}
