/** The plan as a road: days side by side, the weather over them, a lane for each person, what cures as a dashed tail. */
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { DayPlan, Findings, PlannedStep } from "../../api/types";
import { useDesk, useStoredJob, useUnits } from "../../job/JobContext";
import { temperature } from "../../ui/format";
import { pinEdits, unpinEdits } from "./pins";
import {
  type DayBox,
  dateOf,
  dayWords,
  hourOf,
  hourShare,
  lanesOf,
  momentAt,
  nextDay,
  type Road,
  roadOf,
  timeOf,
  whenWords,
  xOf,
} from "./road";

const WIDTH = 908;
const LEFT = 62;
const DAY_H = 22;
const SKY_H = 58;
const RULE_H = 9;
const LANE_H = 26;
const TAIL_H = 14;
type Hours = NonNullable<Findings["hours"]>;

export function RoadOfDays({
  plan,
  hours,
  picked,
  pick,
  stale,
}: {
  plan: DayPlan;
  hours: Hours | null;
  picked: string | null;
  pick: (step: string) => void;
  stale: boolean;
}) {
  const { days } = useStoredJob();
  const road = roadOf(
    plan,
    days.first ?? dateOf(plan.steps[0]?.starts ?? ""),
    LEFT,
    WIDTH,
    days.crew.flatMap((p) => [p.starts, p.ends]),
  );
  const lanes = lanesOf(
    plan,
    days.crew.map((p) => p.name),
  );
  const tails = plan.steps.filter(
    (s) => s.rests && ["lay", "stick", "seal", "scars", "coat", "coat first"].includes(s.kind),
  );
  const top = DAY_H + SKY_H + 3 * RULE_H + 4;
  const tailTop = top + lanes.length * LANE_H + 4;
  const height = tailTop + Math.max(tails.length, 1) * TAIL_H + 6;
  return (
    <div className="overflow-x-auto">
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="w-full min-w-[760px] block select-none"
        role="group"
        aria-label="Road of days"
        opacity={stale ? 0.6 : 1}
      >
        {road.days.map((box) => (
          <Day key={box.date} road={road} box={box} height={height} hours={hours} />
        ))}
        <Legend top={DAY_H + SKY_H} />
        {lanes.map((lane, i) => (
          <g key={lane.who}>
            <text x={0} y={top + i * LANE_H + 17} fontSize={14} className="font-sign" fill="var(--color-ink)">
              {lane.who.slice(0, 11)}
            </text>
            <line
              x1={LEFT}
              x2={WIDTH}
              y1={top + i * LANE_H + LANE_H - 3}
              y2={top + i * LANE_H + LANE_H - 3}
              stroke="var(--color-hair)"
              strokeWidth={0.7}
            />
            {lane.steps.map((step) => (
              <Block
                key={step.id}
                step={step}
                road={road}
                y={top + i * LANE_H}
                on={picked === step.id}
                pick={pick}
                first={step.persons[0] === lane.who}
              />
            ))}
          </g>
        ))}
        {tails.map((step, i) => (
          <Tail key={step.id} step={step} road={road} y={tailTop + i * TAIL_H} />
        ))}
        {plan.finish && <Flag x={xOf(road, plan.finish)} bottom={height} words={timeOf(plan.finish)} />}
      </svg>
    </div>
  );
}

