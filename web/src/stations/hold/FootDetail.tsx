/** A foot cut through, true to scale: the chain's links by their numbers, dimensions typed where they are drawn. */
import type { FootPlace, Link, Mark, Panel } from "../../api/types";
import { Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";
import { type FootSection, footSection } from "./footSection";

const WIDE = 860;
const HIGH = 330;
const DRAWN = { left: 150, right: 570, top: 14, bottom: 262 };
const LOOK = {
  metal: { fill: "var(--color-ink)", fillOpacity: 0.78 },
  skin: { fill: "var(--color-chalk)", fillOpacity: 0.85 },
  wood: { fill: "url(#wood)", fillOpacity: 1 },
  soft: { fill: "var(--color-tape)", fillOpacity: 1 },
  glass: { fill: "var(--color-band)", fillOpacity: 0.7 },
} as const;
const SCALE_BAR_MM = 20;

type Props = { panel: Panel; place: FootPlace; links: readonly Link[] };

export function FootDetail({ panel, place, links }: Props) {
  const job = useStoredJob();
  const units = useUnits();
  const marks: readonly Mark[] = useFinding("marks");
  const { openWorking } = useDesk();
  const cut = footSection(panel, place, job, marks);
  const { hold } = panel;
  const path = `panels.${panel.id}`;
  const scale = Math.min(
    (DRAWN.right - DRAWN.left) / (cut.right - cut.left),
    (DRAWN.bottom - DRAWN.top) / (cut.top - cut.bottom),
  );
  const x = (u: number) => DRAWN.left + (u - cut.left) * scale;
  const y = (z: number) => DRAWN.top + (cut.top - z) * scale;
  const lever = hold.bracket.lever.mm;
  const toe = hold.bracket.toe.mm;
  const row = Math.max(x(lever + toe / 2) - 20, 256);
  const pinned = links
    .flatMap((link, i) => {
      const pin = cut.pins.find((p) => p.link === link.id);
      return pin ? [{ link, number: i + 1, pin }] : [];
    })
    .sort((a, b) => b.pin.z - a.pin.z);
  return (
    <Group
      title={`Foot ${place.foot}, cut through`}
      aside={<span className="text-[13px]">true to scale; numbers are the links of its chain</span>}
    >
      <div className="relative overflow-x-auto">
        <div className="relative" style={{ width: WIDE, height: HIGH }}>
          <svg
            width={WIDE}
            height={HIGH}
            role="group"
            aria-label={`Section through foot ${place.foot}: frame ${length(panel.stand_off.mm, units)} over the roof, lever ${length(lever, units)}, toe ${length(toe, units)}`}
          >
            <defs>
              <pattern id="wood" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
                <rect width="7" height="7" fill="var(--color-paper)" />
                <line y2="7" stroke="var(--color-ink)" strokeWidth="1.6" />
              </pattern>
            </defs>
            <g transform={`translate(${x(0)} ${y(0)}) scale(${scale})`}>
              {cut.cuts.map((c) => (
                <path
                  key={c.d}
                  d={c.d}
                  {...LOOK[c.look]}
                  stroke="var(--color-ink)"
                  strokeWidth={1 / scale}
                  data-link={c.link}
                />
              ))}
              <Bolts cut={cut} thick={hold.bracket.thickness.mm} />
            </g>
            <Across from={x(0)} to={x(lever)} at={y(0) + 34} down={y(0)} reach={y(0) + 62} />
            <Across from={x(lever)} to={x(lever + toe)} at={y(0) + 34} down={y(0)} reach={y(0) + 62} />
            <Upward from={y(0)} to={y(panel.stand_off.mm)} at={x(cut.left) - 12} edge={x(-2)} />
            <ScaleBar x={DRAWN.right - SCALE_BAR_MM * scale} y={DRAWN.top + 10} scale={scale} />
            {pinned.map(({ link, number, pin }, row) => (
              <Pinned
                key={link.id}
                number={number}
                title={link.title}
                x={x(pin.u)}
                y={y(pin.z)}
                column={x(cut.right) + 26}
                row={DRAWN.top + 40 + row * 34}
                open={() => openWorking(`hold/${panel.id}/${place.foot}/link ${link.id}`, link.title)}
              />
            ))}
          </svg>
          <At left={6} top={Math.min(Math.max(y(panel.stand_off.mm / 2) - 26, 4), HIGH - 70)}>
            <Field label="Stand-off" word="stand-off" path={`${path}.stand_off`} value={panel.stand_off} />
          </At>
          <At left={Math.max(x(lever / 2) - 116, 130)} top={HIGH - 60}>
            <Field label="Lever" word="lever" path={`${path}.hold.bracket.lever`} value={hold.bracket.lever} />
          </At>
          <At left={row} top={HIGH - 60}>
            <Field label="Toe" word="toe" path={`${path}.hold.bracket.toe`} value={hold.bracket.toe} />
          </At>
          <At left={row + 132} top={HIGH - 60}>
            <Field label="Bracket thickness" path={`${path}.hold.bracket.thickness`} value={hold.bracket.thickness} />
          </At>
          <At left={row + 264} top={HIGH - 60}>
            {hold.school === "tape" ? (
              <Field label="Tape thickness" path={`${path}.hold.thickness`} value={hold.thickness} />
            ) : (
              <Field label={LENGTH_OF[hold.school]} path={`${path}.hold.length`} value={hold.length} />
            )}
          </At>
        </div>
      </div>
    </Group>
  );
}

const LENGTH_OF = { screws: "Screw length", bolts: "Bolt length", one_sided: "Length" } as const;

function At({ left, top, children }: { left: number; top: number; children: React.ReactNode }) {
  return (
    <div className="absolute w-[112px]" style={{ left, top }}>
      {children}
    </div>
  );
}

/** The frame bolt and what goes into the roof. */
function Bolts({ cut, thick }: { cut: FootSection; thick: number }) {
  const bolt = { fill: "var(--color-paper)", stroke: "var(--color-ink)", vectorEffect: "non-scaling-stroke" } as const;
  return (
    <g>
      <rect x={-9} y={-cut.boltAt - 3} width={thick + 15} height={6} {...bolt} />
      <rect x={-9} y={-cut.boltAt - 5.2} width={5} height={10.4} {...bolt} />
      <rect x={thick} y={-cut.boltAt - 5.5} width={4.2} height={11} {...bolt} />
      {cut.fasteners.map((f) => (
        <g key={f.u} data-link="fastener">
          <rect x={f.u - f.diameter / 2} y={-f.top} width={f.diameter} height={f.top - f.bottom} {...bolt} />
          <rect x={f.u - f.head / 2} y={-f.top - 3.4} width={f.head} height={3.4} {...bolt} />
          {f.nut && <rect x={f.u - f.head / 2} y={-f.bottom - 7} width={f.head} height={4.5} {...bolt} />}
        </g>
      ))}
    </g>
  );
}

const LINE = { stroke: "var(--color-chalk)", strokeWidth: 1.3 } as const;

function Across(p: { from: number; to: number; at: number; down: number; reach: number }) {
  return (
    <g {...LINE} fill="none">
      <path d={`M${p.from} ${p.down}V${p.at + 5}M${p.to} ${p.down}V${p.at + 5}`} strokeDasharray="2 2" />
      <path d={`M${p.from} ${p.at}H${p.to}`} strokeWidth={2} />
      <path d={`M${(p.from + p.to) / 2} ${p.at}V${p.reach}`} />
    </g>
  );
}

function Upward(p: { from: number; to: number; at: number; edge: number }) {
  return (
    <g {...LINE} fill="none">
      <path d={`M${p.at - 5} ${p.from}H${p.edge}M${p.at - 5} ${p.to}H${p.edge}`} strokeDasharray="2 2" />
      <path d={`M${p.at} ${p.from}V${p.to}`} strokeWidth={2} />
      <path d={`M${p.at} ${(p.from + p.to) / 2}H${p.at - 16}`} />
    </g>
  );
}

function ScaleBar({ x, y, scale }: { x: number; y: number; scale: number }) {
  const units = useUnits();
  return (
    <g>
      <path d={`M${x} ${y}v8h${SCALE_BAR_MM * scale}v-8`} fill="none" stroke="var(--color-ink)" strokeWidth={1.4} />
      <text
        x={x + (SCALE_BAR_MM * scale) / 2}
        y={y + 3}
        textAnchor="middle"
        className="font-sign text-[12.5px] fill-ink"
      >
        {length(SCALE_BAR_MM, units)}
      </text>
    </g>
  );
}

/** A number beside a part, with its name; it opens the working of that link. */
type PinnedProps = {
  number: number;
  title: string;
  x: number;
  y: number;
  column: number;
  row: number;
  open: () => void;
};

function Pinned(p: PinnedProps) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${p.number}, ${p.title}: show the working`}
      className="cursor-pointer outline-none group"
      onClick={p.open}
      onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && p.open()}
    >
      <path
        d={`M${p.x} ${p.y}L${p.column - 24} ${p.row}H${p.column - 10}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={1.2}
      />
      <circle cx={p.x} cy={p.y} r={3} fill="var(--color-tape)" stroke="var(--color-ink)" strokeWidth={1.2} />
      <circle
        cx={p.column}
        cy={p.row}
        r={10.5}
        fill="var(--color-paper)"
        stroke="var(--color-ink)"
        strokeWidth={1.6}
        className="group-hover:fill-tape group-focus-visible:fill-tape"
      />
      <text x={p.column} y={p.row + 5} textAnchor="middle" className="font-sign font-semibold text-[14px] fill-ink">
        {p.number}
      </text>
      <text x={p.column + 17} y={p.row + 4.5} className="text-[13.5px] fill-ink">
        {p.title}
      </text>
    </g>
  );
}
