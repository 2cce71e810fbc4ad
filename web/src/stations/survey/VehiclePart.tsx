import { Choice, Field, Group, Tick } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { VEHICLES } from "../../job/vehicles";
import { mass } from "../../ui/format";

const SKINS = [
  ["steel", "steel sheet"],
  ["aluminium", "aluminium sheet"],
  ["fibreglass", "moulded fibreglass"],
  ["membrane", "membrane on ply"],
] as const;
const UNITS = [
  ["metric", "millimetres"],
  ["imperial", "inches"],
] as const;

export function VehiclePart() {
  const job = useStoredJob();
  return (
    <>
      {!job.vehicle.roof_length && <UsualVehicle />}
      <VehicleFields />
    </>
  );
}

/** A new job asks at once: most roofs are nearly the usual one, and correcting is quicker than typing. */
function UsualVehicle() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const words = VEHICLES.find(([kind]) => kind === job.vehicle.kind)?.[1] ?? job.vehicle.kind;
  return (
    <div className="border-l-4 border-tape bg-tape/20 pl-3 py-2 mb-2 flex flex-wrap items-center gap-3">
      <p className="max-w-[52ch]">
        Begin with a usual {words}: roof, skin and members of an invented one. Then correct what you measure.
      </p>
      <button
        type="button"
        className="act"
        onClick={() => handle.change([{ op: "apply_template", template: job.vehicle.kind }])}
      >
        Start from the usual {words}
      </button>
    </div>
  );
}

function VehicleFields() {
  const job = useStoredJob();
  const roof_mass_kg = useFinding("roof_mass_kg");
  const units = useUnits();
  const v = job.vehicle;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
      <Group title="Vehicle">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5">
          <Field label="Name" path="name" value={job.name} />
          <Choice label="Kind" path="vehicle.kind" value={v.kind} options={VEHICLES} />
          <Choice label="Units" path="units" value={job.units} options={UNITS} />
          <Field label="Highest speed" path="vehicle.top_speed" value={v.top_speed} placeholder="110 km/h" clearable />
          <Field
            label="Roof length"
            path="vehicle.roof_length"
            value={v.roof_length}
            placeholder={"5.4 m or 17' 9\""}
            clearable
          />
          <Field label="Roof width" path="vehicle.roof_width" value={v.roof_width} placeholder="160 cm" clearable />
          <Field label="Altitude, lowest" path="vehicle.altitude" value={v.altitude} placeholder="200 m" clearable />
          <Field
            label="Roof load limit"
            path="vehicle.roof_load_limit"
            value={v.roof_load_limit}
            placeholder="150 kg"
            clearable
          />
          {!v.roof_load_limit && (
            <div className="col-start-4 max-sm:col-start-2">
              <Tick label="no papers say" path="vehicle.no_papers" value={v.no_papers ?? false} />
            </div>
          )}
        </div>
      </Group>
      <Group title="Skin and inside">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5">
          <Choice label="Skin" path="vehicle.skin" value={v.skin} options={SKINS} />
          {v.skin === "membrane" ? (
            <>
              <Field
                label="Ply thickness"
                path="vehicle.ply_thickness"
                value={v.ply_thickness}
                placeholder="3/8 in"
                clearable
              />
              <Choice
                label="Membrane"
                path="vehicle.membrane"
                value={v.membrane}
                options={[
                  ["unknown", "not known"],
                  ["bonded", "bonded all over"],
                  ["loose", "loose"],
                ]}
              />
            </>
          ) : (
            <>
              <Field
                label="Skin thickness"
                path="vehicle.skin_thickness"
                value={v.skin_thickness}
                placeholder="16 ga"
                clearable
              />
              <Choice
                label="Surface"
                path="vehicle.surface"
                value={v.surface}
                options={[
                  ["unknown", "not known"],
                  ["sound", "sound"],
                  ["doubtful", "doubtful"],
                ]}
              />
            </>
          )}
          <Choice
            label="Inside"
            path="vehicle.inside"
            value={v.inside}
            options={[
              ["unknown", "not known"],
              ["gutted", "gutted"],
              ["partial", "partly open"],
              ["finished", "finished"],
            ]}
          />
        </div>
        {roof_mass_kg > 0 && (
          <p className="pt-2">
            The plan adds{" "}
            <Worked place="roof mass" title="added roof mass">
              {mass(roof_mass_kg, units)}
            </Worked>{" "}
            to the roof. Limit and inspection duties: see the vehicle’s papers and local rules.
          </p>
        )}
      </Group>
    </div>
  );
}