/** A day's name, its light and its weather; what the weather allows as three rules under it. */
function Day({ road, box, height, hours }: { road: Road; box: DayBox; height: number; hours: Hours | null }) {
  const offset = hours ? daysFrom(hours.starts, box.date) * 24 : -1;
  const at = (hour: number) => (hours && offset >= 0 && offset + hour < hours.light.length ? offset + hour : null);
  const x = (hour: number) => box.x + hourShare(road, hour) * box.width;
  const each = Array.from({ length: 24 }, (_, h) => h);
  return (
    <g>
      <rect
        x={box.x}
        y={DAY_H}
        width={box.width}
        height={height - DAY_H}
        fill="var(--color-paper)"
        opacity={box.busy ? 0.9 : 0.35}
      />
      <line x1={box.x} x2={box.x} y1={0} y2={height} stroke="var(--color-ink)" strokeWidth={1} />
      <text
        x={box.x + 4}
        y={15}
        fontSize={box.busy ? 15 : 12}
        className="font-sign"
        fontWeight={600}
        fill="var(--color-ink)"
      >
        {box.busy ? dayWords(box.date) : box.width > 18 ? dayWords(box.date).slice(0, box.width > 30 ? 3 : 2) : ""}
      </text>
      {hours &&
        each.map((h) => {
          const i = at(h);
          if (i === null) return null;
          const wide = x(h + 1) - x(h);
          return (
            <g key={h} aria-hidden="true">
              {!hours.light[i] && (
                <rect
                  x={x(h)}
                  y={DAY_H}
                  width={wide}
                  height={SKY_H}
                  fill="var(--color-ink)"
                  opacity={0.16}
                  shapeRendering="crispEdges"
                />
              )}
              {(hours.rain_mm[i] ?? 0) >= 0.1 && <Rain x={x(h)} width={wide} mm={hours.rain_mm[i] ?? 0} />}
              {hours.air_c[i] === null && (
                <rect x={x(h)} y={DAY_H} width={wide + 0.3} height={SKY_H} fill="url(#not-known)" />
              )}
              {[hours.roof, hours.seal, hours.tape].map((allowed, r) =>
                allowed[i] && hours.works[i] ? (
                  <rect
                    // biome-ignore lint/suspicious/noArrayIndexKey: three rules in a fixed order
                    key={r}
                    x={x(h)}
                    y={DAY_H + SKY_H + r * RULE_H + 1.5}
                    width={wide + 0.3}
                    height={RULE_H - 3}
                    fill="var(--color-ink)"
                  />
                ) : null,
              )}
            </g>
          );
        })}
      {hours && <Skin road={road} box={box} hours={hours} offset={offset} />}
    </g>
  );
}

const daysFrom = (starts: string, date: string) =>
  Math.round((Date.parse(`${date}T00:00:00Z`) - Date.parse(`${dateOf(starts)}T00:00:00Z`)) / 86_400_000);

/** Strokes that fall: the more, the denser. */
function Rain({ x, width, mm }: { x: number; width: number; mm: number }) {
  const strokes = Math.min(3, 1 + Math.floor(mm));
  return (
    <g stroke="var(--color-chalk)" strokeWidth={1.3}>
      {Array.from({ length: strokes }, (_, i) => {
        const at = x + ((i + 0.5) / strokes) * width;
        // biome-ignore lint/suspicious/noArrayIndexKey: strokes have no other name
        return <line key={i} x1={at + 2.5} y1={DAY_H + 3} x2={at - 2.5} y2={DAY_H + 22} />;
      })}
    </g>
  );
}

const SKIN_LOW = -5;
const SKIN_HIGH = 60;
const skinY = (c: number) =>
  DAY_H + SKY_H - 3 - ((Math.min(Math.max(c, SKIN_LOW), SKIN_HIGH) - SKIN_LOW) / (SKIN_HIGH - SKIN_LOW)) * (SKY_H - 8);

/** The roof's skin through the day as a line, its highest written. */
function Skin({ road, box, hours, offset }: { road: Road; box: DayBox; hours: Hours; offset: number }) {
  const units = useUnits();
  const points: [number, number][] = [];
  let best: { c: number; x: number } | null = null;
  for (let h = 0; h < 24; h++) {
    const c = hours.skin_c[offset + h];
    if (offset + h < 0 || c === null || c === undefined) continue;
    const at = box.x + hourShare(road, h + 0.5) * box.width;
    points.push([at, skinY(c)]);
    if (!best || c > best.c) best = { c, x: at };
  }
  if (!points.length) return null;
  return (
    <g aria-hidden="true">
      <polyline
        points={points.map((p) => p.join(",")).join(" ")}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={1.2}
      />
      {best && box.busy && (
        <text
          x={best.x}
          y={Math.max(skinY(best.c) - 4, DAY_H + 11)}
          fontSize={11}
          textAnchor="middle"
          fill="var(--color-ink)"
        >
          {temperature(best.c, units)}
        </text>
      )}
    </g>
  );
}

function Legend({ top }: { top: number }) {
  return (
    <g fontSize={11.5} fill="var(--color-soft)" className="font-sign">
      <text x={0} y={DAY_H + 14}>
        rain
      </text>
      <text x={0} y={DAY_H + SKY_H - 8}>
        skin
      </text>
      {["climb", "seal", "tape"].map((words, i) => (
        <text key={words} x={32} y={top + i * RULE_H + 9}>
          {words}
        </text>
      ))}
      <defs>
        <pattern id="not-known" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" stroke="var(--color-hair)" strokeWidth="1" />
        </pattern>
      </defs>
    </g>
  );
}

