/** The roof's edge: template, rounded and narrower ends, measured corners, points from a drawing; raised and lowered parts. */
import { useState } from "react";
import { ApiError, http, unwrap } from "../../api/client";
import type { UnderstoodOutline, VehicleKind } from "../../api/types";
import { EntryTable } from "../../fields/EntryTable";
import { Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { FileButton } from "../../ui/FileButton";
import { length } from "../../ui/format";

const KINDS: readonly (readonly [VehicleKind, string])[] = [
  ["van", "van"],
  ["bus", "bus"],
  ["rv", "RV"],
  ["trailer", "trailer"],
  ["boat", "boat"],
  ["truck_bed", "truck bed"],
];
const CORNERS = [
  ["front_port", "front port"],
  ["front_starboard", "front starboard"],
  ["rear_port", "rear port"],
  ["rear_starboard", "rear starboard"],
] as const;

export function OutlinePart() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const survey = useFinding("survey");
  const units = useUnits();
  const o = job.survey.outline;
  const found = survey;
  const field = (
    label: string,
    key:
      | "front_radius"
      | "rear_radius"
      | "front_narrower"
      | "rear_narrower"
      | "taper_run"
      | "side_fall"
      | "front_fall"
      | "rear_fall",
  ) => <Field label={label} path={`survey.outline.${key}`} value={o[key]} />;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
      <div>
        <Group
          title="Edge"
          aside={found.flat_area_m2 > 0 && <span className="text-soft">{found.flat_area_m2.toFixed(1)} m² flat</span>}
        >
          {o.points.length ? (
            <p className="pb-2">
              The edge is {o.points.length} points from a drawing.{" "}
              <button
                type="button"
                className="underline"
                onClick={() => handle.change([{ op: "set", path: "survey.outline.points", value: [] }])}
              >
                Back to the measured rectangle
              </button>
            </p>
          ) : (
            <div className="grid grid-cols-2 sm:grid-cols-5 gap-x-4 gap-y-1.5">
              {field("Front radius", "front_radius")}
              {field("Rear radius", "rear_radius")}
              {field("Front narrower", "front_narrower")}
              {field("Rear narrower", "rear_narrower")}
              {field("Narrows over", "taper_run")}
            </div>
          )}
          <div className="grid grid-cols-2 sm:grid-cols-5 gap-x-4 gap-y-1.5 pt-1.5">
            {field("Side fall, in by", "side_fall")}
            {field("Front fall", "front_fall")}
            {field("Rear fall", "rear_fall")}
          </div>
        </Group>
        {!o.points.length && (
          <Group
            title="Corners, off the rectangle"
            aside={<span className="text-soft text-[13px]">aft and to starboard are plus</span>}
          >
            <div className="grid grid-cols-4 gap-x-4 gap-y-1.5">
              {CORNERS.map(([key, words]) => (
                <div key={key}>
                  <p className="label">{words}</p>
                  <Field bare label={`${words}, along`} path={`survey.outline.${key}.along`} value={o[key].along} />
                  <Field bare label={`${words}, across`} path={`survey.outline.${key}.across`} value={o[key].across} />
                </div>
              ))}
            </div>
          </Group>
        )}
        <Group
          title="Start from a usual vehicle"
          aside={<span className="text-soft text-[13px]">fills only blanks; invented sizes</span>}
        >
          <div className="flex flex-wrap gap-1.5">
            {KINDS.map(([kind, words]) => (
              <button
                key={kind}
                type="button"
                className="act"
                onClick={() => handle.change([{ op: "apply_template", template: kind }])}
              >
                {words}
              </button>
            ))}
          </div>
        </Group>
      </div>
      <div>
        <OutlineImport units={units} />
      </div>
      <div className="xl:col-span-2">
        <Group title="Raised, lowered, decks, rails">
          <EntryTable
            path="survey.sections"
            noun="part"
            entries={job.survey.sections}
            empty="Steps in the roof, a boat’s deck, arch or hard top, a truck bed’s rails."
            columns={[
              {
                key: "kind",
                label: "kind",
                width: "17%",
                options: [
                  ["raised", "raised"],
                  ["lowered", "lowered"],
                  ["deck", "deck"],
                  ["arch", "arch"],
                  ["hard_top", "hard top"],
                  ["side_rail", "side rail"],
                ],
              },
              { key: "name", label: "name", placeholder: "name" },
              { key: "x", label: "x", placeholder: "x" },
              { key: "y", label: "y, middle", placeholder: "y" },
              { key: "length", label: "length", placeholder: "length" },
              { key: "width", label: "width", placeholder: "width" },
              { key: "step", label: "step up", placeholder: "60 mm", optional: true },
            ]}
          />
        </Group>
      </div>
    </div>
  );
}

