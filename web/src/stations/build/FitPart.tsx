/** Whether the bolts go in: tolerances, the slot each foot needs or the hole to file, pads that lean. */
import type { FootFit } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { angle, length } from "../../ui/format";

export function FitPart() {
  const job = useStoredJob();
  const fits = useFinding("fits");
  const leans = useFinding("leans");
  const { fit } = job.workshop;
  return (
    <>
      <Group
        title="How well holes are found again"
        aside={<span className="text-[13px]">the most it is off, either way</span>}
      >
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5 max-w-[760px]">
          <Field label="Measuring" path="workshop.fit.measuring" value={fit.measuring} />
          <Field label="Marking" path="workshop.fit.marking" value={fit.marking} />
          <Field label="Drilling" path="workshop.fit.drilling" value={fit.drilling} />
          <Choice
            label="Holes go where points were"
            path="workshop.fit.drilled_to"
            value={fit.drilled_to}
            options={[
              ["measured", "measured"],
              ["drawn", "drawn"],
            ]}
          />
        </div>
      </Group>
      {fits.length > 0 ? (
        <Feet fits={fits} />
      ) : (
        <p className="max-w-[60ch] pb-3">
          Slots are worked out for racks on factory points. Everything else is drilled through as it stands.
        </p>
      )}
      {leans.length > 0 && <Leans />}
    </>
  );
}

/** "4 mm aft and 2 mm to port", by what is more than half a millimetre. */
function towards(along: number, across: number, say: (mm: number) => string): string {
  const words = [
    Math.abs(along) > 0.5 && `${say(Math.abs(along))} ${along > 0 ? "aft" : "forward"}`,
    Math.abs(across) > 0.5 && `${say(Math.abs(across))} to ${across > 0 ? "starboard" : "port"}`,
  ].filter(Boolean);
  return words.join(", ");
}

function Feet({ fits }: { fits: readonly FootFit[] }) {
  const units = useUnits();
  const { select, openWorking } = useDesk();
  const carriers = new Map(useStoredJob().carriers.map((c) => [c.id, c.name]));
  const say = (mm: number) => length(Math.round(mm * 2) / 2, units);
  const up = (mm: number) => length(Math.ceil(mm), units);
  return (
    <Group title="Feet on factory points" aside={<span className="text-[13px]">all bolts go in 99 times of 100</span>}>
      <table className="sheet-table max-w-[860px]">
        <thead>
          <tr>
            <th>foot</th>
            <th>point</th>
            <th>point is off its row</th>
            <th className="!text-right">slot along</th>
            <th className="!text-right">across</th>
            <th>or file a round hole</th>
            <th>
              <span className="sr-only">working</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {fits.map((f) => {
            const filed = towards(f.file_along_mm, f.file_across_mm, say);
            return (
              <tr key={`${f.carrier}.${f.foot}`} onFocus={() => select(`carriers.${f.carrier}`)}>
                <td>
                  {carriers.size > 1 ? `${carriers.get(f.carrier)}, ` : ""}
                  {f.where}
                </td>
                <td>{f.known ? "measured" : <span className="font-semibold">not measured</span>}</td>
                <td>{towards(f.off_along_mm, f.off_across_mm, say) || "–"}</td>
                <td className="num">{f.round ? "round" : up(f.slot_along_mm)}</td>
                <td className="num">{f.round ? "round" : up(f.slot_across_mm)}</td>
                <td className={filed ? "font-semibold" : ""}>{filed || "–"}</td>
                <td className="num">
                  <button
                    type="button"
                    className="underline text-[13px]"
                    aria-label={`Working of ${f.where}`}
                    onClick={() => openWorking(`fit/${f.carrier}/${f.foot}`, `Slot, ${f.where}`)}
                  >
                    working
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {fits.some((f) => Math.abs(f.reach_mm) > 1) && (
        <p className="text-[13px] pt-1">
          The rails run {say(Math.abs(fits[0]?.reach_mm ?? 0))} beside their points: brackets reach across.
        </p>
      )}
    </Group>
  );
}

function Leans() {
  const units = useUnits();
  const leans = useFinding("leans");
  const carriers = new Map(useStoredJob().carriers.map((c) => [c.id, c.name]));
  const up = (mm: number) => length(Math.ceil(mm), units);
  return (
    <Group
      title="Pads that lean with the roof"
      aside={<span className="text-[13px]">one of the three takes it out</span>}
    >
      <table className="sheet-table max-w-[860px]">
        <thead>
          <tr>
            <th>rail</th>
            <th className="!text-right">leans</th>
            <th className="!text-right">wedge under the base</th>
            <th className="!text-right">or bend the foot, tool at</th>
            <th className="!text-right">or pull the rail</th>
          </tr>
        </thead>
        <tbody>
          {leans.map((lean) => (
            <tr key={`${lean.carrier}.${lean.rail}`}>
              <td>
                {carriers.get(lean.carrier)}, {lean.rail}
              </td>
              <td className="num">
                {angle(lean.lean_deg)} {lean.outward ? "out" : "in"}
              </td>
              <td className="num">{up(lean.wedge_mm)}</td>
              <td className="num">{angle(lean.tool_deg)}</td>
              <td className="num">
                {up(lean.strap_mm)} {lean.outward ? "in" : "out"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[13px] pt-1">Crossbars are measured and cut only after the rails stand upright.</p>
    </Group>
  );
}
