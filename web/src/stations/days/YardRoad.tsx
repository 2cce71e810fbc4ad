/** Days side by side with a lane for each person of the shop; each vehicle has a mark of its own. */
import type { PlannedStep, VehiclePlan } from "../../api/types";
import { useStoredJob } from "../../job/JobContext";
import { dateOf, dayWords, type Road, roadOf, timeOf, whenWords, xOf } from "./road";

const WIDTH = 908;
const LEFT = 62;
const DAY_H = 22;
const LANE_H = 30;
const FLAG_H = 18;
const FILLS = [
  "var(--color-ink)",
  "url(#yard-1)",
  "var(--color-hair)",
  "url(#yard-3)",
  "url(#yard-4)",
  "var(--color-sheet)",
];

const called = (name: string) => name.trim().toLowerCase();

/** How a vehicle is drawn. */
export function Swatch({ vehicle }: { vehicle: number }) {
  return (
    <svg width="26" height="15" aria-hidden="true">
      <Patterns />
      <rect x="0.5" y="0.5" width="25" height="14" fill={FILLS[vehicle % FILLS.length]} stroke="var(--color-ink)" />
    </svg>
  );
}

export function YardRoad({ vehicles }: { vehicles: readonly VehiclePlan[] }) {
  const { days } = useStoredJob();
  const steps = vehicles.flatMap((v) => v.plan.steps);
  const last = steps.reduce((late, s) => (Date.parse(s.ends) > Date.parse(late) ? s.ends : late), steps[0]?.ends ?? "");
  if (!last) return null;
  const first = steps.reduce((early, s) => (dateOf(s.starts) < early ? dateOf(s.starts) : early), dateOf(last));
  const all = { steps, finish: last };
  const hours = days.crew.flatMap((p) => [p.starts, p.ends]);
  const road = roadOf(all, first, LEFT, WIDTH, hours);
  const lanes = lanesOf(
    vehicles,
    days.crew.map((p) => p.name),
  );
  const flags = DAY_H + lanes.length * LANE_H + 6;
  const height = flags + vehicles.length * FLAG_H + 4;
  return (
    <div className="overflow-x-auto">
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="w-full min-w-[760px] block"
        role="img"
        aria-label={told(vehicles)}
      >
        <Patterns />
        {road.days.map((box, i) => (
          <g key={box.date}>
            <rect
              x={box.x}
              y={DAY_H}
              width={box.width}
              height={height - DAY_H}
              fill="var(--color-paper)"
              opacity={box.busy ? 0.9 : 0.35}
            />
            <line x1={box.x} x2={box.x} y1={0} y2={height} stroke="var(--color-ink)" strokeWidth={box.busy ? 1 : 0.4} />
            {box.busy && (
              <text x={box.x + 4} y={15} fontSize={14} className="font-sign" fontWeight={600} fill="var(--color-ink)">
                {dayLabel(road, i)}
              </text>
            )}
          </g>
        ))}
        {lanes.map((lane, i) => (
          <g key={lane.who}>
            <text x={0} y={DAY_H + i * LANE_H + 20} fontSize={15} className="font-sign" fill="var(--color-ink)">
              {lane.who.slice(0, 10)}
            </text>
            {lane.steps.map(({ step, vehicle }) => (
              <Block key={`${vehicle} ${step.id}`} road={road} step={step} vehicle={vehicle} y={DAY_H + i * LANE_H} />
            ))}
          </g>
        ))}
        {vehicles.map(
          (v, k) =>
            // biome-ignore lint/suspicious/noArrayIndexKey: two vehicles may bear one name; their order is fixed
            v.plan.finish && <Flag key={k} road={road} vehicle={v} y={flags + k * FLAG_H} at={k} />,
        )}
      </svg>
    </div>
  );
}

type Laned = { who: string; steps: { step: PlannedStep; vehicle: number }[] };

