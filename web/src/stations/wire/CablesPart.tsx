/** Which cable, which way, how long: every run from its lead to the controller, and what to buy for it. */
import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";

const CLIPS = [
  ["stuck", "stuck, no hole"],
  ["screwed", "screwed"],
] as const;

const CABLES = [
  "2.5 mm²",
  "4 mm²",
  "6 mm²",
  "10 mm²",
  "16 mm²",
  "14 AWG",
  "12 AWG",
  "10 AWG",
  "8 AWG",
  "6 AWG",
  "4 AWG",
] as const;

export function CablesPart() {
  const { wiring, assumptions, seal } = useStoredJob();
  const units = useUnits();
  return (
    <>
      <Group title="Cable">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5 max-w-[1000px]">
          <Choice
            label="Conductor"
            path="wiring.cable"
            value={wiring.cable}
            options={CABLES.map((c) => [c, c] as const)}
          />
          <Choice label="Clips over open roof" path="wiring.clip" value={wiring.clip} options={CLIPS} />
          <Field
            label="Each lead of a panel"
            path="wiring.lead"
            value={wiring.lead}
            placeholder={length(assumptions.cable_reach.mm, units)}
            clearable
          />
          <Field
            label="Gland to controller"
            path="wiring.inside"
            value={wiring.inside}
            placeholder="1800 mm"
            clearable
          />
          <Field label="Connectors bear, A" path="wiring.connector_a" value={wiring.connector_a} />
          <Tick label="Close to the hot roof" path="wiring.near_roof" value={wiring.near_roof} />
        </div>
        {!seal.gland && <p className="font-semibold pt-1">Place the gland first, under Seal: all ways end there.</p>}
      </Group>
      <Runs />
      <Points />
      <PartsList />
    </>
  );
}

function Runs() {
  const harnesses = useFinding("harnesses");
  const units = useUnits();
  const say = (mm: number) => length(Math.round(mm), units);
  if (!harnesses.length) return null;
  return (
    <Group
      title="Runs"
      aside={<span className="text-[13px]">5 % slack, a drip loop before the gland; the way is on the roof above</span>}
    >
      <table className="sheet-table max-w-[1000px]">
        <thead>
          <tr>
            <th>run</th>
            <th>from</th>
            <th>to</th>
            <th className="!text-right">needs</th>
            <th className="!text-right">lead</th>
            <th className="!text-right">extension</th>
            <th className="!text-right">over open roof</th>
          </tr>
        </thead>
        <tbody>
          {harnesses.flatMap((h) => [
            ...h.runs.map((run) => (
              <tr key={run.id}>
                <td className="font-semibold">{run.polarity === "+" ? "+ red" : "− black"}</td>
                <td>{run.trunk ? "branch pieces" : run.starts}</td>
                <td>{run.ends === "branch" ? "branch piece" : "controller"}</td>
                <td className="num">{say(run.length_mm)}</td>
                <td className="num">{run.trunk ? "" : say(run.lead_mm)}</td>
                <td className={`num ${run.extension_mm > 0 ? "font-semibold" : ""}`}>
                  {run.extension_mm > 0 ? say(run.extension_mm) : run.length_mm > 0 ? "reaches" : "at the branch"}
                </td>
                <td className="num">{say(run.way.open_mm)}</td>
              </tr>
            )),
            ...h.jumpers.map((j) => (
              <tr key={`${j.first} ${j.second}`}>
                <td>in series</td>
                <td>{j.first} −</td>
                <td>+ {j.second}</td>
                <td className="num">{say(j.way.length_mm)}</td>
                <td className="num">{say(j.leads_mm)}</td>
                <td className={`num ${j.extension_mm > 0 ? "font-semibold" : ""}`}>
                  {j.extension_mm > 0 ? say(j.extension_mm) : "reach"}
                </td>
                <td className="num">{say(j.way.open_mm)}</td>
              </tr>
            )),
          ])}
        </tbody>
      </table>
    </Group>
  );
}

function Points() {
  const { wiring, panels } = useStoredJob();
  const names = new Map(panels.map((p) => [p.id, p.name]));
  if (!wiring.strings.length) return null;
  const strings = wiring.strings.map(
    (s) => [s.id, s.panels.map((p) => names.get(p) ?? p).join(" + ") || s.id] as const,
  );
  return (
    <Group title="Led past" aside={<span className="text-[13px]">spots to drag on the roof, or typed</span>}>
      <EntryTable
        path="wiring.points"
        noun="spot"
        entries={wiring.points}
        empty="The shortest way that clips and ties can hold is taken. Add a spot to lead it elsewhere."
        columns={[
          { key: "string", label: "string", options: strings },
          { key: "x", label: "aft", placeholder: "1500 mm" },
          { key: "y", label: "across, starboard +", placeholder: "300 mm" },
        ]}
      />
    </Group>
  );
}

function PartsList() {
  const parts = useFinding("wire_parts");
  if (!parts.length) return null;
  return (
    <Group title="To buy" aside={<span className="text-[13px]">all of it is on the purchase list under Build</span>}>
      <table className="sheet-table max-w-[1000px]">
        <tbody>
          {parts.map((part) => (
            <tr key={part.item}>
              <td className="num w-24 font-semibold">
                {part.amount} {part.unit}
              </td>
              <td>{part.item}</td>
              <td className="text-[13px]">{part.note}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}
