import type { KeyboardEvent } from "react";
import type { FootPlace, Panel } from "../../api/types";
import { useDesk, useEvaluation, useStoredJob, useUnits } from "../../job/JobContext";
import { nudge } from "../../roof/geometry";
import type { LayerProps } from "../../roof/layer";
import { footName, footState } from "../../roof/names";
import { isRoaming } from "../../roof/roaming";
import { StateShape } from "../../ui/StateMark";

/** Feet with their state; a foot off its member carries a tail to it. */
export function FootShapes({ scale }: LayerProps) {
  const { selection, go, handle } = useDesk();
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const panels = new Map(job.panels.map((p) => [p.id, p]));
  const members = new Map(evaluation.findings.members.members.map((m) => [m.number, m.x_mm]));
  const verdicts = new Map(
    [...evaluation.findings.verdicts, ...evaluation.findings.carriers]
      .flatMap((v) => v.feet)
      .map((f) => [`${f.panel}.${f.foot}`, f] as const),
  );
  const refused = new Set(evaluation.spoken.refused_feet);

  const keys = (event: KeyboardEvent, panel: Panel, place: FootPlace) => {
    const path = `panels.${panel.id}.feet.${place.foot}`;
    const step = isRoaming() ? null : nudge(event.key, event.shiftKey, units);
    const along = step ? (place.side === "port" || place.side === "starboard" ? step.dx : step.dy) : 0;
    if (along)
      handle.change([
        {
          op: "set",
          path: `${path}.along`,
          value: { mm: (handle.onItsWay(`${path}.along`) ?? place.along_mm) + along },
        },
        { op: "set", path: `${path}.pinned`, value: true },
      ]);
    else if (event.key === "Enter" || event.key === " ") go("hold", path);
    else if (event.key === "Delete") handle.change([{ op: "remove", path }]);
    else return;
    event.stopPropagation();
    event.preventDefault();
  };

  /** Feet at a place of their own: all of that place move together. */
  const shift = (event: KeyboardEvent, path: string, place: FootPlace) => {
    const step = isRoaming() ? null : nudge(event.key, event.shiftKey, units);
    if (step?.dx)
      handle.change([
        { op: "set", path: `${path}.x`, value: { mm: (handle.onItsWay(`${path}.x`) ?? place.x_mm) + step.dx } },
      ]);
    else if (event.key === "Enter" || event.key === " ") go("hold", path);
    else if (event.key === "Delete") handle.change([{ op: "remove", path }]);
    else return;
    event.stopPropagation();
    event.preventDefault();
  };

  return (
    <g>
      {evaluation.findings.feet.map((place) => {
        const panel = panels.get(place.panel);
        const carrier = job.carriers.find((c) => c.id === place.panel);
        if (!panel && !carrier) return null;
        const verdict = verdicts.get(`${place.panel}.${place.foot}`);
        const own = carrier?.feet_at.find((at) => place.foot === place.line + at.id || place.line === `k${at.id}`);
        const path = own
          ? `carriers.${place.panel}.feet_at.${own.id}`
          : carrier
            ? `carriers.${carrier.id}`
            : `panels.${place.panel}.feet.${place.foot}`;
        const active = selection === path;
        const target = place.member ? members.get(place.member) : undefined;
        const tail = target !== undefined && place.landing !== "member" ? scale.size(target - place.x_mm) : 0;
        const state = footState(verdict, refused.has(`${place.panel}.${place.foot}`));
        const name = footName((panel ?? carrier)?.name ?? "", place, state, units);
        return (
          <g
            key={`${place.panel}.${place.foot}`}
            role="button"
            tabIndex={-1}
            aria-label={name}
            aria-pressed={active}
            data-foot={`${place.panel}.${place.foot}`}
            data-state={state}
            transform={`translate(${scale.x(place.x_mm)} ${scale.y(place.y_mm)})`}
            className="outline-none group cursor-pointer"
            onClick={() => go("hold", path)}
            onKeyDown={(event) =>
              panel
                ? keys(event, panel, place)
                : own
                  ? shift(event, path, place)
                  : event.key === "Enter" && go("hold", path)
            }
          >
            <title>{name}</title>
            {tail !== 0 && (
              <line x2={tail} stroke="var(--color-ink)" strokeWidth={1} strokeDasharray="2 2" pointerEvents="none" />
            )}
            <circle
              r={10}
              fill={active ? "var(--color-tape)" : "transparent"}
              className="group-focus-visible:stroke-ink group-focus-visible:stroke-[2.5px]"
            />
            <StateShape state={state} r={4.6} />
          </g>
        );
      })}
    </g>
  );
}
