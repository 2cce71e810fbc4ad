/** Crown: gaps under a straight-edge or gauge readings across, gaps under a line lengthwise; what the fitted roof is like. */

import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { useCursor } from "../../roof/cursor";
import { doubtAt, heightAt } from "../../roof/profile";
import { length } from "../../ui/format";
import { CrownQuestion } from "./CrownQuestion";

export function CrownPart() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const survey = useFinding("survey");
  const units = useUnits();
  const cursor = useCursor();
  const crown = job.survey.crown;
  const found = survey.crown;
  const middle = (job.vehicle.roof_length?.mm ?? 4000) / 2;
  const add = () => handle.change([{ op: "add", path: "survey.crown.sections", value: { x: { mm: middle } } }]);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
      <div>
        {crown.sections.map((section, index) => {
          const path = `survey.crown.sections.${section.id}`;
          return (
            <Group
              key={section.id}
              title={`Across, ${index + 1}`}
              aside={
                <button
                  type="button"
                  className="underline text-[13px]"
                  onClick={() => handle.change([{ op: "remove", path }])}
                >
                  remove
                </button>
              }
            >
              <div className="grid grid-cols-3 gap-x-4 pb-1">
                <Field label="At x" path={`${path}.x`} value={section.x} />
                <Choice
                  label="Straight-edge"
                  path={`${path}.edge`}
                  value={section.edge}
                  options={[
                    ["free", "laid on as it lies"],
                    ["level", "held level"],
                  ]}
                />
              </div>
              <EntryTable
                path={`${path}.readings`}
                noun="crown reading"
                entries={section.readings}
                empty="From port to starboard: y, then the gap under the straight-edge, or the gauge’s angle."
                columns={[
                  { key: "y", label: "y, to starboard", placeholder: "-900 mm" },
                  { key: "gap", label: "gap", placeholder: "84 mm", optional: true },
                  { key: "angle", label: "or angle, falls to starboard +", placeholder: "3.5°", optional: true },
                ]}
              />
            </Group>
          );
        })}
        <button type="button" className="act mb-3" onClick={add}>
          + cross-section
        </button>
      </div>
      <div>
        <Group title="The roof that fits" aside={found && <span className="text-soft">{found.readings} readings</span>}>
          {found ? (
            <>
              <p className="font-sign font-semibold text-[26px] leading-8">
                rises {length(found.rise_mm, units)}
                <span className="text-[17px] text-soft">
                  {" "}
                  edge to middle
                  {found.radius_mm
                    ? `, radius ${(found.radius_mm / 1000).toFixed(1)} m`
                    : ", nearly flat in the middle"}
                </span>
              </p>
              {cursor && (
                <p>
                  At the cursor {length(heightAt(found, cursor.x, cursor.y), units)} ±{" "}
                  {length(2 * doubtAt(found, cursor.x, cursor.y), units)} over the middle of the roof.
                </p>
              )}
            </>
          ) : null}
          {found ? (
            <CrownQuestion />
          ) : (
            <p>Not measured: drawn flat. Two cross-sections with five gaps each settle most roofs.</p>
          )}
        </Group>
        <Group title="Gauge">
          <div className="grid grid-cols-3 gap-x-4">
            <Field
              label="Shows on a level part inside"
              path="survey.crown.gauge_zero"
              value={crown.gauge_zero}
              word="gauge zero"
            />
            <Field label="Vehicle leans to starboard" path="survey.crown.lean" reads="angle" value={crown.lean} />
          </div>
        </Group>
        <Group
          title="Lengthwise"
          aside={<span className="text-soft text-[13px]">gap under a string or straight-edge on the centre line</span>}
        >
          <EntryTable
            path="survey.crown.lengthwise"
            noun="lengthwise reading"
            entries={crown.lengthwise}
            empty="Front and rear, where the roof falls away."
            columns={[
              { key: "x", label: "x", placeholder: "200 mm" },
              { key: "gap", label: "gap", placeholder: "35 mm" },
            ]}
          />
        </Group>
      </div>
    </div>
  );
}
