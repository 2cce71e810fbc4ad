/** What stands between a panel and the roof: the ways there are, as small drawings. */
import type { ReactNode } from "react";
import type { Carrier, Edit, Panel, RowFit } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { RadioRow } from "../../ui/RadioRow";

type Way = "feet" | "rails" | "points" | "bars" | "frame" | "crossed" | "posts" | "outer";
const INK = { stroke: "currentColor", strokeWidth: 2, fill: "none" } as const;

/** Seen along the roof: the roof below, the panel above. */
const Drawing = ({ children }: { children: ReactNode }) => (
  <svg viewBox="0 0 120 40" width={120} height={40} aria-hidden="true">
    <path d="M4 34 Q60 28 116 34" {...INK} strokeWidth={2.6} />
    {children}
  </svg>
);

const WAYS: readonly (readonly [Way, string, string, ReactNode])[] = [
  [
    "feet",
    "Feet on the frame",
    "fewest parts, each foot into a member",
    <Drawing key="feet">
      <rect x={22} y={12} width={76} height={5} {...INK} />
      <path d="M22 17 V31 H10 M98 17 V31 H110" {...INK} />
    </Drawing>,
  ],
  [
    "rails",
    "Rails over the members",
    "one pair for a row of panels; they can move later",
    <Drawing key="rails">
      <rect x={22} y={6} width={76} height={5} {...INK} />
      <rect x={34} y={12} width={9} height={9} {...INK} />
      <rect x={77} y={12} width={9} height={9} {...INK} />
      <path d="M38 21 V31 H28 M82 21 V31 H92" {...INK} />
    </Drawing>,
  ],
  [
    "points",
    "Rack on factory points",
    "no new hole; bars carry all panels",
    <Drawing key="points">
      <rect x={22} y={2} width={76} height={5} {...INK} />
      <rect x={10} y={8} width={100} height={5} {...INK} />
      <rect x={20} y={14} width={9} height={9} {...INK} />
      <rect x={91} y={14} width={9} height={9} {...INK} />
      <circle cx={24.5} cy={29} r={4} fill="currentColor" />
      <circle cx={95.5} cy={29} r={4} fill="currentColor" />
    </Drawing>,
  ],
  [
    "bars",
    "Rack over the members",
    "bars across two rails; panels anywhere on them",
    <Drawing key="bars">
      <rect x={22} y={2} width={76} height={5} {...INK} />
      <rect x={14} y={8} width={92} height={5} {...INK} />
      <rect x={30} y={14} width={9} height={9} {...INK} />
      <rect x={81} y={14} width={9} height={9} {...INK} />
      <path d="M34 23 V31 H24 M86 23 V31 H96" {...INK} />
    </Drawing>,
  ],
  [
    "frame",
    "Frame round the panels",
    "one flat frame at their edges; it can be raised with them",
    <Drawing key="frame">
      <rect x={22} y={8} width={76} height={5} {...INK} />
      <rect x={22} y={14} width={9} height={9} {...INK} />
      <rect x={89} y={14} width={9} height={9} {...INK} />
      <path d="M31 18.5 H89" {...INK} strokeWidth={7} />
      <path d="M26 23 V31 H16 M94 23 V31 H104" {...INK} />
    </Drawing>,
  ],
  [
    "crossed",
    "Frame on crossbars",
    "bars across the roof have the feet; fewer of them",
    <Drawing key="crossed">
      <rect x={30} y={5} width={60} height={5} {...INK} />
      <rect x={28} y={11} width={8} height={8} {...INK} />
      <rect x={84} y={11} width={8} height={8} {...INK} />
      <path d="M36 15 H84" {...INK} strokeWidth={5} />
      <rect x={12} y={19.5} width={96} height={5} {...INK} />
      <path d="M18 24.5 V31 H8 M102 24.5 V31 H112" {...INK} />
    </Drawing>,
  ],
  [
    "posts",
    "On posts",
    "an arch on deck, a frame over the roof; base plates bolted through",
    <Drawing key="posts">
      <rect x={26} y={1} width={68} height={4} {...INK} />
      <path d="M22 31 V10 Q22 7 26 7 H94 Q98 7 98 10 V31" {...INK} strokeWidth={3} />
      <path d="M14 31.5 H30 M90 31.5 H106" {...INK} strokeWidth={3.4} />
    </Drawing>,
  ],
];

