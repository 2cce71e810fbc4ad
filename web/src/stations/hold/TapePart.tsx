/** What each taped foot asks of its tape: in the worst gust, for hours, for good; and whether it touches at all. */
import { Group } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useFinding, useUnits } from "../../job/JobContext";
import { length, percent, stress } from "../../ui/format";

export function TapePart({ holder }: { holder: string }) {
  const units = useUnits();
  const feet = useFinding("taped").filter((f) => f.panel === holder);
  if (!feet.length) return null;
  return (
    <Group
      title="Tape"
      aside={<span className="text-[13px]">83 kPa for a minute, 14 for four hours, 1.7 for good; less when hot</span>}
    >
      <table className="sheet-table">
        <thead>
          <tr>
            <th>foot</th>
            <th>gust, mean</th>
            <th>at its edge</th>
            <th>for hours</th>
            <th>for good, by the curve</th>
            <th>touches</th>
            <th>curve</th>
          </tr>
        </thead>
        <tbody>
          {feet.map((foot) => {
            const creeps = foot.lasting_n_mm2 > foot.lasting_bears_n_mm2;
            return (
              <tr key={foot.foot}>
                <td className="font-semibold">{foot.foot}</td>
                <td>{stress(foot.average_n_mm2, units)}</td>
                <td>{stress(foot.edge_n_mm2, units)}</td>
                <td className={creeps ? "text-signal font-semibold" : ""}>
                  {stress(foot.lasting_n_mm2, units)} of {stress(foot.lasting_bears_n_mm2, units)}
                </td>
                <td>
                  <Worked place={`tape/${holder}/${foot.foot}`} title={`Tape of foot ${foot.foot}`}>
                    {known(foot.permanent_n_mm2) ? stress(foot.permanent_n_mm2, units) : "crown not known"}
                  </Worked>
                </td>
                <td>{known(foot.touching) ? percent(foot.touching) : "not known"}</td>
                <td>{known(foot.radius_mm) ? `radius ${length(foot.radius_mm, units)}` : "flat or not known"}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Group>
  );
}

const known = (value: number | null | undefined): value is number => value !== null && value !== undefined;
