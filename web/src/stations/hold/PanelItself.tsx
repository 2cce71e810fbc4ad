/** The panel as a link of its own: what its sheet says it bears, at how many points, and where they may lie. */
import type { Panel } from "../../api/types";
import { Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { pressure, speed } from "../../ui/format";

const OF_SHEET = ["uplift", "mounting_points", "zone_from", "zone_to"] as const;

export function PanelItself({ panel }: { panel: Panel }) {
  const { handle } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const rated = useFinding("verdicts").find((v) => v.panel === panel.id)?.rated;
  const { model } = panel;
  const path = `panels.${panel.id}.model`;
  const alike = job.panels.filter((p) => p.id !== panel.id && p.model.name === model.name);
  const toAll = () =>
    handle.change(
      alike.flatMap((p) =>
        OF_SHEET.map((field) => ({ op: "set" as const, path: `panels.${p.id}.model.${field}`, value: model[field] })),
      ),
    );
  return (
    <Group
      title="The panel itself"
      aside={
        alike.length > 0 && (
          <button type="button" className="underline text-[13px]" onClick={toAll}>
            same for all {model.name}
          </button>
        )
      }
    >
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <Field
          label="Rated uplift, design"
          path={`${path}.uplift`}
          value={model.uplift}
          placeholder={units === "metric" ? "1600 Pa" : "33 psf"}
          clearable
        />
        <Field
          label="Mounting points"
          path={`${path}.mounting_points`}
          value={model.mounting_points}
          placeholder="4"
          clearable
        />
        <Field label="Zone from the end" path={`${path}.zone_from`} value={model.zone_from} clearable />
        <Field label="… to" path={`${path}.zone_to`} value={model.zone_to} clearable />
      </div>
      {rated && (
        <p className="text-[13px] pt-1">
          {pressure(rated.pressure_pa, units)} on it at the probed speed, {pressure(rated.rated_pa, units)}{" "}
          {rated.known ? "by its sheet" : "taken, its sheet is silent"}: reached at {speed(rated.safe_m_s, units)}.
        </p>
      )}
    </Group>
  );
}
