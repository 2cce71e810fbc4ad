/** Bolts by joint: what they pass, the length from the shelf, how tight; the fewest lengths for all. */
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { force, length } from "../../ui/format";
import { NoPieces } from "./NoPieces";

export function BoltsPart() {
  const bolts = useFinding("bolts");
  const { bolting } = useStoredJob().workshop;
  if (!bolts.length) return <NoPieces />;
  return (
    <>
      <Group title="How they are set">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5 max-w-[860px] items-end">
          <Choice
            label="Thread"
            path="workshop.bolting.lubrication"
            value={bolting.lubrication}
            options={[
              ["anti_seize", "anti-seize"],
              ["oil", "oiled"],
              ["dry", "dry"],
            ]}
          />
          <Choice
            label="Locked by"
            path="workshop.bolting.locking"
            value={bolting.locking}
            options={[
              ["nylon_nut", "nylon-insert nut"],
              ["threadlocker", "threadlocker"],
              ["serrated_flange", "serrated flange"],
              ["spring_washer", "spring washer"],
            ]}
          />
          <Choice
            label="Heads"
            path="workshop.bolting.heads"
            value={bolting.heads}
            options={[
              ["hex", "hexagon"],
              ["button", "button"],
              ["countersunk", "countersunk"],
            ]}
          />
          <Choice
            label="Corners go into"
            path="workshop.bolting.corners"
            value={bolting.corners}
            options={[
              ["nuts", "nuts"],
              ["tapped", "threads in the rail"],
            ]}
          />
          <Field label="Foam under the rails" path="workshop.bolting.pad" value={bolting.pad} />
          <Tick label="Spacer sleeves in closed tubes" path="workshop.bolting.spacers" value={bolting.spacers} />
        </div>
      </Group>
      <Joints />
      <Fewest />
    </>
  );
}

function Joints() {
  const bolts = useFinding("bolts");
  const { openWorking } = useDesk();
  const units = useUnits();
  const names = new Map(useStoredJob().carriers.map((c) => [c.id, c.name]));
  return (
    <Group
      title="Joints"
      aside={<span className="text-[13px]">with two washers, lock nut and two threads beyond it</span>}
    >
      <table className="sheet-table max-w-[860px]">
        <thead>
          <tr>
            <th>joint</th>
            <th className="!text-right">how many</th>
            <th className="!text-right">parts</th>
            <th className="!text-right">needs</th>
            <th className="!text-right">take</th>
            <th className="!text-right">torque</th>
            <th className="!text-right">preload</th>
            <th>
              <span className="sr-only">working</span>
            </th>
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
              <td className="num">
                {line.tight.torque_n_m.toFixed(1)} N·m
                {line.tight.set_by === "wall" ? ", the tube's wall" : ""}
              </td>
              <td className="num">
                {force(line.tight.least_n, units)} … {force(line.tight.most_n, units)}
              </td>
              <td className="num">
                <button
                  type="button"
                  className="underline text-[13px]"
                  onClick={() => openWorking(`bolts/${line.carrier}`, `Bolts, ${names.get(line.carrier)}`)}
                >
                  working
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[13px] pt-1">What a lock nut drags by itself comes on top. The bolt's maker decides.</p>
    </Group>
  );
}

function Fewest() {
  const sets = useFinding("bolt_choice").filter((set) => set.lengths_mm.length < set.before);
  const names = new Map(useStoredJob().carriers.map((c) => [c.id, c.name]));
  return sets.map((set) => (
    <Group
      key={set.size}
      title={`Fewer lengths: ${set.lengths_mm.length} instead of ${set.before}`}
      aside={<span className="text-[13px]">fewer do not serve all joints</span>}
    >
      <p className="pb-1">
        {set.lengths_mm.map((mm, i) => (
          <span key={mm} className="font-semibold mr-4">
            {set.counts[i]} of {set.size} × {mm.toFixed(0)}
          </span>
        ))}
      </p>
      <ul className="text-[13.5px]">
        {set.served
          .filter((joint) => joint.washers > 0)
          .map((joint) => (
            <li key={`${joint.carrier} ${joint.joint}`}>
              {names.get(joint.carrier)}, {joint.joint}: {joint.washers} more{" "}
              {joint.washers === 1 ? "washer" : "washers"} under the nut.
            </li>
          ))}
      </ul>
    </Group>
  ));
}
