/** Every place through which water could come, how much it all takes, and how long it cures on the day. */
import { Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { across, length, temperature } from "../../ui/format";

export function ListPart() {
  return (
    <>
      <Day />
      <Amounts />
      <Places />
      <OldWork />
    </>
  );
}

const hours = ({ least: quick, most: slow }: { least: number; most: number }): string =>
  slow < 1.5
    ? `${Math.round(quick * 60)} to ${Math.round(slow * 60)} minutes`
    : slow < 72
      ? `${quick.toFixed(quick < 2 ? 1 : 0)} to ${slow.toFixed(slow < 2 ? 1 : 0)} hours`
      : `${(quick / 24).toFixed(0)} to ${(slow / 24).toFixed(0)} days`;

function Day() {
  const { seal } = useStoredJob();
  const cure = useFinding("cure");
  const units = useUnits();
  const { openWorking } = useDesk();
  return (
    <Group
      title="The day it is sealed"
      aside={
        <button type="button" className="underline text-[13px]" onClick={() => openWorking("cure", "Cure")}>
          working
        </button>
      }
    >
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 max-w-[760px]">
        <Field
          label="Roof and air"
          path="seal.temperature"
          reads="skin temperature"
          value={seal.temperature}
          placeholder="14 °C"
          clearable
        />
        <Field
          label="Moisture of the air, %"
          path="seal.humidity"
          reads="humidity"
          value={seal.humidity}
          placeholder="60"
          clearable
        />
      </div>
      {cure && (
        <p className="pt-1.5 flex flex-wrap gap-x-6">
          <span>
            rain does no harm after <span className="font-semibold">{hours(cure.rain_h)}</span>
          </span>
          <span>
            drive after <span className="font-semibold">{hours(cure.fillet_h)}</span>
          </span>
          {cure.under_h && cure.under_h.most > 0 && (
            <span>
              under the plates after <span className="font-semibold">{hours(cure.under_h)}</span>
            </span>
          )}
          {cure.trim_h && (
            <span>
              trim after <span className="font-semibold">{cure.trim_h.toFixed(0)} hours</span>
            </span>
          )}
          {cure.assumed && (
            <span className="text-[13.5px]">
              nobody said what day it is: {temperature(cure.temperature_c, units)} and {Math.round(cure.humidity * 100)}{" "}
              % are counted
            </span>
          )}
        </p>
      )}
    </Group>
  );
}

function Amounts() {
  const amounts = useFinding("seal_amounts");
  const units = useUnits();
  const { openWorking } = useDesk();
  if (!amounts.length) return null;
  return (
    <Group
      title="How much"
      aside={
        <button type="button" className="underline text-[13px]" onClick={() => openWorking("seal", "How much")}>
          working
        </button>
      }
    >
      <table className="sheet-table max-w-[760px]">
        <thead>
          <tr>
            <th>what</th>
            <th className="!text-right">with a quarter for waste</th>
            <th className="!text-right">bead</th>
            <th className="!text-right">take</th>
            <th>once opened</th>
          </tr>
        </thead>
        <tbody>
          {amounts.map((a) => (
            <tr key={a.family}>
              <td>{a.family}</td>
              <td className="num">
                {a.volume_ml > 0 ? `${a.volume_ml.toFixed(0)} ml` : length(Math.round(a.tape_mm), units)}
              </td>
              <td className="num">{a.bead_mm > 0 ? length(Math.round(a.bead_mm), units) : "–"}</td>
              <td className="num font-semibold">
                {a.packs} × {a.pack}
              </td>
              <td>{a.opened_days < 400 ? `${a.opened_days} days` : "keeps"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}

function Places() {
  const places = useFinding("seal_places");
  const units = useUnits();
  const { select, selection } = useDesk();
  const say = (mm: number) => length(Math.round(mm), units);
  if (!places.length)
    return <p className="max-w-[60ch]">Nothing to seal yet: place panels, and choose under Hold how they hold.</p>;
  return (
    <Group title="Places" aside={<span className="text-[13px]">front to rear</span>}>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>place</th>
            <th>what</th>
            <th className="!text-right">aft</th>
            <th>across</th>
            <th className="!text-right">plate</th>
            <th className="!text-right">holes</th>
            <th>covered by</th>
          </tr>
        </thead>
        <tbody>
          {places.map((p) => (
            <tr key={p.id} className={selection === p.path ? "bg-tape/40" : ""}>
              <td>
                <button type="button" className="underline text-left" onClick={() => select(p.path)}>
                  {p.name}
                </button>
              </td>
              <td>{p.kind}</td>
              <td className="num">{say(p.x_mm)}</td>
              <td>{across(Math.round(p.y_mm), units)}</td>
              <td className="num">{p.plate_long_mm > 0 ? `${say(p.plate_long_mm)} × ${say(p.plate_wide_mm)}` : "–"}</td>
              <td className="num">{p.kind === "open tube" ? "–" : p.holes || "–"}</td>
              <td>
                {p.covered_by}
                {p.covered_by && !p.reachable && <span className="font-semibold">, out of reach then</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}

/** What comes off first, with what, and how each scar is closed. */
function OldWork() {
  const { seal_entries: entries, removal_h: hours } = useFinding("survey");
  if (!entries.length) return null;
  return (
    <Group
      title="Old work"
      aside={<span className="text-[13px]">{hours.toFixed(1)} person-hours, before anything covers it</span>}
    >
      <table className="sheet-table">
        <thead>
          <tr>
            <th>what</th>
            <th className="!text-right">how many</th>
            <th className="!text-right">minutes</th>
            <th>tools</th>
            <th>closed by</th>
          </tr>
        </thead>
        <tbody>
          {entries.map((e) => (
            <tr key={e.scar}>
              <td>{e.what}</td>
              <td className="num">{e.count}</td>
              <td className="num">{e.minutes.toFixed(0)}</td>
              <td>{e.tools}</td>
              <td className="text-[13.5px]">{e.how}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}
