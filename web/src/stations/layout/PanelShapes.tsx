import { type KeyboardEvent, useRef } from "react";
import type { Panel } from "../../api/types";
import { selectedPanel, useDesk, useEvaluation, useStoredJob, useUnits } from "../../job/JobContext";
import { nameFits, nudge } from "../../roof/geometry";
import type { LayerProps } from "../../roof/layer";
import { panelName } from "../../roof/names";
import { isRoaming, stopRoaming } from "../../roof/roaming";
import { positionEdits, together } from "../../roof/useDrag";

/** Panels: planned, so thin ink. Dragged by pointer, nudged by arrow keys, turned with R, removed with Delete. */
export function PanelShapes({ scale, drag }: LayerProps) {
  const { selection, select, picked, pick, handle } = useDesk();
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const shapes = new Map(evaluation.findings.shapes.map((s) => [s.id, s.rect]));
  const chosen = selectedPanel(selection);
  /** A pointer picks for itself; focus that comes with it must not pick again. */
  const pointing = useRef(false);

  const keys = (event: KeyboardEvent, panel: Panel) => {
    const step = isRoaming() ? null : nudge(event.key, event.shiftKey, units);
    if (step) {
      // quick presses outrun the answers: each one starts from where the last one will have got to
      handle.change(positionEdits(together(job.panels, panel), step.dx, step.dy, handle.onItsWay));
    } else if (event.key === "r" && !event.ctrlKey && !event.metaKey)
      handle.change([{ op: "set", path: `panels.${panel.id}.turned`, value: !panel.turned }]);
    else if (event.key === "l" && !event.ctrlKey && !event.metaKey)
      handle.change([{ op: "set", path: `panels.${panel.id}.locked`, value: !panel.locked }]);
    else if (event.key === "Delete") handle.change([{ op: "remove", path: `panels.${panel.id}` }]);
    else if ((event.key === "Enter" || event.key === " ") && event.shiftKey) pick(panel.id);
    else if (event.key === "Enter" || event.key === " ") {
      stopRoaming();
      select(`panels.${panel.id}`);
    } else return;
    event.stopPropagation();
    event.preventDefault();
  };

  return (
    <g>
      {job.panels.map((panel) => {
        const rect = shapes.get(panel.id);
        if (!rect) return null;
        // panel, feet, distances and verdict are drawn from one evaluation; what the pointer holds runs ahead as an outline
        const { x_mm: x, y_mm: y } = rect;
        const moved = drag.moved?.ids.includes(panel.id) ? drag.moved : null;
        const ahead = moved && {
          x: panel.x.mm + moved.dx - x,
          y: panel.y.mm + moved.dy - rect.width_mm / 2 - y,
        };
        const wide = scale.size(rect.length_mm);
        const high = scale.size(rect.width_mm);
        const stop = evaluation.snags.some((s) => s.severity === "stop" && s.place.startsWith(`panels.${panel.id}`));
        const active = chosen === panel.id || picked.includes(panel.id);
        return (
          <g
            key={panel.id}
            role="button"
            tabIndex={-1}
            aria-label={panelName(panel, evaluation.snags, units)}
            aria-pressed={active}
            data-panel={panel.id}
            transform={`translate(${scale.x(x)} ${scale.y(y)})`}
            className={`${panel.locked ? "cursor-default" : "cursor-move"} outline-none group`}
            onPointerDown={(event) => {
              pointing.current = true;
              if (event.shiftKey) pick(panel.id);
              else select(`panels.${panel.id}`);
              drag.down(event, panel, rect);
            }}
            onPointerMove={drag.move}
            onPointerUp={() => {
              pointing.current = false;
              void drag.up();
            }}
            onPointerCancel={() => {
              pointing.current = false;
              drag.cancel();
            }}
            onKeyDown={(event) => keys(event, panel)}
            onFocus={() => {
              if (!pointing.current && !active && !picked.length && !isRoaming()) select(`panels.${panel.id}`);
            }}
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
            {ahead && (
              <rect
                data-ahead
                x={scale.size(ahead.x)}
                y={scale.size(ahead.y)}
                width={wide}
                height={high}
                fill="none"
                stroke="var(--color-ink)"
                strokeWidth={1}
                strokeDasharray="5 3"
                pointerEvents="none"
              />
            )}
            {panel.locked && <path d="M5 11 v-3 a3.5 3.5 0 0 1 7 0 v3 h1.5 v7 h-10 v-7 z" fill="var(--color-ink)" />}
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