const OUTER = [
  "outer",
  "Posts beside the roof",
  "on gutters or chassis; no hole in the roof",
  <Drawing key="outer">
    <rect x={26} y={1} width={68} height={4} {...INK} />
    <path d="M2 39 V10 Q2 7 6 7 H114 Q118 7 118 10 V39" {...INK} strokeWidth={3} />
  </Drawing>,
] as const;

/** Rows with points that can be used, on both sides: what a rack without a new hole needs. */
const rowsOnBothSides = (rows: readonly RowFit[]): boolean =>
  [-1, 1].every((side) =>
    rows.some((row) => row.points.filter((p) => p.usable && Math.sign(p.y_mm) === side).length >= 2),
  );

function wayOf(carrier: Carrier | undefined): Way {
  if (!carrier) return "feet";
  if (carrier.kind === "rails") return "rails";
  if (carrier.hold.school === "outer_foot") return "outer";
  if (carrier.crossbars) return "crossed";
  return carrier.flush ? "frame" : carrier.posts ? "posts" : carrier.points.length ? "points" : "bars";
}

export function CarrierChoice({ panel }: { panel: Panel }) {
  const { handle, picked } = useDesk();
  const job = useStoredJob();
  const own = job.carriers.find((c) => c.id === panel.carrier);
  const alike = picked.includes(panel.id) ? picked : [panel.id];
  const rows = useFinding("survey").rows;
  const row = job.panels.filter((p) => Math.abs(p.y.mm - panel.y.mm) < 50).map((p) => p.id);
  const onOwn = job.panels.filter((p) => own && p.carrier === own.id).map((p) => p.id);
  const free = job.panels.filter((p) => !p.carrier).map((p) => p.id);
  const chosen = alike.length > 1 ? [...alike] : onOwn.length ? onOwn : null;
  const points = rowsOnBothSides(rows);
  const boat = job.vehicle.kind === "boat";
  const now = wayOf(own);
  const choose = (way: Way) => {
    if (way === now) return;
    const edits: Record<Way, Edit> = {
      feet: { op: "remove", path: `carriers.${own?.id}` },
      rails: { op: "put_on_rails", panels: chosen ?? row },
      points: { op: "put_on_rack", panels: chosen ?? free, points: true },
      bars: { op: "put_on_rack", panels: chosen ?? row, points: false },
      frame: { op: "put_in_frame", panels: chosen ?? row, crossbars: false },
      crossed: { op: "put_in_frame", panels: chosen ?? row, crossbars: true },
      posts: { op: "put_on_posts", panels: chosen ?? (boat ? free : row), outer: false },
      outer: { op: "put_on_posts", panels: chosen ?? free, outer: true },
    };
    handle.change([edits[way]]);
  };
  return (
    <Group
      title="Between panel and roof"
      aside={
        <span className="text-soft text-[13px]">
          {own
            ? `${onOwn.length} ${onOwn.length === 1 ? "panel" : "panels"} on ${own.name}`
            : row.length > 1
              ? `rails would carry the row: ${row.length} panels`
              : ""}
        </span>
      }
    >
      <RadioRow
        label="What stands between panel and roof"
        className="flex flex-wrap gap-2"
        value={now}
        options={[...WAYS, ...(boat ? [] : [OUTER])]
          .filter(([way]) => way !== "points" || points)
          .map(
            ([way, title, words, drawing]) =>
              [
                way,
                title,
                undefined,
                <span key={way} className="font-sans font-normal text-[12.5px] leading-tight text-left">
                  {words}
                  {drawing}
                </span>,
              ] as const,
          )}
        choose={choose}
        optionClass="!h-auto !whitespace-normal flex-col !items-start !gap-0 py-1 w-[212px]"
      />
      {!points && (
        <p className="pt-1 text-[13px] text-soft">
          Rack on factory points: no row of usable points on both sides; enter them under Survey.
        </p>
      )}
    </Group>
  );
}
