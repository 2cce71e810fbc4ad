/** The roof cut across at the cursor, seen from behind: crown, panels with their gap, obstacles, points, lines. To scale. */
import { useDesk, useEvaluation, useStoredJob, useUnits } from "../job/JobContext";
import { length } from "../ui/format";
import { boxes, stoodOn, tallest } from "./carriers";
import { useCursor } from "./cursor";
import type { Mm } from "./geometry";
import { cutAcross, doubtAt, heightAt, path, raisedLine, samples } from "./profile";

const WIDTH = 196;
const LEAST = 108;
const UNDER = 40;
const MARGIN = 8;
const HEADROOM_MM = 420;

export function CrossSection() {
  const { selection } = useDesk();
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const cursor = useCursor();
  const { survey, roof, shapes, lines, feet } = evaluation.findings;
  if (!roof) return null;
  const chosen = shapes.find((s) => s.id === selection?.split(".")[1])?.rect;
  const rest = chosen ? chosen.x_mm + chosen.length_mm / 2 : roof.length_mm / 2;
  const x = Math.min(Math.max(cursor?.x ?? rest, 0), roof.length_mm);
  const cut = cutAcross(survey.outline, x) ?? { low: roof.y_mm, high: roof.y_mm + roof.width_mm };
  const scale = (WIDTH - 2 * MARGIN) / roof.width_mm;
  const middle = heightAt(survey.crown, x, 0);
  const high = Math.max(LEAST, tallest(job) * scale + UNDER + MARGIN);
  const base = high - UNDER + 10;
  const px = (y: Mm) => WIDTH / 2 + y * scale;
  const pz = (z: Mm) => base - (z - middle) * scale - 10;
  const ys = samples({ from: cut.low, to: cut.high }, 40);
  const top = ys.map((y) => [px(y), pz(heightAt(survey.crown, x, y))] as const);
  const band = [
    ...ys.map((y) => [px(y), pz(heightAt(survey.crown, x, y) + 2 * doubtAt(survey.crown, x, y))] as const),
    ...ys.toReversed().map((y) => [px(y), pz(heightAt(survey.crown, x, y) - 2 * doubtAt(survey.crown, x, y))] as const),
  ];
  const cutBy = (rect: { x_mm: number; length_mm: number }) => x >= rect.x_mm && x <= rect.x_mm + rect.length_mm;
  const obstacles = new Map(job.obstacles.map((o) => [o.id, o]));
  const panels = new Map(job.panels.map((p) => [p.id, p]));
  return (
    <svg width={WIDTH} height={high} role="img" aria-label={`Cross-section at ${length(x, units)}, seen from behind`}>
      {survey.crown && <path d={`${path(band)}Z`} fill="var(--color-band)" opacity={0.18} />}
      <path
        d={path(top)}
        fill="none"
        stroke={survey.crown ? "var(--color-chalk)" : "var(--color-ink)"}
        strokeWidth={2}
        strokeDasharray={survey.crown ? undefined : "5 4"}
      />
      {shapes
        .filter((s) => cutBy(s.rect))
        .map((shape) => {
          const low = shape.rect.y_mm;
          const high = low + shape.rect.width_mm;
          const obstacle = obstacles.get(shape.id);
          const panel = panels.get(shape.id);
          if (obstacle) {
            const foot = pz(heightAt(survey.crown, x, (low + high) / 2));
            const tall = Math.min(obstacle.height.mm, HEADROOM_MM) * scale;
            return (
              <rect
                key={shape.id}
                x={px(low)}
                width={(high - low) * scale}
                y={foot - tall}
                height={tall}
                fill="url(#hatch)"
                stroke="var(--color-ink)"
                strokeWidth={1.2}
              />
            );
          }
          if (!panel) return null;
          const rail = stoodOn(job.carriers.find((c) => c.id === panel.carrier));
          const ends = [low, high].map((y) => pz(heightAt(survey.crown, x, rail ?? y) + panel.stand_off.mm)) as [
            number,
            number,
          ];
          const thick = Math.max(panel.model.frame_height.mm * scale, 2);
          const raised = shape.raised && raisedLine(shape.raised, x);
          return (
            <g key={shape.id}>
              <path
                d={`${path([
                  [px(low), ends[0]],
                  [px(high), ends[1]],
                  [px(high), ends[1] - thick],
                  [px(low), ends[0] - thick],
                ])}Z`}
                fill="var(--color-ink)"
              />
              {raised && (
                <path
                  d={path(raised.map(([y, rise]) => [px(y), Math.min(...ends) - thick - rise * scale] as const))}
                  fill="none"
                  stroke="var(--color-ink)"
                  strokeWidth={1.6}
                  strokeDasharray="3 3"
                />
              )}
            </g>
          );
        })}
      {job.carriers
        .flatMap((carrier) => boxes(carrier, feet))
        .filter((box) => box.x[0] <= x && x <= box.x[1])
        .map((box) => {
          const foot = pz(heightAt(survey.crown, x, box.over) + box.z[0]);
          const thick = Math.max((box.z[1] - box.z[0]) * scale, 2);
          return (
            <rect
              key={box.key}
              x={px(box.y[0])}
              y={foot - thick}
              width={(box.y[1] - box.y[0]) * scale}
              height={thick}
              fill="var(--color-paper)"
              stroke="var(--color-ink)"
              strokeWidth={1}
            />
          );
        })}
      {survey.rows.flatMap((row) =>
        row.points
          .filter((point) => Math.abs(point.x_mm - x) < 60)
          .map((point) => (
            <circle
              key={`${row.row} ${point.count}`}
              cx={px(point.y_mm)}
              cy={pz(heightAt(survey.crown, x, point.y_mm))}
              r={3}
              fill={point.usable ? "var(--color-chalk)" : "var(--color-paper)"}
              stroke="var(--color-chalk)"
            />
          )),
      )}
      {lines.sides.map((line) => {
        const y = line.side === "port" ? -line.offset_mm : line.offset_mm;
        const z = pz(heightAt(survey.crown, x, y));
        return (
          <path key={line.side} d={`M${px(y)} ${z + 5} V${z - 9}`} stroke="var(--color-chalk)" strokeWidth={1.6} />
        );
      })}
      <path d={`M${px(0)} ${base + 4} v6`} stroke="var(--color-chalk)" />
      <text x={WIDTH / 2} y={high - 5} textAnchor="middle" className="font-sign font-semibold text-[12.5px] fill-chalk">
        {length(x, units)} aft{survey.crown ? "" : ", flat"}
      </text>
      <text x={px(cut.low)} y={high - 5} className="font-sign text-[12px] fill-soft">
        port
      </text>
      <text x={px(cut.high)} y={high - 5} textAnchor="end" className="font-sign text-[12px] fill-soft">
        stb
      </text>
    </svg>
  );
}
