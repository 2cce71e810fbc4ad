/** What the survey found, on the strip: the true edge, where it falls away, reach, points, scars, lines under the skin. */
import type { Findings } from "../../api/types";
import { useDesk, useEvaluation, useStoredJob, useUnits } from "../../job/JobContext";
import type { RoofScale } from "../../roof/geometry";
import type { LayerProps } from "../../roof/layer";
import { length } from "../../ui/format";

type Ring = readonly { x_mm: number; y_mm: number }[];

export const ringPath = (scale: RoofScale, ring: Ring): string =>
  ring.length
    ? `${ring.map((p, i) => `${i ? "L" : "M"}${scale.x(p.x_mm).toFixed(1)} ${scale.y(p.y_mm).toFixed(1)}`).join("")}Z`
    : "";

/** Under everything else: outline, flat area, what the ladder does not reach, raised and lowered parts. */
export function RoofGround({ scale }: LayerProps) {
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const { survey } = evaluation.findings;
  const outline = ringPath(scale, survey.outline);
  const limited = survey.reach && survey.reach.share < 0.999;
  return (
    <g aria-hidden="true" pointerEvents="none">
      <defs>
        <pattern id="beyond" width="6" height="6" patternUnits="userSpaceOnUse">
          <circle cx="3" cy="3" r="0.9" fill="var(--color-hair)" />
        </pattern>
        <clipPath id="roof-edge">
          <path d={outline} />
        </clipPath>
      </defs>
      <path d={outline} fill="var(--color-paper)" />
      {limited && (
        <path
          d={`${outline}${survey.reach?.areas.map((a) => ringPath(scale, a)).join("") ?? ""}`}
          fill="url(#beyond)"
          fillRule="evenodd"
        >
          <title>out of reach from the ladder</title>
        </path>
      )}
      {job.survey.sections.map((section) => (
        <g key={section.id} clipPath={section.kind === "arch" ? undefined : "url(#roof-edge)"}>
          <rect
            x={scale.x(section.x.mm)}
            y={scale.y(section.y.mm - section.width.mm / 2)}
            width={scale.size(section.length.mm)}
            height={scale.size(section.width.mm)}
            fill={section.step.mm < 0 ? "var(--color-ground)" : "var(--color-sheet)"}
            stroke="var(--color-ink)"
            strokeWidth={0.9}
          />
          <text
            x={scale.x(section.x.mm + section.length.mm) - 5}
            textAnchor="end"
            y={scale.y(section.y.mm - section.width.mm / 2) + 13}
            className="font-sign text-[12px] fill-soft"
          >
            {scale.size(section.length.mm) > 60
              ? `${section.name} ${section.step.mm > 0 ? "+" : ""}${length(section.step.mm, units)}`
              : ""}
          </text>
        </g>
      ))}
      <path d={outline} fill="none" stroke="var(--color-ink)" strokeWidth={2} />
      {job.survey.outline.side_fall.mm + job.survey.outline.front_fall.mm + job.survey.outline.rear_fall.mm > 0 && (
        <path
          d={ringPath(scale, survey.flat)}
          fill="none"
          stroke="var(--color-soft)"
          strokeWidth={0.9}
          strokeDasharray="1 3"
        />
      )}
    </g>
  );
}

