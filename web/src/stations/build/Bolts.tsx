/** Bolts by joint: what they pass, and the length from the shelf. */
import { Group } from "../../fields/Field";
import { useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";

export function Bolts() {
  const bolts = useFinding("bolts");
  const job = useStoredJob();
  const units = useUnits();
  if (!bolts.length) return null;
  const names = new Map(job.carriers.map((c) => [c.id, c.name]));
  return (
    <Group
      title="Bolts"
      aside={<span className="text-[13px]">with two washers, lock nut and two threads beyond it</span>}
    >
      <table className="sheet-table max-w-[760px]">
        <thead>
          <tr>
            <th>joint</th>
            <th className="!text-right">how many</th>
            <th className="!text-right">parts</th>
            <th className="!text-right">needs</th>
            <th className="!text-right">take</th>
          </tr>
        </thead>
        <tbody>
          {bolts.map((line) => (
            <tr key={`${line.carrier} ${line.joint} ${line.grip_mm}`}>
              <td>
                {names.get(line.carrier)}, {line.joint}
              </td>
              <td className="num">{line.count}</td>
              <td className="num">{length(line.grip_mm, units)}</td>
              <td className="num">{length(line.needed_mm, units)}</td>
              <td className="num font-semibold">
                {line.length_mm ? `${line.size} × ${line.length_mm.toFixed(0)}` : "none is sold"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}
