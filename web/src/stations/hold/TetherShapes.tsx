/** Tethers on the roof: a line from the frame to its anchor. */
import type { FootPlace, Rect } from "../../api/types";
import { useDesk, useEvaluation, useStoredJob } from "../../job/JobContext";
import type { LayerProps } from "../../roof/layer";

/** How far an anchor stands from its panel. */
const beyond = (at: FootPlace, rect: Rect) =>
  Math.max(
    rect.x_mm - at.x_mm,
    at.x_mm - rect.x_mm - rect.length_mm,
    rect.y_mm - at.y_mm,
    at.y_mm - rect.y_mm - rect.width_mm,
  );

export function TetherShapes({ scale }: LayerProps) {
  const { go, selection } = useDesk();
  const job = useStoredJob();
  const { feet, shapes } = useEvaluation().findings;
  const places = new Map(feet.map((f) => [f.panel, f]));
  const out = { port: [0, 1], starboard: [0, -1], front: [1, 0], rear: [-1, 0] } as const;
  return (
    <g>
      {job.tethers.map((tether) => {
        const place = places.get(tether.id);
        if (!place) return null;
        const path = `tethers.${tether.id}`;
        const [dx, dy] = out[tether.side];
        const panel = shapes.find((s) => s.id === tether.panel);
        const reach = scale.size(panel ? beyond(place, panel.rect) : tether.out.mm);
        const name = `${tether.name}, ${tether.side}`;
        return (
          <g
            key={tether.id}
            role="button"
            tabIndex={-1}
            aria-label={name}
            className="cursor-pointer outline-none group"
            transform={`translate(${scale.x(place.x_mm)} ${scale.y(place.y_mm)})`}
            onClick={() => go("hold", path)}
            onKeyDown={(event) => event.key === "Enter" && go("hold", path)}
          >
            <title>{name}</title>
            <circle
              r={9}
              fill={selection === path ? "var(--color-tape)" : "transparent"}
              className="group-focus-visible:stroke-ink group-focus-visible:stroke-[2.5px]"
            />
            <line x2={dx * reach} y2={dy * reach} stroke="var(--color-ink)" strokeWidth={2.2} />
            <path d="M-4 4 L0 -4 L4 4 Z" fill="var(--color-paper)" stroke="var(--color-ink)" strokeWidth={1.6} />
          </g>
        );
      })}
    </g>
  );
}
