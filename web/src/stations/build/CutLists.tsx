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
const LEFT_OVER = 84;
const LETTER = 7.4;
const MARK = 62;

type Bar = MaterialCut["cut"]["bars"][number];

/** Pieces too short for their names, one after the other: how many of them, from where to where. */
function shortRuns(bar: Bar, x: (mm: number) => number) {
  const runs: { from: number; to: number; count: number }[] = [];
  bar.pieces.forEach((piece, i) => {
    const from = bar.at_mm[i] ?? 0;
    const to = from + (bar.lengths_mm[i] ?? 0);
    if (fits(piece, x(to) - x(from))) return;
    const last = runs.at(-1);
    if (last && bar.at_mm[i - 1] !== undefined && last.to <= from && !named(bar, i - 1, x)) {
      last.to = to;
      last.count += 1;
    } else runs.push({ from, to, count: 1 });
  });
  return runs;
}

const fits = (words: string, wide: number): boolean => words.length * LETTER < wide;

const named = (bar: Bar, i: number, x: (mm: number) => number): boolean => {
  const from = bar.at_mm[i] ?? 0;
  return fits(bar.pieces[i] ?? "", x(from + (bar.lengths_mm[i] ?? 0)) - x(from));
};

/** Whose end is written: as many as there is room for, the last always. */
function marked(bar: Bar, x: (mm: number) => number): Set<number> {
  const ends = bar.pieces.map((_, i) => x((bar.at_mm[i] ?? 0) + (bar.lengths_mm[i] ?? 0)));
  const found = new Set<number>();
  let next = Number.POSITIVE_INFINITY;
  for (let i = ends.length - 1; i >= 0; i--) {
    const end = ends[i] ?? 0;
    if (next - end >= MARK && end >= MARK) {
      found.add(i);
      next = end;
    }
  }
  return found.size ? found : new Set([ends.length - 1]);
}

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

function BarDrawing({ bar, longest }: { bar: Bar; longest: number }) {
  const units = useUnits();
  const { selection } = useDesk();
  const x = (mm: number) => LEFT + (mm / longest) * (WIDTH - 2 * LEFT - LEFT_OVER);
  const written = marked(bar, x);
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
            <title>{piece}</title>
            {named(bar, i, x) && (
              <text
                x={(x(from) + x(to)) / 2}
                y={20}
                textAnchor="middle"
                className={`font-sign font-semibold text-[14px] ${chosen ? "fill-[#1d2225]" : "fill-ink"}`}
              >
                {piece}
              </text>
            )}
            <line x1={x(to)} x2={x(to)} y1={26} y2={31} stroke="var(--color-ink)" />
            {written.has(i) && (
              <text x={Math.max(x(to), MARK)} y={44} textAnchor="end" className="font-sign text-[13px] fill-ink">
                {length(Math.round(to), units)}
              </text>
            )}
          </g>
        );
      })}
      {shortRuns(bar, x)
        .filter((run) => fits(`${run.count} pieces`, x(run.to) - x(run.from)))
        .map((run) => (
          <text
            key={run.from}
            x={(x(run.from) + x(run.to)) / 2}
            y={20}
            textAnchor="middle"
            className="font-sign font-semibold text-[14px] fill-ink"
            stroke="var(--color-sheet)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {run.count} pieces
          </text>
        ))}
      <text x={x(bar.length_mm) + 6} y={20} className="font-sign text-[13px] fill-ink">
        {length(Math.round(bar.left_mm), units)} left
      </text>
    </svg>
  );
}
