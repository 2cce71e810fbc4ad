/** Factory points: nominal rows, what was measured, which point is off and by how much. */
import type { Findings } from "../../api/types";
import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";

const KINDS = [
  ["threaded_hole", "threaded holes"],
  ["pin", "pins"],
  ["stud", "studs"],
  ["track", "track"],
  ["gutter", "gutter"],
] as const;

export function PointsPart() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const survey = useFinding("survey");
  const units = useUnits();
  const fits = new Map(survey.rows.map((r) => [r.row, r]));
  const add = () =>
    handle.change([
      {
        op: "add",
        path: "survey.point_rows",
        value: {
          name: `row ${job.survey.point_rows.length + 1}`,
          kind: "threaded_hole",
          start: { mm: 600 },
          y: { mm: -650 },
          pitch: { mm: 800 },
          count: 4,
        },
      },
    ]);
  return (
    <>
      {!job.survey.point_rows.length && (
        <p className="pb-2">
          Threaded holes under plugs, pins, studs, tracks, gutters: one row a side with its nominal pattern; then
          measure each one from the datum. They tell where a rack can stand without new holes; screws, bolts and tape do
          not use them.
        </p>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
        {job.survey.point_rows.map((row) => {
          const path = `survey.point_rows.${row.id}`;
          const fit = fits.get(row.id);
          return (
            <Group
              key={row.id}
              title={row.name}
              aside={
                <button
                  type="button"
                  className="underline text-[13px]"
                  onClick={() => handle.change([{ op: "remove", path }])}
                >
                  remove row
                </button>
              }
            >
              <div className="grid grid-cols-3 sm:grid-cols-5 gap-x-3 gap-y-1.5">
                <Field label="Name" path={`${path}.name`} value={row.name} />
                <Choice label="Kind" path={`${path}.kind`} value={row.kind} options={KINDS} />
                <Field label="First at x" path={`${path}.start`} value={row.start} />
                <Field label="y" path={`${path}.y`} value={row.y} />
                <Field label="Pitch" path={`${path}.pitch`} value={row.pitch} />
                <Field label="How many" path={`${path}.count`} value={row.count} />
                <Field label="Rating, each" path={`${path}.rating`} value={row.rating} placeholder="50 kg" clearable />
                <Field label="Thread" path={`${path}.thread`} value={row.thread} placeholder="M8" />
                <Field
                  label="Pad leans"
                  path={`${path}.lean`}
                  reads="angle"
                  value={row.lean}
                  placeholder="4°"
                  clearable
                />
                <Field label="Off is over" path={`${path}.tolerance`} value={row.tolerance} />
              </div>
              <p className="py-1">{fit && fitWords(fit, units)}</p>
              <EntryTable
                path={`${path}.points`}
                noun="point"
                entries={row.points}
                empty="Nothing measured yet: the count from the front (0 is the first), x and y."
                toldLabel="off"
                told={(id) => {
                  const measured = row.points.find((p) => p.id === id);
                  const place = fit?.points.find((p) => p.count === measured?.count);
                  if (!place?.measured || place.off_mm === null || place.off_mm === undefined) return "";
                  return (
                    <span className={`whitespace-nowrap ${place.stray ? "text-signal font-semibold" : ""}`}>
                      {length(place.off_mm, units)}
                    </span>
                  );
                }}
                columns={[
                  { key: "count", label: "count", placeholder: "0", width: "12%" },
                  { key: "x", label: "x", placeholder: "604 mm", optional: true },
                  { key: "y", label: "y", placeholder: "-698 mm", optional: true },
                  { key: "usable", label: "usable", tick: true, width: "9%" },
                  { key: "why", label: "why not", placeholder: "", optional: true, width: "20%" },
                ]}
              />
            </Group>
          );
        })}
      </div>
      <button type="button" className="act" onClick={add}>
        + row of points
      </button>
    </>
  );
}

function fitWords(fit: Findings["survey"]["rows"][number], units: "metric" | "imperial"): string {
  if (!fit.measured) return "Nominal places only: measure before you rely on them.";
  const stray = fit.points.filter((p) => p.stray);
  const row = `The row stands ${length(fit.shift_x_mm, units)} aft and ${length(fit.shift_y_mm, units)} to starboard of its pattern, running out ${fit.turn_mm_per_m.toFixed(1)} mm a metre.`;
  return stray.length ? `${row} Off: count ${stray.map((p) => p.count).join(", ")}.` : row;
}
