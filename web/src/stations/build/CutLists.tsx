/** The cut list of every material: bars at one scale, their pieces in cutting order with a running measure. */
import type { MaterialCut } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useFinding, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";
import { NoPieces } from "./NoPieces";
import { StockPart } from "./StockPart";

const WIDTH = 860;
const LEFT = 4;
const HIGH = 50;

export function CutPart() {
  const cuts = useFinding("cuts");
  return (
    <>
      {cuts.length ? <CutLists /> : <NoPieces />}
      <StockPart />
    </>
  );
}

function CutLists() {
  const cuts = useFinding("cuts");
  const longest = Math.max(1, ...cuts.flatMap((c) => c.cut.bars.map((bar) => bar.length_mm)));
  return (
    <Group
      title="Cut list"
      aside={<span className="text-[13px]">longest piece first; marks measure from one end</span>}
    >
      {cuts.map((own) => (
        <MaterialBars key={own.material} own={own} longest={longest} />
      ))}
    </Group>
  );
}

function MaterialBars({ own, longest }: { own: MaterialCut; longest: number }) {
  const units = useUnits();
  const { cut } = own;
  const assumed = own.assumed_mm !== null && own.assumed_mm !== undefined;
  return (
    <section aria-label={own.says} className="pb-3">
      <p className="flex flex-wrap items-baseline gap-x-4">
        <span className="font-sign font-semibold text-[17px]">{own.says}</span>
        <span>
          {own.pieces} pieces, {length(own.run_mm, units)}
        </span>
        <span className="font-semibold">
          {cut.bars.length} {cut.bars.length === 1 ? "bar" : "bars"}
          {!assumed && `, ${cut.cost.toFixed(2)}`}
        </span>
        <span className="text-[13px]">
          {cut.missing.length
            ? `No bar gives ${cut.missing.join(", ")}.`
            : cut.proved
              ? assumed
                ? "Fewer bars are not enough: proved."
                : "Nothing is cheaper: proved."
              : `Not proved: ${cut.bound.toFixed(2)} at least.`}
        </span>
      </p>
      {cut.bars.map((bar, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: equal bars have nothing else to tell them apart
        <BarDrawing key={i} bar={bar} longest={longest} />
      ))}
    </section>
  );
}

function BarDrawing({ bar, longest }: { bar: MaterialCut["cut"]["bars"][number]; longest: number }) {
  const units = useUnits();
  const { selection } = useDesk();
  const x = (mm: number) => LEFT + (mm / longest) * (WIDTH - 2 * LEFT - 60);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HIGH}`}
      className="w-full max-w-[860px]"
      role="img"
      aria-label={`Bar of ${length(bar.length_mm, units)}: ${bar.pieces.join(", ")}; ${length(Math.round(bar.left_mm), units)} left`}
    >
      <rect
        x={x(0)}
        y={4}
        width={x(bar.length_mm) - x(0)}
        height={22}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={1.2}
        strokeDasharray="4 3"
      />
      {bar.pieces.map((piece, i) => {
        const from = bar.at_mm[i] ?? 0;
        const to = from + (bar.lengths_mm[i] ?? 0);
        const chosen = selection === `pieces.${piece}`;
        return (
          <g key={piece}>
            <rect
              x={x(from)}
              y={4}
              width={x(to) - x(from)}
              height={22}
              fill={chosen ? "var(--color-tape)" : "var(--color-band)"}
              fillOpacity={chosen ? 1 : 0.45}
              stroke="var(--color-ink)"
              strokeWidth={1.6}
            />
            <text
              x={(x(from) + x(to)) / 2}
              y={20}
              textAnchor="middle"
              className={`font-sign font-semibold text-[14px] ${chosen ? "fill-[#1d2225]" : "fill-ink"}`}
            >
              {piece}
            </text>
            <line x1={x(to)} x2={x(to)} y1={26} y2={31} stroke="var(--color-ink)" />
            <text x={x(to)} y={44} textAnchor="end" className="font-sign text-[13px] fill-ink">
              {length(Math.round(to), units)}
            </text>
          </g>
        );
      })}
      <text x={x(bar.length_mm) + 6} y={20} className="font-sign text-[13px] fill-ink">
        {length(Math.round(bar.left_mm), units)} left
      </text>
    </svg>
  );
}
