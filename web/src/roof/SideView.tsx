/** The roof from port, at the strip's scale and under it: lengthwise fall, heights, open lids, panels in the slipstream. */
import { useMemo } from "react";
import type { LidSwing, Raised, Rect } from "../api/types";
import { useEvaluation, useStoredJob, useUnits } from "../job/JobContext";
import { length } from "../ui/format";
import { boxes, stoodOn, tallest } from "./carriers";
import { pointAt, useCursor } from "./cursor";
import type { Mm, RoofScale } from "./geometry";
import { doubtAt, heightAt, path, samples } from "./profile";

const LEAST = 92;
const UNDER = 16;

export function SideView({ scale }: { scale: RoofScale }) {
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const { survey, roof, shapes, feet } = evaluation.findings;
  const cursor = useCursor();
  const high = Math.max(LEAST, tallest(job) * scale.pxPerMm + 2 * UNDER);
  const base = high - UNDER;
  const profile = useMemo(() => {
    const xs = samples({ from: 0, to: scale.length }, 80);
    const pz = (x: Mm, sigmas: number) =>
      base - (heightAt(survey.crown, x, 0) + sigmas * doubtAt(survey.crown, x, 0)) * scale.pxPerMm;
    return {
      top: path(xs.map((x) => [scale.x(x), pz(x, 0)] as const)),
      band: `${path([...xs.map((x) => [scale.x(x), pz(x, 2)] as const), ...xs.toReversed().map((x) => [scale.x(x), pz(x, -2)] as const)])}Z`,
    };
  }, [scale, survey.crown, base]);
  if (!roof) return null;
  const z = (x: Mm, above: Mm, y: Mm = 0) => base - (heightAt(survey.crown, x, y) + above) * scale.pxPerMm;
  const rects = new Map(shapes.map((s) => [s.id, s.rect]));
  const raisedOf = new Map(shapes.map((s) => [s.id, s.raised]));
  const swings = new Map(survey.lids.map((l) => [l.obstacle, l]));
  const measured = job.survey.crown.lengthwise.length > 0;
  const x = cursor?.x ?? null;
  return (
    <svg
      width={scale.width}
      height={high}
      className="block"
      role="img"
      aria-label="Roof from port, front to the left"
      onPointerMove={(event) => {
        const frame = event.currentTarget.getBoundingClientRect();
        pointAt({ x: scale.mmX(event.clientX - frame.left), y: cursor?.y ?? 0, inside: true });
      }}
      onPointerLeave={() => pointAt(null)}
    >
      {measured && <path d={profile.band} fill="var(--color-band)" opacity={0.18} />}
      <path
        d={profile.top}
        fill="none"
        stroke={measured ? "var(--color-chalk)" : "var(--color-ink)"}
        strokeWidth={2}
        strokeDasharray={measured ? undefined : "5 4"}
      />
      {job.survey.sections.map((section) => (
        <path
          key={section.id}
          d={path([
            [scale.x(section.x.mm), z(section.x.mm, 0)],
            [scale.x(section.x.mm), z(section.x.mm, section.step.mm)],
            [scale.x(section.x.mm + section.length.mm), z(section.x.mm + section.length.mm, section.step.mm)],
            [scale.x(section.x.mm + section.length.mm), z(section.x.mm + section.length.mm, 0)],
          ])}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth={1.2}
        >
          <title>{section.name}</title>
        </path>
      ))}
      {job.obstacles
        .filter((o) => o.stays)
        .map((obstacle) => {
          const rect = rects.get(obstacle.id);
          if (!rect) return null;
          const foot = z(rect.x_mm + rect.length_mm / 2, 0, rect.y_mm + rect.width_mm / 2);
          const tall = obstacle.height.mm * scale.pxPerMm;
          const swing = swings.get(obstacle.id);
          return (
            <g key={obstacle.id}>
              <rect
                x={scale.x(rect.x_mm)}
                y={foot - tall}
                width={scale.size(rect.length_mm)}
                height={tall}
                fill="url(#hatch)"
                stroke="var(--color-ink)"
                strokeWidth={1.2}
              >
                <title>{`${obstacle.name}, ${length(obstacle.height.mm, units)} high`}</title>
              </rect>
              {swing && <OpenLid swing={swing} rect={rect} foot={foot} scale={scale} />}
            </g>
          );
        })}
      {job.carriers
        .flatMap((carrier) => boxes(carrier, feet))
        .map((box) => {
          const foot = z((box.x[0] + box.x[1]) / 2, box.z[0], box.over);
          const thick = Math.max((box.z[1] - box.z[0]) * scale.pxPerMm, 2);
          return (
            <rect
              key={box.key}
              x={scale.x(box.x[0])}
              y={foot - thick}
              width={scale.size(box.x[1] - box.x[0])}
              height={thick}
              fill="var(--color-paper)"
              stroke="var(--color-ink)"
              strokeWidth={1}
            />
          );
        })}
      {job.panels.map((panel) => {
        const rect = rects.get(panel.id);
        if (!rect) return null;
        const thick = Math.max(panel.model.frame_height.mm * scale.pxPerMm, 2);
        const under = stoodOn(job.carriers.find((c) => c.id === panel.carrier)) ?? rect.y_mm + rect.width_mm / 2;
        const foot = z(rect.x_mm + rect.length_mm / 2, panel.stand_off.mm, under);
        const raised = raisedOf.get(panel.id);
        return (
          <g key={panel.id}>
            <rect
              x={scale.x(rect.x_mm)}
              y={foot - thick}
              width={scale.size(rect.length_mm)}
              height={thick}
              fill="var(--color-ink)"
            />
            {raised && <RaisedPanel raised={raised} top={foot - thick} scale={scale} />}
          </g>
        );
      })}
      {x !== null && x >= 0 && x <= scale.length && (
        <line
          x1={scale.x(x)}
          x2={scale.x(x)}
          y1={0}
          y2={high}
          stroke="var(--color-chalk)"
          strokeWidth={0.8}
          pointerEvents="none"
        />
      )}
      {[20, 44, 68].map((y) => (
        <path
          key={y}
          d={`M2 ${y} h11 m-4 -3.5 l4.5 3.5 l-4.5 3.5`}
          stroke="var(--color-ink)"
          strokeWidth={1.3}
          fill="none"
        />
      ))}
      <text x={4} y={high - 4} className="font-sign text-[12px] fill-soft">
        {measured ? "from port" : "from port; lengthwise not measured"}
      </text>
    </svg>
  );
}

