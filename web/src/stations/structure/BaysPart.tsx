/** Between the members: how soft the skin, whether it drums, what may be fastened there, best first. */
import type { Spot } from "../../api/types";
import { Group } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useEvaluation, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";
import { SpotQuestion } from "./SpotQuestion";

export function BaysPart() {
  const evaluation = useEvaluation();
  const units = useUnits();
  const bays = evaluation.findings.bays;
  if (!bays.length) return <p>Find the members first: then each bay between them is judged here.</p>;
  return (
    <Group
      title="Middle of each bay, its weakest spot"
      aside={<span className="text-soft text-[13px]">simply supported strip: the soft end; limits by judgement</span>}
    >
      <SpotQuestion />
      <table className="sheet-table">
        <thead>
          <tr>
            <th>bay</th>
            <th>middle at x</th>
            <th>gives under 100 N</th>
            <th>hums from</th>
            <th>drumming</th>
            <th>may be fastened by, best first</th>
          </tr>
        </thead>
        <tbody>
          {bays.map((bay) => (
            <tr key={bay.x_mm}>
              <td>
                m{bay.member_before}–m{bay.member_behind}
              </td>
              <td className="whitespace-nowrap">{length(bay.x_mm, units)}</td>
              <td>
                {bay.stiffness_n_mm ? (
                  <Worked place={`structure/bay ${bay.member_before}`} title="stiffness of the skin">
                    {length(100 / bay.stiffness_n_mm, units)}
                  </Worked>
                ) : (
                  "skin not known"
                )}
              </td>
              <td>{bay.frequency_hz ? `${bay.frequency_hz.toFixed(0)} Hz` : ""}</td>
              <td className={bay.drumming === "strong" ? "font-semibold" : ""}>{bay.drumming}</td>
              <td className="text-[13px]">{ways(bay)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}

function ways(bay: Spot): string {
  const allowed = bay.ranking.filter((w) => w.rank !== null && w.rank !== undefined).map((w) => w.way);
  const refused = bay.ranking.filter((w) => (w.rank === null || w.rank === undefined) && w.way !== "member");
  return `${allowed.join(", ")}. Refused: ${refused.map((w) => `${w.way} (${w.why})`).join(", ") || "nothing"}.`;
}
