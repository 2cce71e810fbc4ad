/** The selected panel: where it lies, how it is raised, its feet, its leads, the marks to set it by. */
import { useState } from "react";
import type { Panel } from "../../api/types";
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useDesk, useFinding, useUnits } from "../../job/JobContext";
import { across, length } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { ReplaceModel } from "./ReplaceModel";

const FEET = [4, 6, 8, 10, 12];
const SIDES = [
  ["front", "front"],
  ["rear", "rear"],
  ["port", "port"],
  ["starboard", "starboard"],
] as const;

export function PanelFields({ panel }: { panel: Panel }) {
  const { handle } = useDesk();
  const distances = useFinding("distances");
  const shapes = useFinding("shapes");
  const units = useUnits();
  const path = `panels.${panel.id}`;
  const near = distances.filter((d) => d.panel === panel.id);
  const alongEnds = panel.feet.some((f) => f.side === "front" || f.side === "rear");
  const spread = (count: number, along: "sides" | "ends") =>
    handle.change([{ op: "spread_feet", panel: panel.id, count, along }]);
  const names = new Map(shapes.map((s) => [s.id, s.kind]));
  return (
    <Group title={panel.name} aside={<Tick label="locked" path={`${path}.locked`} value={panel.locked} />}>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5">
        <Field label="Name" path={`${path}.name`} value={panel.name} />
        <Field label="x, front edge" path={`${path}.x`} value={panel.x} />
        <Field label="y, middle, to starboard" path={`${path}.y`} value={panel.y} />
        <Field label="Stand-off" word="stand-off" path={`${path}.stand_off`} value={panel.stand_off} />
        <Field
          label="Measured length"
          path={`${path}.measured_length`}
          value={panel.measured_length}
          placeholder={length(panel.model.length.mm, units)}
          clearable
        />
        <Field
          label="Measured width"
          path={`${path}.measured_width`}
          value={panel.measured_width}
          placeholder={length(panel.model.width.mm, units)}
          clearable
        />
        <Field label="Raised when parked" path={`${path}.tilt`} value={panel.tilt} />
        <Choice label="Raised edge" path={`${path}.tilt_up`} value={panel.tilt_up} options={SIDES} />
        <Choice label="Leads come out at" path={`${path}.cable_end`} value={panel.cable_end} options={SIDES} />
        <Field label="Pair" word="pair" path={`${path}.pair`} value={panel.pair} placeholder="A" clearable />
        <Field label="Array" word="array" path={`${path}.array`} value={panel.array} placeholder="rear" clearable />
        <span className="self-end">
          <Tick label="turned, crosswise" path={`${path}.turned`} value={panel.turned} />
        </span>
      </div>
      <div className="flex flex-wrap items-center gap-1.5 pt-2" role="group" aria-label="Number of feet">
        <span className="label pr-1">feet, spread evenly</span>
        {FEET.map((count) => (
          <button
            key={count}
            type="button"
            className="act"
            data-on={panel.feet.length === count}
            onClick={() => spread(count, alongEnds ? "ends" : "sides")}
          >
            {count}
          </button>
        ))}
        <span className="w-44">
          <Choice
            bare
            label="Feet along"
            path={`${path}.feet_side`}
            value={alongEnds ? "ends" : "sides"}
            options={[
              ["sides", "at port and starboard"],
              ["ends", "at front and rear"],
            ]}
            onChange={(value) => spread(Math.max(panel.feet.length, 4), value === "ends" ? "ends" : "sides")}
          />
        </span>
      </div>
      <p className="pt-2 text-soft">
        {near
          .map(
            (d) =>
              `${d.kind === "edge" ? d.to : names.get(d.to) === "panel" ? "next panel" : "obstacle"} ${length(d.mm, units)}`,
          )
          .join("  ·  ")}
      </p>
      <FeetNote panel={panel} />
      <SetBy panel={panel} />
      <ReplaceModel panel={panel} />
      <p className="text-soft pt-1 text-[13px]">
        Measure the delivered panel before drilling. A panel in wind is a sail: two people lift, one guides.
      </p>
    </Group>
  );
}

/** Says when the feet change their mind about which members they take. */
function FeetNote({ panel }: { panel: Panel }) {
  const feet = useFinding("feet");
  const taken = feet
    .filter((f) => f.panel === panel.id && f.member !== null && f.member !== undefined)
    .map((f) => `${f.foot} m${f.member}`);
  const now = taken.join(", ");
  const [seen, setSeen] = useState({ panel: panel.id, now, words: "" });
  if (seen.panel !== panel.id) setSeen({ panel: panel.id, now, words: "" });
  else if (seen.now !== now) {
    const before = new Set(seen.now.split(", "));
    const moved = taken.filter((t) => !before.has(t));
    setSeen({ panel: panel.id, now, words: moved.length ? `Feet now take other members: ${moved.join(", ")}.` : "" });
  }
  return seen.words ? (
    <p className="font-semibold text-[13px]" aria-live="polite">
      {seen.words}
    </p>
  ) : null;
}

/** The marks to set a panel by, the air under it, and its twin on the other side. */
function SetBy({ panel }: { panel: Panel }) {
  const { handle, select } = useDesk();
  const clear_heights = useFinding("clear_heights");
  const dry_fit = useFinding("dry_fit");
  const units = useUnits();
  const [attempt, problem] = useTry();
  const marks = dry_fit.find((d) => d.panel === panel.id);
  const air = clear_heights.find((h) => h.panel === panel.id);
  const mirror = async () => {
    const answer = await handle.edit([{ op: "mirror_panel", panel: panel.id }]);
    const twin = answer.job.panels.at(-1);
    if (twin) select(`panels.${twin.id}`);
  };
  return (
    <>
      {marks && (
        <p className="pt-1">
          <span className="font-semibold">Mark on the roof:</span> front x {length(marks.front_x_mm, units)}, rear x{" "}
          {length(marks.rear_x_mm, units)}; sides {across(marks.port_y_mm, units)} and{" "}
          {across(marks.starboard_y_mm, units)}. Both diagonals {length(marks.diagonal_mm, units)}.
        </p>
      )}
      {air && (
        <p className={air.least_mm < 0 ? "text-signal font-semibold" : ""}>
          Clear of the crown by{" "}
          <Worked place={`clear height/${panel.id}`} title="clear height">
            {length(air.least_mm, units)}
          </Worked>
          ; feet stand off one plane by up to {length(air.feet_off_plane_mm, units)}: shim them.
        </p>
      )}
      <button type="button" className="act mt-1" onClick={() => void attempt(mirror)}>
        Mirror to the other side
      </button>
      {problem}
    </>
  );
}
