/** Out of square from sides and diagonals; out of parallel from offsets: which corner or end to move, which way, how much. */

import { EntryTable } from "../../fields/EntryTable";
import { Field, Group } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";

const SIDES = [
  ["port_side", "Port side"],
  ["starboard_side", "Starboard side"],
  ["front_side", "Front side"],
  ["rear_side", "Rear side"],
  ["diagonal_port", "Diagonal, front port to rear starboard"],
  ["diagonal_starboard", "Diagonal, front starboard to rear port"],
] as const;

export function SquarePart() {
  const job = useStoredJob();
  const survey = useFinding("survey");
  const units = useUnits();
  const s = job.survey.squareness;
  const { square, straight } = survey;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
      <Group title="Square">
        <div className="grid grid-cols-2 gap-x-4 gap-y-1.5">
          {SIDES.map(([key, label]) => (
            <Field key={key} label={label} path={`survey.squareness.${key}`} value={s[key]} clearable />
          ))}
        </div>
        {square ? (
          <>
            <p className={`font-sign font-semibold text-[24px] leading-8 pt-1 ${square.square ? "" : "text-signal"}`}>
              <Worked place="squareness" title="out of square">
                {length(Math.abs(square.skew_mm), units)}
              </Worked>{" "}
              out of square
            </p>
            <p>{square.words}</p>
            {square.misfit_mm > 3 && (
              <p className="text-signal font-semibold">
                The measures disagree by {length(square.misfit_mm, units)}: measure again.
              </p>
            )}
          </>
        ) : (
          <p className="pt-2">One long side and both diagonals are enough to begin.</p>
        )}
      </Group>
      <Group
        title="Straight and parallel"
        aside={<span className="text-soft text-[13px]">offsets from a string on the centre line</span>}
      >
        <EntryTable
          path="survey.squareness.offsets"
          noun="offset"
          entries={s.offsets}
          empty="At two or more places: the distance to the port and to the starboard edge or rail."
          columns={[
            { key: "x", label: "x", placeholder: "0" },
            { key: "port", label: "to port", placeholder: "702 mm" },
            { key: "starboard", label: "to starboard", placeholder: "698 mm" },
          ]}
        />
        {straight && (
          <p className="pt-1">
            <span className="font-semibold">{straight.words}</span> Bow: port {length(straight.port_bow_mm, units)},
            starboard {length(straight.starboard_bow_mm, units)}.
          </p>
        )}
      </Group>
    </div>
  );
}
