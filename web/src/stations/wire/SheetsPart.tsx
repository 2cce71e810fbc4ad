/** The electrical side of the panels' data sheets, model by model, and where the leads of each panel come out. */
import type { Job, PanelModel } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useStoredJob } from "../../job/JobContext";

type Panel = Job["panels"][number];

const SHEET = [
  ["voc", "Open volts", "37.2 V"],
  ["vmp", "Running volts", "30.6 V"],
  ["isc", "Short amps", "8.6 A"],
  ["imp", "Running amps", "8.2 A"],
  ["voc_per_k", "Volts per K, %", "-0.30"],
  ["isc_per_k", "Amps per K, %", "0.05"],
  ["power_per_k", "Power per K, %", "-0.38"],
  ["cells", "Cells", "60"],
  ["bypass_diodes", "Bypass diodes", "3"],
  ["max_fuse", "Largest fuse", "15 A"],
] as const satisfies readonly (readonly [keyof PanelModel, string, string])[];

export function SheetsPart() {
  const { panels } = useStoredJob();
  const names = [...new Set(panels.map((p) => p.model.name))];
  return (
    <>
      {names.map((name) => (
        <Sheet key={name} name={name} panels={panels.filter((p) => p.model.name === name)} />
      ))}
      <Leads panels={panels} />
    </>
  );
}

/** One model; its first panel is typed, the others are given the same. */
function Sheet({ name, panels }: { name: string; panels: readonly Panel[] }) {
  const { handle } = useDesk();
  const [first, ...rest] = panels;
  if (!first) return null;
  const told = JSON.stringify(first.model);
  const other = rest.filter((p) => JSON.stringify(p.model) !== told);
  const same = () =>
    handle.change(other.map((p) => ({ op: "set" as const, path: `panels.${p.id}.model`, value: first.model })));
  return (
    <Group
      title={name}
      aside={
        <span className="text-[13px]">
          {panels.length} {panels.length === 1 ? "panel" : "panels"}, {Math.round(first.model.power.w)} W
        </span>
      }
    >
      <div className="grid grid-cols-3 sm:grid-cols-5 gap-x-4 gap-y-1.5 max-w-[1000px]">
        {SHEET.map(([key, label, hint]) => (
          <Field
            key={key}
            label={label}
            path={`panels.${first.id}.model.${key}`}
            value={first.model[key] as never}
            placeholder={hint}
            clearable
          />
        ))}
      </div>
      {other.length > 0 && (
        <p className="pt-1.5 flex items-baseline gap-3">
          <span>
            This is the sheet of {first.name}; {other.map((p) => p.name).join(", ")}{" "}
            {other.length === 1 ? "has" : "have"} another.
          </span>
          <button type="button" className="act !h-[30px]" onClick={same}>
            The same for all {panels.length}
          </button>
        </p>
      )}
    </Group>
  );
}

function Leads({ panels }: { panels: readonly Panel[] }) {
  return (
    <Group title="Where the leads come out" aside={<span className="text-[13px]">look at the panel's back</span>}>
      <div className="grid grid-cols-2 sm:grid-cols-5 gap-x-4 gap-y-1.5 max-w-[1000px]">
        {panels.map((panel) => (
          <Choice
            key={panel.id}
            label={panel.name}
            path={`panels.${panel.id}.cable_end`}
            value={panel.cable_end}
            options={[
              ["front", "front edge"],
              ["rear", "rear edge"],
              ["port", "port edge"],
              ["starboard", "starboard edge"],
            ]}
          />
        ))}
      </div>
    </Group>
  );
}
