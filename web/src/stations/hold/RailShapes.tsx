/** Rails on the roof, over the panels they carry: thin, so that the panels stay readable. */
import type { Carrier } from "../../api/types";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { breadth, crossbars } from "../../roof/carriers";
import type { LayerProps } from "../../roof/layer";

const THIN_PX = 5;

/** The bars of a rack; a click leads to its box. */
function Bars({ rack, scale }: { rack: Extract<Carrier, { kind: "rack" }>; scale: LayerProps["scale"] }) {
  const { go, selection } = useDesk();
  const wide = Math.max(scale.size(breadth(rack.bar_section)), THIN_PX);
  return rack.bars.map((bar) => {
    const path = `carriers.${rack.id}.bars.${bar.id}`;
    return (
      <g
        key={path}
        role="button"
        tabIndex={-1}
        aria-label={`${rack.name}, bar ${bar.id}`}
        className="cursor-pointer outline-none group"
        onClick={() => go("hold", path)}
        onKeyDown={(event) => event.key === "Enter" && go("hold", path)}
      >
        <title>{`${rack.name}, bar ${bar.id}`}</title>
        <rect
          x={scale.x(bar.x.mm) - wide / 2}
          width={wide}
          y={scale.y(rack.port.mm)}
          height={scale.size(rack.starboard.mm - rack.port.mm)}
          fill={selection === path ? "var(--color-tape)" : "var(--color-paper)"}
          stroke="var(--color-ink)"
          strokeWidth={1.4}
          className="group-focus-visible:stroke-[3px]"
        />
      </g>
    );
  });
}

/** Crossbars under a rack, at the members that it stands on. */
function Below({ rack, scale }: { rack: Extract<Carrier, { kind: "rack" }>; scale: LayerProps["scale"] }) {
  const feet = useFinding("feet");
  return crossbars(rack, feet).map((box) => {
    const wide = Math.max(scale.size(box.x[1] - box.x[0]), THIN_PX);
    return (
      <rect
        key={box.key}
        x={scale.x((box.x[0] + box.x[1]) / 2) - wide / 2}
        width={wide}
        y={scale.y(box.y[0])}
        height={scale.size(box.y[1] - box.y[0])}
        fill="var(--color-paper)"
        stroke="var(--color-ink)"
        strokeWidth={1.4}
        pointerEvents="none"
      />
    );
  });
}

export function RailShapes({ scale }: LayerProps) {
  const { go, selection } = useDesk();
  const job = useStoredJob();
  return (
    <g>
      {job.carriers.flatMap((carrier) => {
        const wide = breadth(carrier.section);
        const high = Math.max(scale.size(wide), THIN_PX);
        const path = `carriers.${carrier.id}`;
        const rails = carrier.rails.map((rail) => (
          <g
            key={`${carrier.id} ${rail.id}`}
            role="button"
            tabIndex={-1}
            aria-label={`${carrier.name}, rail ${rail.id}`}
            className="cursor-pointer outline-none group"
            onClick={() => go("hold", path)}
            onKeyDown={(event) => event.key === "Enter" && go("hold", path)}
          >
            <title>{`${carrier.name}, rail ${rail.id}`}</title>
            <rect
              x={scale.x(Math.min(carrier.start.mm, carrier.end.mm))}
              width={scale.size(Math.abs(carrier.end.mm - carrier.start.mm))}
              y={scale.y(rail.y.mm) - high / 2}
              height={high}
              fill={selection === path ? "var(--color-tape)" : "var(--color-paper)"}
              stroke="var(--color-ink)"
              strokeWidth={1.4}
              className="group-focus-visible:stroke-[3px]"
            />
          </g>
        ));
        return carrier.kind === "rack"
          ? [
              <Below key={`${carrier.id} crossbars`} rack={carrier} scale={scale} />,
              <Bars key={`${carrier.id} bars`} rack={carrier} scale={scale} />,
              ...rails,
            ]
          : rails;
      })}
    </g>
  );
}
