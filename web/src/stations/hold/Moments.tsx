/** Bending along a rail: a line over its feet, in newton metres, at one scale for both ends of the range. */
import type { Carrier, CarrierVerdict, FootPlace, FootVerdict } from "../../api/types";
import { useFinding, useUnits } from "../../job/JobContext";
import { force } from "../../ui/format";

const WIDTH = 860;
const HIGH = 92;
const MIDDLE = 46;
const DEEP = 26;
const GIVES_PX = 14;
const N_MM_PER_N_M = 1000;

type Rail = CarrierVerdict["rails"][number];

const KIND = { along: "Rail", across: "Bar", up: "Post" } as const;

const isBar = (carrier: Carrier, rail: Rail): boolean =>
  carrier.kind === "rack" && carrier.bars.some((bar) => bar.id === rail.rail);

/** From where to where it runs; a post from its foot to its top. */
function ends(carrier: Carrier, rail: Rail): readonly [number, number] {
  if (rail.runs === "along") return [carrier.start.mm, carrier.end.mm];
  return carrier.kind === "rack" && isBar(carrier, rail)
    ? [carrier.port.mm, carrier.starboard.mm]
    : [rail.places_mm[0] ?? 0, rail.places_mm.at(-1) ?? 1];
}

type Props = {
  rail: Rail;
  carrier: Carrier;
  feet: readonly FootVerdict[];
  /** The most that any bar of the carrier gives: one scale for all of them. */
  mostGiven: number;
};

export function Moments({ rail, carrier, feet, mostGiven }: Props) {
  const places = useFinding("feet");
  const units = useUnits();
  const [from, to] = ends(carrier, rail);
  const x = (mm: number) => 46 + ((mm - from) / Math.max(to - from, 1)) * (WIDTH - 60);
  const most = Math.max(...rail.moments_n_mm.map(Math.abs), 1);
  const y = (moment: number) => MIDDLE - (moment / most) * DEEP;
  const line = rail.places_mm.map((mm, i) => `${x(mm).toFixed(1)} ${y(rail.moments_n_mm[i] ?? 0).toFixed(1)}`);
  const peak = rail.moments_n_mm.findIndex((m) => Math.abs(m) === most);
  const own = feet.flatMap((f) => {
    const place = places.find((p) => p.panel === carrier.id && p.foot === f.foot);
    return place?.line === rail.rail ? [{ ...f, place }] : [];
  });
  /** What a foot carries stands where the line of moments is not. */
  const drawnBelow = (place: FootPlace) => {
    const at = rail.runs === "across" ? place.y_mm : place.x_mm;
    const away = rail.places_mm.map((mm) => Math.abs(mm - at));
    return (rail.moments_n_mm[away.indexOf(Math.min(...away))] ?? 0) < 0;
  };
  const kind = rail.runs === "across" && !isBar(carrier, rail) ? "Crossbar" : KIND[rail.runs];
  const words = `${kind} ${rail.rail}: ${(most / N_MM_PER_N_M).toFixed(0)} newton metres at most`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HIGH}`} className="w-full max-w-[860px]" role="img" aria-label={words}>
      <text x={2} y={MIDDLE + 5} className="font-sign font-semibold text-[15px] fill-ink">
        {rail.rail}
      </text>
      <line x1={x(from)} x2={x(to)} y1={MIDDLE} y2={MIDDLE} stroke="var(--color-ink)" strokeWidth={3} />
      <path
        d={`M${x(rail.places_mm[0] ?? from)} ${MIDDLE} L${line.join(" L")} L${x(rail.places_mm.at(-1) ?? to)} ${MIDDLE} Z`}
        fill="var(--color-band)"
        fillOpacity={0.3}
        stroke="var(--color-chalk)"
        strokeWidth={1.6}
      />
      {rail.gives_mm.length > 0 && mostGiven > 0 && (
        <path
          d={`M${rail.places_mm.map((mm, i) => `${x(mm).toFixed(1)} ${(MIDDLE + ((rail.gives_mm[i] ?? 0) / mostGiven) * GIVES_PX).toFixed(1)}`).join(" L")}`}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth={1.4}
          strokeDasharray="6 4"
        >
          <title>{`gives ${Math.max(...rail.gives_mm).toFixed(1)} mm, drawn larger`}</title>
        </path>
      )}
      {own.map(({ foot, pull_n, place }) => (
        <g key={foot} transform={`translate(${x(rail.runs === "across" ? place.y_mm : place.x_mm)} ${MIDDLE})`}>
          <path d="M0 2 l-5 9 h10 z" fill="var(--color-ink)" />
          {place.landing !== "deck" && (
            <text y={drawnBelow(place) ? -8 : 26} textAnchor="middle" className="font-sign text-[12.5px] fill-ink">
              {force(pull_n, units)}
            </text>
          )}
        </g>
      ))}
      {peak >= 0 && (
        <text
          x={x(rail.places_mm[peak] ?? from)}
          y={y(rail.moments_n_mm[peak] ?? 0) + ((rail.moments_n_mm[peak] ?? 0) > 0 ? -3 : 12)}
          textAnchor="middle"
          className="font-sign font-semibold text-[13px] fill-chalk"
          stroke="var(--color-sheet)"
          strokeWidth={4}
          paintOrder="stroke"
        >
          {(most / N_MM_PER_N_M).toFixed(0)} N·m
        </text>
      )}
    </svg>
  );
}
