import type { KeyboardEvent } from "react";
import type { Panel } from "../api/types";
import { selectedPanel, useJobView } from "../app/JobContext";
import { nameFits, nudge, type RoofScale } from "./geometry";
import { panelName } from "./names";
import { positionEdits, type useDrag } from "./useDrag";

/** Panels: planned, so thin ink. Dragged by pointer, nudged by arrow keys, turned with R, removed with Delete. */
export function PanelShapes({ scale, drag }: { scale: RoofScale; drag: ReturnType<typeof useDrag> }) {
  const { job, evaluation, units, selection, select, handle } = useJobView();
  const shapes = new Map(evaluation.findings.shapes.map((s) => [s.id, s.rect]));
  const chosen = selectedPanel(selection);

  const keys = (event: KeyboardEvent, panel: Panel) => {
    const step = nudge(event.key, event.shiftKey, units);
    if (step) {
      // quick presses outrun the answers: each one starts from where the last one will have got to
      const x = handle.onItsWay(`panels.${panel.id}.x`) ?? panel.x.mm;
      const y = handle.onItsWay(`panels.${panel.id}.y`) ?? panel.y.mm;
      void handle.edit(positionEdits(panel.id, x + step.dx, y + step.dy));
    } else if (event.key === "r" && !event.ctrlKey && !event.metaKey)
      void handle.edit([{ op: "set", path: `panels.${panel.id}.turned`, value: !panel.turned }]);
    else if (event.key === "Delete") void handle.edit([{ op: "remove", path: `panels.${panel.id}` }]);
    else if (event.key === "Enter" || event.key === " ") select(`panels.${panel.id}`);
    else return;
    event.preventDefault();
  };

  return (
    <g>
      {job.panels.map((panel) => {
        const rect = shapes.get(panel.id);
        if (!rect) return null;
        const moved = drag.moved?.id === panel.id ? drag.moved : null;
        const x = moved ? moved.x : rect.x_mm;
        const y = moved ? moved.y - rect.width_mm / 2 : rect.y_mm;
        const wide = scale.size(rect.length_mm);
        const high = scale.size(rect.width_mm);
        const stop = evaluation.snags.some((s) => s.severity === "stop" && s.place.startsWith(`panels.${panel.id}`));
        const active = chosen === panel.id;
        return (
          <g
            key={panel.id}
            role="button"
            tabIndex={0}
            aria-label={panelName(panel, evaluation.snags, units)}
            aria-pressed={active}
            data-panel={panel.id}
            transform={`translate(${scale.x(x)} ${scale.y(y)})`}
            className="cursor-move outline-none group"
            onPointerDown={(event) => {
              select(`panels.${panel.id}`);
              drag.down(event, panel);
            }}
            onPointerMove={drag.move}
            onPointerUp={() => void drag.up()}
            onPointerCancel={drag.cancel}
            onKeyDown={(event) => keys(event, panel)}
            onFocus={() => active || select(`panels.${panel.id}`)}
          >
            <rect
              width={wide}
              height={high}
              fill={active ? "var(--color-tape)" : "var(--color-ink)"}
              fillOpacity={active ? 0.45 : 0.1}
              stroke={stop ? "var(--color-signal)" : "var(--color-ink)"}
              strokeWidth={stop ? 2.4 : 1.2}
              className="group-focus-visible:stroke-[4px]"
            />
            <text
              x={wide / 2}
              y={high / 2 - (stop ? 3 : -5)}
              textAnchor="middle"
              className="font-sign font-semibold text-[15px] fill-ink pointer-events-none"
              stroke="var(--color-paper)"
              strokeWidth={3}
              paintOrder="stroke"
            >
              {nameFits(panel.name, wide) ? panel.name : ""}
              {stop && (
                <tspan x={wide / 2} dy={nameFits(panel.name, wide) ? 16 : 8} fill="var(--color-signal)">
                  stop
                </tspan>
              )}
            </text>
          </g>
        );
      })}
    </g>
  );
}
