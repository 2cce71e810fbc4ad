/** Rails on the roof, over the panels they carry: thin, so that the panels stay readable. */
import { useDesk, useStoredJob } from "../../job/JobContext";
import type { LayerProps } from "../../roof/layer";

const THIN_PX = 5;

export function RailShapes({ scale }: LayerProps) {
  const { go, selection } = useDesk();
  const job = useStoredJob();
  return (
    <g>
      {job.carriers.flatMap((carrier) => {
        const wide = carrier.section.kind === "round" ? carrier.section.diameter.mm : carrier.section.width.mm;
        const high = Math.max(scale.size(wide), THIN_PX);
        const path = `carriers.${carrier.id}`;
        return carrier.rails.map((rail) => (
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
              x={scale.x(carrier.start.mm)}
              width={scale.size(carrier.end.mm - carrier.start.mm)}
              y={scale.y(rail.y.mm) - high / 2}
              height={high}
              fill={selection === path ? "var(--color-tape)" : "var(--color-paper)"}
              stroke="var(--color-ink)"
              strokeWidth={1.4}
              className="group-focus-visible:stroke-[3px]"
            />
          </g>
        ));
      })}
    </g>
  );
}
