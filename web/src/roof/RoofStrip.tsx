/** The one picture: the roof from above, front to the left, at one scale, drawn from the core's geometry; what lies on it is drawn by the stations. */
import { useEffect, useMemo, useRef, useState } from "react";
import type { StationName } from "../api/types";
import { useDesk, useFinding, useStoredJob, useUnits } from "../job/JobContext";
import { across, length } from "../ui/format";
import { pointAt, useCursor } from "./cursor";
import { RoofScale } from "./geometry";
import { byLevel, type Layer } from "./layer";
import { Rulers } from "./Rulers";
import { roam, stopRoaming } from "./roaming";
import { SideView } from "./SideView";
import { useDrag } from "./useDrag";

const NO_ROOF = { length: 8000, across: 2200 };
const TALLEST_PX = 330;

type Props = {
  sections: boolean;
  layers: readonly Layer[];
  /** The station that is open beside the roof. */
  station: StationName;
};

/** What the roof and the verdict beside it tell, whatever station is open. */
const WITH_THE_ROOF: readonly StationName[] = ["survey", "structure", "layout", "hold"];

export function RoofStrip({ sections, layers, station }: Props) {
  const { id, handle, select } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const holder = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1000);
  const cursor = useCursor();

  useEffect(() => {
    const watched = holder.current;
    if (!watched) return;
    const observer = new ResizeObserver(([entry]) => entry && setWidth(Math.max(entry.contentRect.width, 280)));
    observer.observe(watched);
    return () => observer.disconnect();
  }, []);

  const roof = useFinding("roof");
  const scale = useMemo(
    () =>
      new RoofScale({ width, height: TALLEST_PX }, roof ? { length: roof.length_mm, across: roof.width_mm } : NO_ROOF),
    [width, roof],
  );
  const drag = useDrag(id, job.panels, handle, scale, units, [...WITH_THE_ROOF, station]);
  const [ground, above] = useMemo(() => {
    const sorted = byLevel(layers);
    return [sorted.filter((l) => l.level === "ground" && roof), sorted.filter((l) => l.level !== "ground")];
  }, [layers, roof]);
  const draw = ({ draw: Draw }: Layer, i: number) => <Draw key={`${i} ${Draw.name}`} scale={scale} drag={drag} />;

  return (
    <div ref={holder} className="min-w-0">
      <svg
        width={scale.width}
        height={scale.height}
        className="block touch-none select-none"
        role="group"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the strip is one tab stop, arrows move between what is drawn on it
        tabIndex={0}
        onKeyDown={(event) => roam(event, () => select(null))}
        onPointerDownCapture={stopRoaming}
        onBlur={(event) => {
          if (!event.currentTarget.contains(event.relatedTarget)) stopRoaming();
        }}
        aria-label={`Roof seen from above, front to the left; arrows move between its things, Enter takes one${roof ? `, ${length(roof.length_mm, units)} by ${length(roof.width_mm, units)}` : ""}`}
        onPointerMove={(event) => {
          const frame = event.currentTarget.getBoundingClientRect();
          pointAt({ x: scale.mmX(event.clientX - frame.left), y: scale.mmY(event.clientY - frame.top), inside: true });
        }}
        onPointerLeave={() => pointAt(null)}
        onPointerDown={(event) => {
          if (event.target === event.currentTarget) select(null);
        }}
      >
        {!roof && <UnknownRoof scale={scale} />}
        {ground.map(draw)}
        <Slipstream scale={scale} />
        {above.map(draw)}
        <Rulers scale={scale} units={units} />
        {cursor?.inside && cursor.x >= 0 && cursor.x <= scale.length && Math.abs(cursor.y) <= scale.across / 2 && (
          <g pointerEvents="none" aria-hidden="true">
            <line
              x1={scale.x(cursor.x)}
              x2={scale.x(cursor.x)}
              y1={scale.y(-scale.across / 2)}
              y2={scale.height}
              stroke="var(--color-chalk)"
              strokeWidth={0.8}
            />
            <text
              x={Math.min(scale.x(cursor.x) + 4, scale.width - 150)}
              y={scale.height - 2}
              className="fill-chalk font-sign font-semibold text-[13px]"
              stroke="var(--color-sheet)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {length(cursor.x, units)}, {across(cursor.y, units)}
            </text>
          </g>
        )}
        {!roof && (
          <text x={scale.width / 2} y={scale.height / 2} textAnchor="middle" className="fill-ink text-[15px]">
            Measure the roof’s length and width: it is drawn here to scale.
          </text>
        )}
      </svg>
      {sections && <SideView scale={scale} />}
    </div>
  );
}

function UnknownRoof({ scale }: { scale: RoofScale }) {
  return (
    <rect
      pointerEvents="none"
      aria-hidden="true"
      x={scale.x(0)}
      y={scale.y(-scale.across / 2)}
      width={scale.size(scale.length)}
      height={scale.size(scale.across)}
      fill="var(--color-paper)"
      stroke="var(--color-ink)"
      strokeDasharray="5 4"
    />
  );
}

/** The centre line, and where the slipstream comes from. */
function Slipstream({ scale }: { scale: RoofScale }) {
  const top = scale.y(-scale.across / 2);
  const streams = [0.22, 0.5, 0.78].map((share) => top + scale.size(scale.across) * share);
  return (
    <g pointerEvents="none" aria-hidden="true">
      <line
        x1={scale.x(0)}
        x2={scale.x(scale.length)}
        y1={scale.y(0)}
        y2={scale.y(0)}
        stroke="var(--color-chalk)"
        strokeWidth={0.8}
        strokeDasharray="14 4 3 4"
      />
      {streams.map((y) => (
        <path
          key={y}
          d={`M2 ${y} h11 m-4 -3.5 l4.5 3.5 l-4.5 3.5`}
          stroke="var(--color-ink)"
          strokeWidth={1.3}
          fill="none"
        />
      ))}
    </g>
  );
}