/** A lane for each name, however each vehicle writes it. */
function lanesOf(vehicles: readonly VehiclePlan[], crew: readonly string[]): Laned[] {
  const lanes = new Map<string, Laned>(crew.map((who) => [called(who), { who: who.trim(), steps: [] }]));
  vehicles.forEach((v, vehicle) => {
    for (const step of v.plan.steps)
      for (const who of step.persons) {
        const lane = lanes.get(called(who)) ?? { who: who.trim(), steps: [] };
        lane.steps.push({ step, vehicle });
        lanes.set(called(who), lane);
      }
  });
  return [...lanes.values()];
}

/** The day in as much as there is room for; its month where it is another than before. */
function dayLabel(road: Road, place: number): string {
  const box = road.days[place];
  if (!box || box.width < 20) return "";
  if (box.width > 74) return dayWords(box.date);
  const before = road.days.slice(0, place).findLast((d) => d.busy);
  const [, day, month] = dayWords(box.date).split(" ");
  return before?.date.slice(0, 7) === box.date.slice(0, 7) || box.width < 36 ? `${day}` : `${day} ${month}`;
}

function Block({ road, step, vehicle, y }: { road: Road; step: PlannedStep; vehicle: number; y: number }) {
  const x = xOf(road, step.starts);
  return (
    <rect
      x={x}
      y={y + 4}
      width={Math.max(xOf(road, step.ends) - x - 0.6, 2)}
      height={LANE_H - 9}
      fill={FILLS[vehicle % FILLS.length]}
      stroke="var(--color-ink)"
      strokeWidth={0.8}
    >
      <title>{`${step.title}, ${whenWords(step.starts)} to ${timeOf(step.ends)}`}</title>
    </rect>
  );
}

/** When a vehicle may drive, and when it could if it were alone. */
function Flag({ road, vehicle, y, at }: { road: Road; vehicle: VehiclePlan; y: number; at: number }) {
  const x = xOf(road, vehicle.plan.finish ?? "");
  const alone = vehicle.alone ? xOf(road, vehicle.alone) : x;
  return (
    <g>
      {x - alone > 2 && (
        <line
          x1={alone}
          x2={x}
          y1={y + 8}
          y2={y + 8}
          stroke="var(--color-chalk)"
          strokeWidth={2}
          strokeDasharray="7 4"
        />
      )}
      <rect x={x - 5} y={y + 2} width={5} height={13} fill={FILLS[at % FILLS.length]} stroke="var(--color-ink)" />
      <text
        x={Math.min(alone, x) - 9}
        y={y + 13}
        fontSize={13.5}
        textAnchor="end"
        className="font-sign"
        fontWeight={600}
        fill="var(--color-ink)"
        stroke="var(--color-paper)"
        strokeWidth={4}
        paintOrder="stroke"
      >
        {vehicle.name} drives {timeOf(vehicle.plan.finish ?? "")}
      </text>
    </g>
  );
}

function told(vehicles: readonly VehiclePlan[]): string {
  const each = vehicles.map((v) => `${v.name} drives ${v.plan.finish ? whenWords(v.plan.finish) : "already"}`);
  return `Days of all people: ${each.join("; ")}`;
}

function Patterns() {
  const strokes = [
    { id: "yard-1", turn: 45, gap: 5 },
    { id: "yard-3", turn: 0, gap: 4 },
    { id: "yard-4", turn: 135, gap: 8 },
  ];
  return (
    <defs>
      {strokes.map(({ id, turn, gap }) => (
        <pattern
          key={id}
          id={id}
          width={gap}
          height={gap}
          patternUnits="userSpaceOnUse"
          patternTransform={`rotate(${turn})`}
        >
          <rect width={gap} height={gap} fill="var(--color-sheet)" />
          <line x1="0" y1="0" x2="0" y2={gap} stroke="var(--color-ink)" strokeWidth="2.4" />
        </pattern>
      ))}
    </defs>
  );
}
