/** A pair of rails under a row of panels: what it is made of, how it bends, what its feet carry. */
import { useState } from "react";
import type { Carrier, CarrierVerdict } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useUnits } from "../../job/JobContext";
import { percent, speed } from "../../ui/format";
import { Attachment } from "./Attachment";
import { Chain } from "./Chain";
import { Moments } from "./Moments";

const ALLOYS = ["6060-T66", "6063-T5", "6063-T6", "6082-T6", "1.4301", "S235"].map((a) => [a, a] as const);

export function RailsPart({ carrier }: { carrier: Carrier }) {
  const units = useUnits();
  const { handle } = useDesk();
  const verdict = useFinding("carriers").find((c) => c.carrier === carrier.id);
  const path = `carriers.${carrier.id}`;
  return (
    <>
      {verdict && <RailsVerdict carrier={carrier} verdict={verdict} />}
      <Group title={carrier.name}>
        <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
          <Choice
            label="Section"
            path={`${path}.section.kind`}
            value={carrier.section.kind}
            options={[
              ["tube", "rectangular tube"],
              ["round", "round tube"],
              ["own", "by its own sheet"],
            ]}
            onChange={(kind) => handle.change([{ op: "set", path: `${path}.section`, value: { kind } }])}
          />
          <SectionFields carrier={carrier} path={`${path}.section`} />
          <Choice label="Metal" path={`${path}.alloy`} value={carrier.alloy} options={ALLOYS} />
          <Field label="Under the rail" path={`${path}.height`} value={carrier.height} hint="rail over the roof" />
          <Field label="Rails from x" path={`${path}.start`} value={carrier.start} />
          <Field label="to x" path={`${path}.end`} value={carrier.end} />
          {carrier.rails.map((rail) => (
            <Field key={rail.id} label={`Rail ${rail.id}, y`} path={`${path}.rails.${rail.id}.y`} value={rail.y} />
          ))}
          <Choice
            label="Feet"
            path={`${path}.every`}
            value={String(carrier.every)}
            options={[
              ["1", "at every member"],
              ["2", "at every second"],
              ["3", "at every third"],
            ]}
            onChange={(every) => handle.change([{ op: "set", path: `${path}.every`, value: Number(every) }])}
          />
          <Field
            label="Sold in lengths of"
            path={`${path}.stock`}
            value={carrier.stock}
            placeholder={units === "metric" ? "4300 mm" : "14 ft"}
            clearable
          />
          <Field
            label="A clamp pulls, N"
            path={`${path}.clamp_n`}
            value={carrier.clamp_n}
            placeholder="2000"
            clearable
          />
        </div>
      </Group>
      <Attachment key={`${carrier.id} ${carrier.hold.school}`} hold={carrier.hold} path={`${path}.hold`} />
    </>
  );
}

function SectionFields({ carrier, path }: { carrier: Carrier; path: string }) {
  const { section } = carrier;
  if (section.kind === "tube")
    return (
      <>
        <Field label="Height" path={`${path}.height`} value={section.height} />
        <Field label="Width" path={`${path}.width`} value={section.width} />
        <Field label="Wall" path={`${path}.wall`} value={section.wall} />
      </>
    );
  if (section.kind === "round")
    return (
      <>
        <Field label="Diameter" path={`${path}.diameter`} value={section.diameter} />
        <Field label="Wall" path={`${path}.wall`} value={section.wall} />
      </>
    );
  return (
    <>
      <Field label="Height" path={`${path}.height`} value={section.height} />
      <Field label="I, cm⁴" path={`${path}.inertia_cm4`} value={section.inertia_cm4} placeholder="8.5" clearable />
      <Field label="W, cm³" path={`${path}.modulus_cm3`} value={section.modulus_cm3} placeholder="3.4" clearable />
      <Field label="Mass, kg/m" path={`${path}.mass_kg_m`} value={section.mass_kg_m} placeholder="1.1" clearable />
      <Field label="Its slot pulls, N" path={`${path}.slot_n`} value={section.slot_n} placeholder="3000" clearable />
    </>
  );
}

function RailsVerdict({ carrier, verdict }: { carrier: Carrier; verdict: CarrierVerdict }) {
  const units = useUnits();
  const [foot, setFoot] = useState(verdict.worst_foot);
  const most = Math.max(...verdict.rails.map((r) => r.utilisation), 0);
  return (
    <>
      <Chain
        of="foot"
        holder={carrier.id}
        feet={verdict.feet}
        chains={verdict.chains}
        chosen={foot}
        choose={setFoot}
        ends={["rail", "vehicle"]}
      />
      <Group
        title="Bending of the rails"
        aside={
          <span className="text-[13px]">
            safe {speed(verdict.safe_m_s, units)}, lets go {speed(verdict.let_go_m_s, units)}, one foot lost{" "}
            {speed(verdict.lost_let_go_m_s, units)}, {verdict.mass_kg.toFixed(1)} kg
          </span>
        }
      >
        <p className="text-[13px]">
          {percent(most)} of their strength is used at the probed speed. Drawn in the worst case, up where the rail is
          bent up.
        </p>
        {verdict.rails.map((rail) => (
          <Moments key={rail.rail} rail={rail} carrier={carrier} feet={verdict.feet} />
        ))}
      </Group>
    </>
  );
}