const DRAWING_UNITS = ["mm", "cm", "m", "in", "ft"] as const;
type DrawingUnit = (typeof DRAWING_UNITS)[number];
const LONGEST_SHOWN = 5000;

function OutlineImport({ units }: { units: "metric" | "imperial" }) {
  const { handle } = useDesk();
  const [text, setText] = useState("");
  const [found, setFound] = useState<UnderstoodOutline | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asksUnit, setAsksUnit] = useState(false);

  const understand = async (given: string, unit: DrawingUnit | null = null) => {
    setText(given);
    setFound(null);
    setProblem(null);
    setAsksUnit(false);
    if (!given.trim()) return;
    try {
      setFound(await unwrap(http.POST("/api/calc/outline.parse", { body: { text: given, units, unit } })));
    } catch (failure) {
      setProblem(failure instanceof Error ? failure.message : "Not readable.");
      setAsksUnit(failure instanceof ApiError && failure.body.code === "unit_unknown");
    }
  };
  const take = async () => {
    if (!found) return;
    try {
      await handle.edit([
        { op: "set", path: "vehicle.roof_length", value: { mm: found.length_mm } },
        { op: "set", path: "vehicle.roof_width", value: { mm: found.width_mm } },
        {
          op: "set",
          path: "survey.outline.points",
          value: found.points.map((p) => ({ x: { mm: p.x_mm }, y: { mm: p.y_mm } })),
        },
      ]);
      setFound(null);
      setText("");
    } catch (failure) {
      setProblem(failure instanceof Error ? failure.message : "Not saved.");
    }
  };
  return (
    <Group
      title="From a drawing or points"
      aside={<span className="text-soft text-[13px]">DXF, SVG, or rows of x, y</span>}
    >
      <div className="flex flex-wrap items-start gap-2">
        <textarea
          className="box !h-[52px] !w-56"
          aria-label="Rows of x and y"
          placeholder={"x, y\n0, -780\n4350, -780"}
          value={text.length > LONGEST_SHOWN ? "" : text}
          onChange={(event) => void understand(event.target.value)}
        />
        <FileButton
          label="Load an outline"
          accept=".dxf,.svg,.csv,.txt"
          most={2_000_000}
          tooLarge="The file is over 2 MB. Save only the roof’s edge."
          take={understand}
          refuse={setProblem}
        />
        {asksUnit && (
          <fieldset className="flex gap-1 items-center">
            <legend className="label">one unit of the drawing is one</legend>
            {DRAWING_UNITS.map((unit) => (
              <button key={unit} type="button" className="act" onClick={() => void understand(text, unit)}>
                {unit}
              </button>
            ))}
          </fieldset>
        )}
        {found && (
          <div className="flex gap-3 items-center">
            <svg
              viewBox={`-60 ${-found.width_mm / 2 - 60} ${found.length_mm + 120} ${found.width_mm + 120}`}
              className="w-40 h-14"
              role="img"
              aria-label="Outline as understood"
            >
              <polygon
                points={found.points.map((p) => `${p.x_mm},${p.y_mm}`).join(" ")}
                fill="var(--color-paper)"
                stroke="var(--color-ink)"
                strokeWidth={30}
              />
            </svg>
            <div className="text-[13px]">
              <p>
                {length(found.length_mm, units)} × {length(found.width_mm, units)}, {found.points.length} points.{" "}
                {found.notes.join(" ")}
              </p>
              <button type="button" className="act" onClick={() => void take()}>
                Take this outline
              </button>
            </div>
          </div>
        )}
      </div>
      {problem && (
        <p role="alert" className="text-signal font-semibold text-[13px] pt-1">
          {problem}
        </p>
      )}
    </Group>
  );
}
