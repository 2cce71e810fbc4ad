/** What a layout has to keep to: distances, overhang, areas to keep free, leads, the vehicle's limits. */

import { EntryTable } from "../../fields/EntryTable";
import { Field, Group } from "../../fields/Field";
import { useStoredJob, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";

const SIDES = ["front", "rear", "port", "starboard"] as const;

export function RulesPart() {
  const job = useStoredJob();
  const units = useUnits();
  const a = job.assumptions;
  const general = length(a.edge_clearance.mm, units);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
      <div>
        <Group title="Distances">
          <div className="grid grid-cols-3 gap-x-4 gap-y-1.5">
            <Field label="To every edge" path="assumptions.edge_clearance" value={a.edge_clearance} />
            <Field label="Between panels" path="assumptions.panel_gap" value={a.panel_gap} />
            <Field label="Leads of a pair bridge" path="assumptions.cable_reach" value={a.cable_reach} />
          </div>
          <div className="grid grid-cols-4 gap-x-4 gap-y-1.5 pt-1.5">
            {SIDES.map((side) => (
              <Field
                key={side}
                label={`${side} edge`}
                path={`assumptions.margins.${side}`}
                value={a.margins[side]}
                placeholder={general}
                clearable
              />
            ))}
          </div>
          <p className="text-soft text-[13px] pt-1">
            A negative distance lets panels hang over that edge. Careful people do not: the stream gets under it.
          </p>
        </Group>
      </div>
      <Group title="The vehicle’s limits">
        <div className="grid grid-cols-3 gap-x-4 gap-y-1.5">
          <Field
            label="Height of the bare roof"
            path="vehicle.height"
            value={job.vehicle.height}
            placeholder="2.85 m"
            clearable
          />
          <Field
            label="Height limit"
            path="vehicle.height_limit"
            value={job.vehicle.height_limit}
            placeholder="3.20 m"
            clearable
          />
          <Field
            label="Width limit"
            path="vehicle.width_limit"
            value={job.vehicle.width_limit}
            placeholder="2.55 m"
            clearable
          />
        </div>
        <p className="text-soft text-[13px] pt-1">
          Local rules on width, height and registration come first. The roof load limit stands in the survey.
        </p>
      </Group>
      <div className="xl:col-span-2">
        <Group title="Keep free">
          <EntryTable
            path="keep_free"
            noun="free area"
            entries={job.keep_free}
            empty="A walkway, the landing of a ladder, room for a panel that comes later: proposals keep off them."
            columns={[
              {
                key: "kind",
                label: "kind",
                width: "18%",
                options: [
                  ["walkway", "walkway"],
                  ["landing", "ladder landing"],
                  ["later", "room for later"],
                ],
              },
              { key: "name", label: "name", placeholder: "name" },
              { key: "x", label: "x, front", placeholder: "x" },
              { key: "y", label: "y, middle", placeholder: "y" },
              { key: "length", label: "length", placeholder: "length" },
              { key: "width", label: "width", placeholder: "width" },
            ]}
          />
        </Group>
      </div>
    </div>
  );
}