/** A lid hinged in front or behind is a line leaning over; one hinged at a side is seen edge on. */
function OpenLid({ swing, rect, foot, scale }: { swing: LidSwing; rect: Rect; foot: number; scale: RoofScale }) {
  const hinge = foot - swing.hinge_height_mm * scale.pxPerMm;
  const tip = foot - swing.tip_height_mm * scale.pxPerMm;
  const front = scale.x(rect.x_mm);
  const rear = scale.x(rect.x_mm + rect.length_mm);
  const lean = swing.lean_mm * scale.pxPerMm;
  const d =
    swing.hinge === "front"
      ? `M${front} ${hinge} L${front - lean} ${tip}`
      : swing.hinge === "rear"
        ? `M${rear} ${hinge} L${rear + lean} ${tip}`
        : `M${front} ${hinge} V${tip} H${rear} V${hinge}`;
  return <path d={d} fill="none" stroke="var(--color-ink)" strokeWidth={1.6} strokeDasharray="3 3" />;
}

/** A panel as it stands when raised: a leaning line where it turns about its front or rear edge, else seen broadside. */
function RaisedPanel({ raised, top, scale }: { raised: Raised; top: number; scale: RoofScale }) {
  const front = scale.x(raised.rect.x_mm);
  const rear = scale.x(raised.rect.x_mm + raised.rect.length_mm);
  const tip = top - raised.rise_mm * scale.pxPerMm;
  const low = top - raised.low_mm * scale.pxPerMm;
  const d =
    raised.up === "front"
      ? `M${rear} ${low} L${front} ${tip}`
      : raised.up === "rear"
        ? `M${front} ${low} L${rear} ${tip}`
        : `M${front} ${low} V${tip} H${rear} V${low}Z`;
  return <path d={d} fill="none" stroke="var(--color-ink)" strokeWidth={1.6} strokeDasharray="3 3" />;
}
