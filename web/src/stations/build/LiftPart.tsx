/** What goes up in one go: mass and middle, who lifts it, blocks under it, and the wind at which it is off. */
import { Field, Group, Tick } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { across, length, mass, speed } from "../../ui/format";

export function LiftPart() {
  const { lifting } = useStoredJob().workshop;
  const { openWorking } = useDesk();
  const lifts = useFinding("lifts");
  const units = useUnits();
  return (
    <>
      <Group title="Who lifts">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5 max-w-[760px] items-end">
          <Field label="People there" path="workshop.lifting.persons" value={lifting.persons} />
          <Field label="Hands from the body" path="workshop.lifting.hands" value={lifting.hands} />
          <Tick label="Carriers with panels on" path="workshop.lifting.as_one" value={lifting.as_one} />
        </div>
      </Group>
      <Group
        title="What is lifted"
        aside={
          <button type="button" className="underline text-[13px]" onClick={() => openWorking("lift", "Lifting")}>
            working
          </button>
        }
      >
        <table className="sheet-table max-w-[960px]">
          <thead>
            <tr>
              <th>lift</th>
              <th className="!text-right">mass</th>
              <th className="!text-right">middle, aft</th>
              <th className="!text-right">across</th>
              <th className="!text-right">people</th>
              <th className="!text-right">blocks</th>
              <th className="!text-right">not in wind over</th>
              <th className="!text-right">lies loose up to</th>
            </tr>
          </thead>
          <tbody>
            {lifts.map((unit) => {
              const few = lifting.persons < unit.least_persons;
              return (
                <tr key={unit.id}>
                  <td>{unit.name}</td>
                  <td className="num">{mass(unit.mass_kg, units)}</td>
                  <td className="num">{length(Math.round(unit.x_mm), units)}</td>
                  <td className="num">{across(Math.round(unit.y_mm), units)}</td>
                  <td className={`num font-semibold ${few ? "text-signal" : ""}`}>
                    {unit.persons}
                    {unit.least_persons < unit.persons ? `, at least ${unit.least_persons}` : ""}
                  </td>
                  <td className="num">{length(Math.round(unit.blocks_mm), units)}</td>
                  <td className="num">{speed(unit.hands_m_s, units)}</td>
                  <td className="num">{speed(unit.lies_m_s, units)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <p className="text-[13px] pt-1 max-w-[80ch]">
          Two lift, one takes it above: nobody under it, nobody on a ladder with both hands full. What lies loose is
          tied at once. The wind is the one that is forecast; its gusts are half as strong again.
        </p>
      </Group>
    </>
  );
}
