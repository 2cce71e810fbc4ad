import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { Panel } from "../../api/types";
import { selectedPanel, useJobView } from "../../app/JobContext";
import { Choice, Field, Group, Tick } from "../../ui/Field";
import { across, length } from "../../ui/format";
import { Worked } from "../../ui/WorkingDialog";
import { OwnModel } from "./OwnModel";

export function LayoutStation() {
  const { job, selection } = useJobView();
  const chosen = job.panels.find((p) => p.id === selectedPanel(selection)) ?? null;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[4fr_5fr] gap-x-8">
      <PanelList />
      {chosen ? (
        <PanelFields key={chosen.id} panel={chosen} />
      ) : (
        <Group title="Selected panel">
          <p>
            Pick a panel on the roof or in the list. Drag it, nudge it with the arrow keys (shift for bigger steps),
            turn it with R.
          </p>
        </Group>
      )}
    </div>
  );
}

function PanelList() {
  const { job, units, handle, selection, select } = useJobView();
  const catalogue = useQuery({
    queryKey: ["catalogue"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => unwrap(http.GET("/api/catalogue")),
  });
  const models = [...job.own_models, ...(catalogue.data?.panels ?? [])];
  const place = async (model: string) => {
    const answer = await handle.edit([{ op: "place_panel", model }]);
    const made = answer.job.panels.at(-1);
    if (made) select(`panels.${made.id}`);
  };
  return (
    <div>
      <Group title="Panels on the roof">
        {!job.panels.length && (
          <p className="pb-1">Place the first one below. It lands on the first free spot; then move it.</p>
        )}
        <ul>
          {job.panels.map((panel) => {
            const here = selectedPanel(selection) === panel.id;
            return (
              <li key={panel.id} className={`flex items-center border-b border-hair ${here ? "bg-tape/40" : ""}`}>
                <button
                  type="button"
                  className="flex-1 text-left py-1"
                  aria-pressed={here}
                  onClick={() => select(`panels.${panel.id}`)}
                >
                  <span className="font-semibold">{panel.name}</span>{" "}
                  <span className="text-soft">
                    {panel.model.name}, {length(panel.x.mm, units)} along, {across(panel.y.mm, units)}
                  </span>
                </button>
                <button
                  type="button"
                  className="underline text-[13px] px-1"
                  aria-label={`Remove ${panel.name}`}
                  onClick={() => void handle.edit([{ op: "remove", path: `panels.${panel.id}` }])}
                >
                  remove
                </button>
              </li>
            );
          })}
        </ul>
      </Group>
      <Group title="Place a panel">
        <div className="grid sm:grid-cols-2 gap-x-6">
          {models.map((model) => (
            <button
              key={model.name}
              type="button"
              className="text-left flex items-baseline gap-2 py-1 border-b border-hair hover:bg-tape/40"
              onClick={() => void place(model.name)}
            >
              <span className="font-sign font-semibold text-[15px] whitespace-nowrap">+ {model.name}</span>
              <span className="text-soft text-[13px] whitespace-nowrap">
                {length(model.length.mm, units).replace(" mm", "")} × {length(model.width.mm, units)}
              </span>
            </button>
          ))}
        </div>
        <p className="text-soft text-[12.5px] py-1">{catalogue.data?.panel_source}.</p>
        <OwnModel />
      </Group>
    </div>
  );
}

/** The marks to set a panel by, the air under it, and its twin on the other side. */
function SetBy({ panel }: { panel: Panel }) {
  const { evaluation, units, handle, select } = useJobView();
  const marks = evaluation.findings.dry_fit.find((d) => d.panel === panel.id);
  const air = evaluation.findings.clear_heights.find((h) => h.panel === panel.id);
  const mirror = async () => {
    const answer = await handle.edit([{ op: "mirror_panel", panel: panel.id }]);
    const twin = answer.job.panels.at(-1);
    if (twin) select(`panels.${twin.id}`);
  };
  return (
    <>
      {marks && (
        <p className="pt-1">
          <span className="font-semibold">Mark on the roof:</span> front x {length(marks.front_x_mm, units)}, rear x{" "}
          {length(marks.rear_x_mm, units)}; sides {across(marks.port_y_mm, units)} and{" "}
          {across(marks.starboard_y_mm, units)}. Both diagonals {length(marks.diagonal_mm, units)}.
        </p>
      )}
      {air && (
        <p className={air.least_mm < 0 ? "text-signal font-semibold" : ""}>
          Clear of the crown by{" "}
          <Worked place={`clear height/${panel.id}`} title="clear height">
            {length(air.least_mm, units)}
          </Worked>
          ; feet stand off one plane by up to {length(air.feet_off_plane_mm, units)}: shim them.
        </p>
      )}
      <button type="button" className="act mt-1" onClick={() => void mirror()}>
        Mirror to the other side
      </button>
    </>
  );
}

const FEET = [4, 6, 8, 10, 12];

function PanelFields({ panel }: { panel: Panel }) {
  const { evaluation, units, handle } = useJobView();
  const path = `panels.${panel.id}`;
  const near = evaluation.findings.distances.filter((d) => d.panel === panel.id);
  const alongEnds = panel.feet.some((f) => f.side === "front" || f.side === "rear");
  const spread = (count: number, along: "sides" | "ends") =>
    void handle.edit([{ op: "spread_feet", panel: panel.id, count, along }]);
  const names = new Map(evaluation.findings.shapes.map((s) => [s.id, s.kind]));
  return (
    <Group title={panel.name}>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5">
        <Field label="Name" path={`${path}.name`} value={panel.name} />
        <Field label="x, front edge" path={`${path}.x`} value={panel.x} />
        <Field label="y, middle, to starboard" path={`${path}.y`} value={panel.y} />
        <Field label="Stand-off" path={`${path}.stand_off`} value={panel.stand_off} />
        <Field
          label="Measured length"
          path={`${path}.measured_length`}
          value={panel.measured_length}
          placeholder={length(panel.model.length.mm, units)}
          clearable
        />
        <Field
          label="Measured width"
          path={`${path}.measured_width`}
          value={panel.measured_width}
          placeholder={length(panel.model.width.mm, units)}
          clearable
        />
        <Choice
          label="Feet along"
          path={`${path}.feet_side`}
          value={alongEnds ? "ends" : "sides"}
          options={[
            ["sides", "port and starboard"],
            ["ends", "front and rear"],
          ]}
          onChange={(value) => spread(Math.max(panel.feet.length, 4), value === "ends" ? "ends" : "sides")}
        />
        <span className="self-end">
          <Tick label="turned, crosswise" path={`${path}.turned`} value={panel.turned} />
        </span>
      </div>
      <div className="flex flex-wrap items-center gap-1.5 pt-2" role="group" aria-label="Number of feet">
        <span className="label pr-1">feet, spread evenly</span>
        {FEET.map((count) => (
          <button
            key={count}
            type="button"
            className="act"
            data-on={panel.feet.length === count}
            onClick={() => spread(count, alongEnds ? "ends" : "sides")}
          >
            {count}
          </button>
        ))}
      </div>
      <p className="pt-2 text-soft">
        {near
          .map(
            (d) =>
              `${d.kind === "edge" ? d.to : names.get(d.to) === "panel" ? "next panel" : "obstacle"} ${length(d.mm, units)}`,
          )
          .join("  ·  ")}
      </p>
      <SetBy panel={panel} />
      <p className="text-soft pt-1 text-[13px]">
        Measure the delivered panel before drilling. A panel in wind is a sail: two people lift, one guides.
      </p>
    </Group>
  );
}
