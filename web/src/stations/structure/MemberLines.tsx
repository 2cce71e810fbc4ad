import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import type { LayerProps } from "../../roof/layer";
import { KIND_WORDS } from "../../roof/names";
import { length } from "../../ui/format";

const SURE = 0.9;

/** Members: inferred, so dashed, each with its 95 % band. */
export function MemberLines({ scale }: LayerProps) {
  const fit = useFinding("members");
  const top = scale.y(-scale.across / 2);
  const high = scale.size(scale.across);
  const crowded = fit.members.length > 1 && scale.size(fit.pitch_mm ?? 500) < 26;
  return (
    <g pointerEvents="none" aria-hidden="true">
      {fit.members.map((member) => {
        const wide = Math.max(scale.size(member.band_high_mm - member.band_low_mm), 1);
        return (
          <g key={member.number} transform={`translate(${scale.x(member.x_mm)} ${top})`}>
            <rect x={-wide / 2} width={wide} height={high} fill="var(--color-band)" opacity={0.2} />
            <line
              y2={high + 3}
              stroke="var(--color-chalk)"
              strokeWidth={1.3}
              strokeDasharray={member.status === "read" ? "7 4" : "3 5"}
              opacity={member.confidence < SURE ? 0.55 : 1}
            />
            {(!crowded || member.number % 2 === 1) && (
              <text
                y={high + 14}
                textAnchor="middle"
                className="font-sign font-semibold text-[13.5px]"
                fill="var(--color-chalk)"
              >
                m{member.number}
                {member.confidence < SURE ? "?" : ""}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Readings: measured, so solid with a tick. Struck ones fade, rejected ones carry a cross. */
export function ReadingTicks({ scale }: LayerProps) {
  const { selection } = useDesk();
  const job = useStoredJob();
  const members = useFinding("members");
  const units = useUnits();
  const rejected = new Set(members.rejected.map((r) => r.reading));
  const top = scale.y(-scale.across / 2);
  return (
    <g>
      {job.readings.map((reading) => {
        const bad = rejected.has(reading.id);
        const path = `readings.${reading.id}`;
        const through = reading.kind === "pilot_through";
        const words = `Reading ${length(reading.x.mm, units)}, ${KIND_WORDS[reading.kind]}${reading.struck ? ", struck out" : bad ? ", left out of the fit" : ""}`;
        return (
          <g
            key={reading.id}
            aria-hidden="true"
            transform={`translate(${scale.x(reading.x.mm)} ${top - 3})`}
            opacity={reading.struck ? 0.4 : 1}
          >
            <title>{words}</title>
            <rect
              x={-5}
              y={-20}
              width={10}
              height={20}
              fill={selection === path ? "var(--color-tape)" : "transparent"}
            />
            <line y1={0} y2={-12} stroke="var(--color-chalk)" strokeWidth={2.2} />
            {bad ? (
              <path d="M-4 -20 l8 8 m0 -8 l-8 8" stroke="var(--color-chalk)" strokeWidth={1.8} />
            ) : through ? (
              <circle cy={-16} r={3.4} fill="var(--color-paper)" stroke="var(--color-chalk)" strokeWidth={1.6} />
            ) : (
              <line x1={-4} x2={4} y1={-12} y2={-12} stroke="var(--color-chalk)" strokeWidth={2.2} />
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Scans: a bracket over the stretch that was searched. */
export function ScanBrackets({ scale }: LayerProps) {
  const { selection } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const top = scale.y(-scale.across / 2);
  return (
    <g aria-hidden="true">
      {job.scans.map((scan) => {
        const low = scale.x(Math.min(scan.start.mm, scan.end.mm));
        const high = scale.x(Math.max(scan.start.mm, scan.end.mm));
        return (
          <path
            key={scan.id}
            d={`M${low} ${top - 3} v-6 H${high} v6`}
            fill="none"
            stroke="var(--color-chalk)"
            strokeWidth={selection === `scans.${scan.id}` ? 3 : 1.4}
            opacity={scan.struck ? 0.35 : 0.8}
          >
            <title>{`searched by ${KIND_WORDS[scan.kind]}, ${length(scan.start.mm, units)} to ${length(scan.end.mm, units)}`}</title>
          </path>
        );
      })}
    </g>
  );
}

/** The flag of the next check, over the stretch to search. */
export function CheckFlag({ scale }: LayerProps) {
  const { go } = useDesk();
  const next_check = useFinding("next_check");
  const check = next_check;
  if (!check || check.enough || check.x_mm === null || check.x_mm === undefined) return null;
  const top = scale.y(-scale.across / 2);
  const x = scale.x(check.x_mm);
  const low = scale.x(check.start_mm ?? check.x_mm);
  const high = scale.x(check.end_mm ?? check.x_mm);
  return (
    <g
      role="button"
      tabIndex={-1}
      aria-label={`Check here next. ${check.words}`}
      className="cursor-pointer outline-none group"
      onClick={() => go("structure")}
      onKeyDown={(event) => event.key === "Enter" && go("structure")}
    >
      <title>{check.words}</title>
      <rect
        x={low}
        width={Math.max(high - low, 3)}
        y={top}
        height={scale.size(scale.across)}
        fill="var(--color-tape)"
        opacity={0.35}
      />
      <path
        d={`M${x} ${top + 4} V${top - 24} h20 l-5 6 l5 6 h-20`}
        fill="var(--color-tape)"
        stroke="var(--color-ink)"
        strokeWidth={1.6}
        className="group-focus-visible:stroke-[3px]"
      />
    </g>
  );
}
