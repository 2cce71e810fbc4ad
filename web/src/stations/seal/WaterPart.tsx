/** Where rain runs and where it stands, worked out on a fine grid while somebody looks; drawn on the roof. */
import { useEffect } from "react";
import { Field, Group } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob, useUnits } from "../../job/JobContext";
import { useLookedAt } from "../../job/useSlow";
import { across, length } from "../../ui/format";
import { waterLookedAt } from "./WaterShapes";

export function WaterPart() {
  const { id } = useDesk();
  const revision = useRevision();
  const units = useUnits();
  const { seal } = useStoredJob();
  const water = useLookedAt(id, "water", revision);
  const found = water.data?.result ?? null;
  useEffect(() => {
    waterLookedAt.set(found);
    return () => waterLookedAt.set(null);
  }, [found]);
  const say = (mm: number) => length(mm, units);
  return (
    <>
      <Group title="How it usually stands">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 max-w-[760px]">
          <Field label="Leans to starboard" path="seal.lean" reads="angle" value={seal.lean} />
          <Field label="Nose up" path="seal.nose" value={seal.nose} />
        </div>
      </Group>
      <Group
        title="Water that stands"
        aside={
          <span className="text-[13px]">
            {water.isFetching ? "working …" : found ? `grid of ${say(found.step_mm)}` : ""}
          </span>
        }
      >
        {water.isError && (
          <p role="alert" className="text-signal font-semibold">
            {water.error.message}
          </p>
        )}
        {found && !found.shape_known && (
          <p className="max-w-[70ch] pb-1 font-semibold">
            Nobody measured the crown: the roof counts as flat, and where water really stands is not known.
          </p>
        )}
        {found && found.pools.length === 0 && <p>Everything runs off.</p>}
        {found && found.pools.length > 0 && (
          <>
            <p className="pb-1">
              <span className="font-sign font-semibold text-[21px]">{found.litres.toFixed(1)} l</span> in{" "}
              {found.pools.length} {found.pools.length === 1 ? "place" : "places"}
            </p>
            <table className="sheet-table max-w-[900px]">
              <thead>
                <tr>
                  <th className="!text-right">aft</th>
                  <th>across</th>
                  <th className="!text-right">deep</th>
                  <th className="!text-right">area</th>
                  <th className="!text-right">litres</th>
                  <th>kept there by</th>
                  <th>seals in it</th>
                </tr>
              </thead>
              <tbody>
                {found.pools.slice(0, 20).map((pool) => (
                  <tr key={`${pool.x_mm} ${pool.y_mm}`}>
                    <td className="num">{say(Math.round(pool.x_mm))}</td>
                    <td>{across(Math.round(pool.y_mm), units)}</td>
                    <td className="num">{say(pool.depth_mm)}</td>
                    <td className="num">{Math.round(pool.area_cm2)} cm²</td>
                    <td className="num">{pool.litres.toFixed(2)}</td>
                    <td>{pool.dammed_by.slice(0, 2).join(", ") || "the roof's shape"}</td>
                    <td className={pool.seals.length ? "font-semibold" : ""}>{pool.seals.join(", ") || "none"}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="text-[13px] pt-1 max-w-[80ch]">
              Turn the plate, leave a gap on its high side, leave the low side of the bead open, or park so that it runs
              off.
            </p>
          </>
        )}
      </Group>
    </>
  );
}
