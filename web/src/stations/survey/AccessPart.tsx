/** What bears a person, where the ladder stands, what is open inside, what lies under the skin. */

import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { useFinding, useStoredJob } from "../../job/JobContext";
import { percent } from "../../ui/format";

export function AccessPart() {
  const job = useStoredJob();
  const survey = useFinding("survey");
  const a = job.survey.access;
  const reach = survey.reach;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
      <div>
        <Group
          title="From where"
          aside={reach && <span className="text-soft">{percent(reach.share)} of the roof in reach</span>}
        >
          <div className="grid grid-cols-3 gap-x-4 gap-y-1.5">
            <Choice
              label="Bears a person"
              path="survey.access.walkable"
              value={a.walkable}
              options={[
                ["unknown", "not known"],
                ["no", "no, ladder only"],
                ["yes", "yes"],
              ]}
            />
            <Field
              label="Standing load limit"
              path="survey.access.standing_limit"
              value={a.standing_limit}
              placeholder="300 kg"
              clearable
            />
            <Field label="Reach from the ladder" path="survey.access.reach" value={a.reach} />
          </div>
          <p className="label pt-2">Ladder can stand at</p>
          <div className="flex flex-wrap gap-x-5">
            <Tick label="port" path="survey.access.ladder_port" value={a.ladder_port} />
            <Tick label="starboard" path="survey.access.ladder_starboard" value={a.ladder_starboard} />
            <Tick label="front" path="survey.access.ladder_front" value={a.ladder_front} />
            <Tick label="rear" path="survey.access.ladder_rear" value={a.ladder_rear} />
          </div>
          <p className="text-soft pt-1">
            Ladder on firm ground, second person below. Reached: {reach?.from_where ?? "not known yet"}. Dotted on the
            strip: out of reach.
          </p>
        </Group>
        {job.vehicle.inside === "partial" && (
          <Group title="Open from inside">
            <EntryTable
              path="survey.access.open_bays"
              noun="open stretch"
              entries={a.open_bays}
              empty="Where the ceiling is off: nuts and washers can be set from below only there."
              columns={[
                { key: "start", label: "from x", placeholder: "1.2 m" },
                { key: "end", label: "to x", placeholder: "2.5 m" },
              ]}
            />
          </Group>
        )}
      </div>
      <div className="xl:col-span-2">
        <Group
          title="Lines under the skin"
          aside={<span className="text-soft text-[13px]">no hole comes near them</span>}
        >
          <EntryTable
            path="survey.keep_outs"
            noun="line"
            entries={job.survey.keep_outs}
            empty="Wires, ducts, gas and water: trace them before drilling."
            columns={[
              {
                key: "kind",
                label: "what",
                width: "16%",
                options: [
                  ["wire", "wire"],
                  ["duct", "duct"],
                  ["gas", "gas"],
                  ["water", "water"],
                  ["unknown", "unknown"],
                ],
              },
              { key: "name", label: "name", placeholder: "lamp cable" },
              { key: "from_x", label: "from x", placeholder: "0" },
              { key: "from_y", label: "y", placeholder: "0" },
              { key: "to_x", label: "to x", placeholder: "4 m" },
              { key: "to_y", label: "y", placeholder: "0" },
              { key: "clear", label: "keep clear", placeholder: "50 mm", optional: true },
            ]}
          />
        </Group>
      </div>
    </div>
  );
}
