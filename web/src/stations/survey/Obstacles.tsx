/** Fans, hatches, air conditioners: a rectangle with a height, a lid and a clearance. */
import { useState } from "react";
import type { Obstacle } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useStoredJob, useUnits } from "../../job/JobContext";
import { across, length } from "../../ui/format";
import { TradeWord } from "../../ui/TradeWord";
import { useTry } from "../../ui/useTry";

const KINDS: readonly (readonly [Obstacle["kind"], string])[] = [
  ["fan", "roof fan"],
  ["air_conditioner", "air conditioner"],
  ["hatch", "hatch, skylight"],
  ["aerial", "aerial"],
  ["other", "other"],
];
const START: Record<Obstacle["kind"], { name: string; length: number; width: number; height: number }> = {
  fan: { name: "Roof fan", length: 400, width: 400, height: 120 },
  air_conditioner: { name: "Air conditioner", length: 1000, width: 700, height: 280 },
  hatch: { name: "Hatch", length: 500, width: 500, height: 60 },
  aerial: { name: "Aerial", length: 60, width: 60, height: 400 },
  other: { name: "Obstacle", length: 300, width: 300, height: 100 },
};

export function Obstacles() {
  const { handle, selection, select } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const [attempt, problem] = useTry();
  const add = async (kind: Obstacle["kind"]) => {
    const { name, ...size } = START[kind];
    const middle = (job.vehicle.roof_length?.mm ?? 4000) / 2;
    const value = {
      kind,
      name,
      x: { mm: middle },
      y: { mm: 0 },
      length: { mm: size.length },
      width: { mm: size.width },
      height: { mm: size.height },
    };
    const answer = await handle.edit([{ op: "add", path: "obstacles", value }]);
    const made = answer.job.obstacles.at(-1);
    if (made) select(`obstacles.${made.id}`);
  };
  return (
    <Group
      title="Obstacles"
      aside={
        <span className="text-soft text-[13px]">
          x: front edge from the datum <TradeWord word="datum" /> y: middle
        </span>
      }
    >
      <div className="flex flex-wrap gap-1.5 pb-2">
        {KINDS.map(([kind, words]) => (
          <button key={kind} type="button" className="act" onClick={() => void attempt(() => add(kind))}>
            + {words}
          </button>
        ))}
      </div>
      {problem}
      {!job.obstacles.length && (
        <p>Measure everything that stands on the roof: footprint, height, how far its lid leans.</p>
      )}
      {job.obstacles.map((obstacle) => {
        const path = `obstacles.${obstacle.id}`;
        const open = selection === path;
        return (
          <div key={obstacle.id} className={`border-b border-hair ${open ? "bg-tape/25 px-2 -mx-2" : ""}`}>
            <button
              type="button"
              className="w-full text-left py-1 flex gap-3"
              aria-expanded={open}
              onClick={() => select(open ? null : path)}
            >
              <span className="font-semibold whitespace-nowrap">{obstacle.name}</span>
              <span className="text-soft">
                {length(obstacle.x.mm, units)} along, {across(obstacle.y.mm, units)},{" "}
                {length(obstacle.length.mm, units)} × {length(obstacle.width.mm, units)}
              </span>
            </button>
            {open && <ObstacleFields obstacle={obstacle} path={path} />}
          </div>
        );
      })}
    </Group>
  );
}

function ObstacleFields({ obstacle, path }: { obstacle: Obstacle; path: string }) {
  const { handle, select } = useDesk();
  return (
    <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-3 gap-y-1.5 pb-2">
      <Field label="Name" path={`${path}.name`} value={obstacle.name} />
      <Field label="x, along" path={`${path}.x`} value={obstacle.x} />
      <Field label="y, to starboard" path={`${path}.y`} value={obstacle.y} />
      <Field label="Length" path={`${path}.length`} value={obstacle.length} />
      <Field label="Width" path={`${path}.width`} value={obstacle.width} />
      <Field label="Height" path={`${path}.height`} value={obstacle.height} />
      <Field label="Clearance" path={`${path}.clearance`} value={obstacle.clearance} />
      <Choice
        label="Lid hinge"
        path={`${path}.lid_hinge`}
        value={obstacle.lid_hinge}
        options={[
          ["none", "no lid"],
          ["front", "front"],
          ["rear", "rear"],
          ["left", "port"],
          ["right", "starboard"],
        ]}
      />
      {obstacle.lid_hinge !== "none" && (
        <>
          <Field
            label="Lid opens to"
            path={`${path}.lid_angle`}
            value={obstacle.lid_angle}
            placeholder="110°"
            clearable
          />
          <Field
            label="Lid, hinge to edge"
            path={`${path}.lid_length`}
            value={obstacle.lid_length}
            placeholder="as the footprint"
            clearable
          />
          <Field label="Leans over by, measured" path={`${path}.lid_reach`} value={obstacle.lid_reach} />
        </>
      )}
      <Choice
        label="Shape"
        path={`${path}.shape`}
        value={obstacle.shape}
        options={[
          ["rectangle", "rectangle"],
          ["circle", "circle"],
          ["polygon", "polygon"],
        ]}
      />
      <Choice
        label="When panels come"
        path={`${path}.stays`}
        value={obstacle.stays ? "stays" : "goes"}
        onChange={(value) => handle.change([{ op: "set", path: `${path}.stays`, value: value === "stays" }])}
        options={[
          ["stays", "stays"],
          ["goes", "can go"],
        ]}
      />
      {obstacle.shape === "polygon" && <PolygonPoints obstacle={obstacle} path={path} />}
      <span className="self-end">
        <button
          type="button"
          className="act"
          onClick={() => {
            select(null);
            handle.change([{ op: "remove", path }]);
          }}
        >
          Remove
        </button>
      </span>
    </div>
  );
}

/** Corners relative to the obstacle's front edge and middle, as rows of x and y. */
function PolygonPoints({ obstacle, path }: { obstacle: Obstacle; path: string }) {
  const { handle } = useDesk();
  const units = useUnits();
  const shown = obstacle.points
    .map((p) => `${length(p.x.mm, units)}; ${length(p.y.mm, units)}`)
    .join("\n")
    .replaceAll("−", "-");
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <label className="label col-span-2">
      Corners from its front edge and middle: x; y
      <textarea
        className="box !h-20 text-ink"
        defaultValue={shown}
        placeholder={"0; -200\n300; -250\n300; 250\n0; 200"}
        onBlur={async (event) => {
          const rows = event.target.value.split("\n").filter((row) => row.trim());
          const value = rows.map((row) => row.split(/[;\t]/).map((cell) => cell.trim()));
          try {
            await handle.edit([{ op: "set", path: `${path}.points`, value: value.map(([x, y]) => ({ x, y })) }]);
            setProblem(null);
          } catch (failure) {
            setProblem(failure instanceof Error ? failure.message : "Not saved.");
          }
        }}
      />
      {problem && (
        <span role="alert" className="text-signal font-semibold">
          {problem}
        </span>
      )}
    </label>
  );
}
