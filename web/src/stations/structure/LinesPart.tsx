/** Mounting lines: marks where a foot stands plumb, the four schools, the lean left at each mark and the bar that cancels it. */
import type { Findings } from "../../api/types";
import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useDesk, useEvaluation, useStoredJob, useUnits } from "../../job/JobContext";
import { angle, length } from "../../ui/format";

const SCHOOLS: Record<string, string> = {
  mean: "mean",
  most_frequent: "most frequent",
  median: "median",
  robust: "robust fit",
};
type Side = Findings["lines"]["sides"][number];

export function LinesPart() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const lines = evaluation.findings.lines;
  const m = job.mounting;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[2fr_3fr] gap-x-8">
      <div>
        <Group
          title="Plumb marks"
          aside={<span className="text-soft text-[13px]">offset where the foot stands plumb</span>}
        >
          <EntryTable
            path="mounting.marks"
            noun="mark"
            entries={m.marks}
            empty="Walk the gauge down the side at each member until the foot’s upright is plumb; mark it, both sides."
            columns={[
              { key: "x", label: "x", placeholder: "966 mm" },
              {
                key: "side",
                label: "side",
                width: "36%",
                options: [
                  ["port", "port"],
                  ["starboard", "starboard"],
                ],
              },
              { key: "offset", label: "offset", placeholder: "612 mm" },
            ]}
          />
        </Group>
        <div className="grid grid-cols-3 gap-x-4 gap-y-1.5 items-end">
          <Field label="Base width of a foot" path="mounting.base_width" value={m.base_width} />
          <Field label="Width of the bar under it" path="mounting.bar_width" value={m.bar_width} />
          <Field
            label="No marks: line wanted at"
            path="mounting.wanted"
            value={m.wanted}
            placeholder="660 mm"
            clearable
          />
          <Choice
            label="Line by"
            path="mounting.school"
            value={m.school ?? "recommended"}
            onChange={(value) =>
              handle.change([{ op: "set", path: "mounting.school", value: value === "recommended" ? null : value }])
            }
            options={[["recommended", "as recommended"], ...Object.entries(SCHOOLS)] as const}
          />
          {lines.common_mm !== null && lines.common_mm !== undefined && (
            <Tick
              label={`Both sides at ${length(lines.common_mm, units)}`}
              path="mounting.common"
              value={m.common ?? false}
            />
          )}
        </div>
      </div>
      <Group
        title="Lines"
        aside={
          lines.check_mm ? (
            <span className="font-semibold">between the lines {length(lines.check_mm, units)}, at both ends</span>
          ) : null
        }
      >
        {!lines.sides.length && (
          <p>No marks yet. With a measured crown, type where the line is wanted and it is computed at every member.</p>
        )}
        {lines.sides.map((line) => (
          <SideLine key={line.side} line={line} />
        ))}
        {lines.sides.length > 0 && lines.chalk_front_x_mm !== null && lines.chalk_front_x_mm !== undefined && (
          <p className="text-soft">
            Chalk from x {length(lines.chalk_front_x_mm, units)} to {length(lines.chalk_rear_x_mm ?? 0, units)}. Front
            and rear bracket in line matter; the two lines 10–15 mm out of parallel do not (common practice).
          </p>
        )}
      </Group>
    </div>
  );
}

function SideLine({ line }: { line: Side }) {
  const units = useUnits();
  return (
    <div className="pb-3">
      <p className="font-sign font-semibold text-[20px]">
        {line.side} {length(line.offset_mm, units)}
        <span className="text-[15px] text-soft font-medium">
          {" "}
          from the centre, {line.from_crown ? "from the crown" : SCHOOLS[line.chosen]}
        </span>
      </p>
      <p className="text-[13px] text-soft">
        {line.schools.map((s) => `${SCHOOLS[s.name]} ${length(s.offset_mm, units)}`).join(" · ")}. Recommended:{" "}
        {SCHOOLS[line.recommended]}. {line.reason}
        {Math.abs(line.drift_mm) > 15
          ? ` The marks run out ${length(line.drift_mm, units)} from front to rear: set both ends one by one.`
          : ""}
      </p>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>at x</th>
            <th>mark</th>
            <th>lean left</th>
            <th>bar under the edge</th>
          </tr>
        </thead>
        <tbody>
          {line.marks.map((mark) => (
            <tr key={mark.mark}>
              <td>{length(mark.x_mm, units)}</td>
              <td className={mark.stray ? "text-signal font-semibold" : ""}>
                {length(mark.offset_mm, units)}
                {mark.stray ? ", stray: measure again" : ""}
              </td>
              <td>
                {mark.lean_deg === null || mark.lean_deg === undefined ? (
                  "crown not measured"
                ) : (
                  <Worked place={`mounting/${line.side} ${mark.mark}`} title="lean and wedge">
                    {angle(mark.lean_deg)}
                  </Worked>
                )}
              </td>
              <td>
                {mark.wedge_mm === null || mark.wedge_mm === undefined
                  ? ""
                  : mark.wedge_mm < 0.5
                    ? "none"
                    : `${length(mark.wedge_mm, units)}, ${mark.under}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