/** A step in somebody's lane: dragged or moved by arrow keys it is held where it is let go. */
function Block({
  step,
  road,
  y,
  on,
  pick,
  first,
}: {
  step: PlannedStep;
  road: Road;
  y: number;
  on: boolean;
  pick: (id: string) => void;
  first: boolean;
}) {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const [shift, setShift] = useState(0);
  const from = useRef<{ x: number; scale: number } | null>(null);
  const x = xOf(road, step.starts);
  const width = Math.max(xOf(road, step.ends) - x - 1, 4);
  const hold = (day: string, at: string) => handle.change(pinEdits(days, step.id, day, at));
  const down = (event: PointerEvent<SVGGElement>) => {
    pick(step.id);
    if (step.done) return;
    const svg = event.currentTarget.ownerSVGElement;
    from.current = { x: event.clientX, scale: svg ? WIDTH / svg.getBoundingClientRect().width : 1 };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    if (from.current) setShift((event.clientX - from.current.x) * from.current.scale);
  };
  const up = () => {
    const to = from.current && Math.abs(shift) > 4 ? momentAt(road, x + shift) : null;
    from.current = null;
    setShift(0);
    if (to) hold(to.date, to.time);
  };
  const key = (event: KeyboardEvent<SVGGElement>) => {
    const by = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (event.key === "Enter" || event.key === " ") pick(step.id);
    if (event.key === "Delete") handle.change(unpinEdits(days, step.id));
    if (!by || step.done) return;
    event.preventDefault();
    if (event.shiftKey) hold(nextDay(dateOf(step.starts), by), timeOf(step.starts));
    else hold(...halfHour(step.starts, by));
  };
  return (
    <g
      role="button"
      tabIndex={first ? 0 : -1}
      aria-label={`${step.title}, ${whenWords(step.starts)} to ${timeOf(step.ends)}, ${step.persons.join(", ")}${step.pinned ? ", pinned" : ""}${step.done ? ", done" : ""}`}
      aria-pressed={on}
      className="cursor-grab outline-offset-2"
      transform={shift ? `translate(${shift} 0)` : undefined}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={key}
    >
      <rect
        x={x}
        y={y + 2}
        width={width}
        height={LANE_H - 7}
        fill={
          on
            ? "var(--color-tape)"
            : step.done
              ? "var(--color-ink)"
              : step.place === "roof"
                ? "var(--color-hair)"
                : "var(--color-sheet)"
        }
        stroke="var(--color-ink)"
        strokeWidth={step.pinned ? 2.6 : 1}
      />
      {step.pinned && <circle cx={x + 4} cy={y + 2} r={2.6} fill="var(--color-ink)" />}
    </g>
  );
}

function halfHour(moment: string, by: number): [string, string] {
  const hour = hourOf(moment) + by * 0.5;
  const day = hour < 0 ? nextDay(dateOf(moment), -1) : hour >= 24 ? nextDay(dateOf(moment)) : dateOf(moment);
  const clock = (hour + 24) % 24;
  return [day, `${String(Math.floor(clock)).padStart(2, "0")}:${clock % 1 ? "30" : "00"}`];
}

/** What cures or dwells, until when. */
function Tail({ step, road, y }: { step: PlannedStep; road: Road; y: number }) {
  const from = xOf(road, step.ends);
  const to = step.rests ? xOf(road, step.rests) : from;
  return (
    <g>
      <line x1={from} x2={to} y1={y + 7} y2={y + 7} stroke="var(--color-chalk)" strokeWidth={2} strokeDasharray="7 4" />
      <line x1={to} x2={to} y1={y + 3} y2={y + 11} stroke="var(--color-chalk)" strokeWidth={2} />
      <text x={from - 4} y={y + 11} fontSize={11} textAnchor="end" className="font-sign" fill="var(--color-chalk)">
        {step.kind === "stick" ? "dwells" : step.kind.startsWith("coat") ? "at the coater" : "cures"}
      </text>
    </g>
  );
}

function Flag({ x, bottom, words }: { x: number; bottom: number; words: string }) {
  return (
    <g>
      <line x1={x} x2={x} y1={DAY_H} y2={bottom} stroke="var(--color-ink)" strokeWidth={2.4} />
      <text
        x={x - 5}
        y={bottom - 4}
        fontSize={13}
        textAnchor="end"
        className="font-sign"
        fontWeight={600}
        fill="var(--color-ink)"
      >
        drive {words}
      </text>
    </g>
  );
}