/** Over the panels: what must be seen wherever it is. */
export function RoofMarks({ scale }: LayerProps) {
  const { go, selection } = useDesk();
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const { survey, lines } = evaluation.findings;
  const scars = new Map(job.survey.scars.map((s) => [s.id, s]));
  return (
    <g>
      {survey.keep_outs.map((strip) => (
        <path
          key={strip.id}
          d={ringPath(scale, strip.area)}
          fill="var(--color-signal)"
          fillOpacity={0.13}
          stroke="var(--color-signal)"
          strokeWidth={1}
          strokeDasharray="4 3"
          pointerEvents="none"
        >
          <title>{`${strip.name}: no hole here`}</title>
        </path>
      ))}
      <Lines scale={scale} lines={lines} />
      {survey.rows.flatMap((row) =>
        row.points.map((point) => (
          <PointMark
            key={`${row.row} ${point.count}`}
            scale={scale}
            point={point}
            kind={row.kind}
            name={`${row.name}, count ${point.count}`}
          />
        )),
      )}
      {survey.seal_entries.map((entry) => {
        const chosen = selection === `survey.scars.${entry.scar}`;
        const name = `${entry.what}, ${entry.count} at ${length(entry.x_mm, units)}: to seal`;
        return (
          <g
            key={entry.scar}
            role="button"
            tabIndex={-1}
            aria-label={name}
            className="cursor-pointer outline-none group"
            transform={`translate(${scale.x(entry.x_mm)} ${scale.y(entry.y_mm)})`}
            onClick={() => go("survey", `survey.scars.${entry.scar}`)}
            onKeyDown={(event) => event.key === "Enter" && go("survey", `survey.scars.${entry.scar}`)}
          >
            <title>{name}</title>
            <circle
              r={8}
              fill={chosen ? "var(--color-tape)" : "transparent"}
              className="group-focus-visible:stroke-ink group-focus-visible:stroke-2"
            />
            {scars.get(entry.scar)?.kind.endsWith("panel") ? (
              <rect
                x={-7}
                y={-4}
                width={14}
                height={8}
                fill="none"
                stroke="var(--color-soft)"
                strokeWidth={1.4}
                strokeDasharray="3 2"
              />
            ) : (
              <path d="M-4 -4 L4 4 M-4 4 L4 -4" stroke="var(--color-soft)" strokeWidth={1.8} />
            )}
          </g>
        );
      })}
    </g>
  );
}

function PointMark({
  scale,
  point,
  kind,
  name,
}: {
  scale: RoofScale;
  point: Findings["survey"]["rows"][number]["points"][number];
  kind: string;
  name: string;
}) {
  const units = useUnits();
  const off = point.off_mm ? `, ${length(point.off_mm, units)} off its row` : "";
  const words = `${name}${point.measured ? off : ", not measured"}${point.usable ? "" : `, not usable ${point.why}`}`;
  return (
    <g transform={`translate(${scale.x(point.x_mm)} ${scale.y(point.y_mm)})`} aria-hidden="true">
      <title>{words}</title>
      {kind === "track" || kind === "gutter" ? (
        <rect
          x={-4}
          y={-2}
          width={8}
          height={4}
          fill={point.measured ? "var(--color-chalk)" : "var(--color-paper)"}
          stroke="var(--color-chalk)"
          strokeWidth={1.2}
        />
      ) : (
        <circle
          r={3.6}
          fill={point.measured ? "var(--color-chalk)" : "var(--color-paper)"}
          stroke="var(--color-chalk)"
          strokeWidth={1.4}
          strokeDasharray={point.measured ? undefined : "2 1.5"}
        />
      )}
      {!point.usable && <path d="M-6 -6 L6 6" stroke="var(--color-signal)" strokeWidth={2} />}
      {point.stray && point.usable && <path d="M0 -12 v6 M0 -4.4 v.1" stroke="var(--color-signal)" strokeWidth={2.2} />}
    </g>
  );
}

/** Mounting lines are planned, so thin ink; their marks are measured. */
function Lines({ scale, lines }: { scale: RoofScale; lines: Findings["lines"] }) {
  return (
    <g pointerEvents="none" aria-hidden="true">
      {lines.sides.map((line) => {
        const sign = line.side === "port" ? -1 : 1;
        return (
          <g key={line.side}>
            <line
              x1={scale.x(lines.chalk_front_x_mm ?? 0)}
              x2={scale.x(lines.chalk_rear_x_mm ?? 0)}
              y1={scale.y(sign * line.offset_mm)}
              y2={scale.y(sign * line.offset_mm)}
              stroke="var(--color-ink)"
              strokeWidth={1.3}
              strokeDasharray="10 3"
            />
            {line.marks.map((mark) => (
              <path
                key={mark.mark}
                d={`M${scale.x(mark.x_mm) - 4} ${scale.y(sign * mark.offset_mm)} h8`}
                stroke={mark.stray ? "var(--color-signal)" : "var(--color-chalk)"}
                strokeWidth={2.4}
              />
            ))}
          </g>
        );
      })}
    </g>
  );
}
