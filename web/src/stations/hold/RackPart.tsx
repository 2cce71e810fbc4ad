/** What a rack has beyond its rails: bars, corners, and how it moves. */
import type { Carrier, CarrierVerdict } from "../../api/types";
import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useUnits } from "../../job/JobContext";
import { force, length, percent, speed } from "../../ui/format";
import { BOLTS } from "./Attachment";
import { SectionFields } from "./SectionFields";

type Rack = Extract<Carrier, { kind: "rack" }>;
const ALLOYS = ["6060-T66", "6063-T5", "6063-T6", "6082-T6", "1.4301", "S235"].map((a) => [a, a] as const);

export function RackFields({ rack, path }: { rack: Rack; path: string }) {
  return (
    <Group title="Bars across">
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <SectionFields section={rack.bar_section} path={`${path}.bar_section`} of="Bar" whole />
        <Choice label="Bar, metal" path={`${path}.bar_alloy`} value={rack.bar_alloy} options={ALLOYS} />
        <Field label="Bars from y" path={`${path}.port`} value={rack.port} />
        <Field label="to y" path={`${path}.starboard`} value={rack.starboard} />
        <Choice
          label="Corners"
          path={`${path}.joint`}
          value={rack.joint}
          options={[
            ["angles", "angle on both sides"],
            ["bolt", "one bolt through"],
            ["clamps", "two-piece clamps on tube"],
            ["welded", "welded"],
          ]}
        />
        {rack.joint === "clamps" && (
          <>
            <Choice label="Clamp bolts" path={`${path}.clamp.bolt`} value={rack.clamp.bolt} options={BOLTS} />
            <Field label="Bolts per clamp" path={`${path}.clamp.bolts`} value={rack.clamp.bolts} hint="2 or 4" />
            <Field label="Clamp, along the rail" path={`${path}.clamp.width`} value={rack.clamp.width} />
            <Tick label="lined with rubber" path={`${path}.clamp.lined`} value={rack.clamp.lined} />
            <Tick label="rails are the vehicle’s own" path={`${path}.own_rails`} value={rack.own_rails} />
          </>
        )}
        <Tick label="bars between the rails" path={`${path}.flush`} value={rack.flush} />
        {(rack.joint === "welded" || rack.posts) && (
          <Field label="Welds, throat" path={`${path}.throat`} value={rack.throat} placeholder="not known" clearable />
        )}
        {rack.joint === "angles" && <Field label="Angles, wall" path={`${path}.angle_wall`} value={rack.angle_wall} />}
      </div>
      <div className="max-w-[420px] pt-1.5">
        <EntryTable
          path={`${path}.bars`}
          noun="bar"
          columns={[{ key: "x", label: "x of its middle", placeholder: "1250 mm" }]}
          entries={rack.bars}
          empty=""
        />
      </div>
    </Group>
  );
}

type Crossbars = NonNullable<Rack["crossbars"]>;

export function CrossbarFields({ crossbars, path }: { crossbars: Crossbars; path: string }) {
  return (
    <Group title="Crossbars below" aside={<span className="text-[13px]">each on a foot in every row</span>}>
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <SectionFields section={crossbars.section} path={`${path}.section`} of="Crossbar" whole />
        <Choice label="Crossbar, metal" path={`${path}.alloy`} value={crossbars.alloy} options={ALLOYS} />
        <Field label="Beyond the feet" path={`${path}.beyond`} value={crossbars.beyond} />
      </div>
      <div className="max-w-[420px] pt-1.5">
        <EntryTable
          path={`${path}.feet`}
          noun="row of feet"
          columns={[{ key: "y", label: "y of its middle", placeholder: "-900 mm" }]}
          entries={crossbars.feet}
          empty=""
        />
      </div>
    </Group>
  );
}

export function Corners({ carrier, verdict }: { carrier: Carrier; verdict: CarrierVerdict }) {
  const units = useUnits();
  if (!verdict.joints.length) return null;
  const titles = {
    corner: new Map(verdict.corner?.links.map((link) => [link.id, link.title])),
    crossing: new Map(verdict.crossing?.links.map((link) => [link.id, link.title])),
  };
  const sorted = [...verdict.joints].sort((a, b) => b.utilisation - a.utilisation);
  return (
    <Group
      title={verdict.crossing ? "Corners and crossings" : "Corners"}
      aside={<span className="text-[13px]">the worst bolt or clamp of each, the worst corner first</span>}
    >
      <ul className="columns-1 md:columns-2 gap-8">
        {sorted.map((joint) => (
          <li
            key={joint.joint}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-hair py-0.5 break-inside-avoid"
          >
            <span className="font-semibold w-14">{joint.joint}</span>
            <span className={`font-sign font-semibold text-[17px] w-16 ${joint.utilisation > 1 ? "text-signal" : ""}`}>
              <Worked place={`hold/${carrier.id}/corner ${joint.joint}`} title={`Corner ${joint.joint}`}>
                {percent(joint.utilisation)}
              </Worked>
            </span>
            <span className="text-[13px]">
              pull {force(joint.pull_n, units)}, along {force(joint.shear_n, units)}; safe{" "}
              {speed(joint.safe_m_s, units)}; {titles[joint.kind].get(joint.weakest)}
            </span>
          </li>
        ))}
      </ul>
    </Group>
  );
}

export function Seams({ carrier, verdict }: { carrier: Carrier; verdict: CarrierVerdict }) {
  const units = useUnits();
  if (!verdict.seams.length) return null;
  const sorted = [...verdict.seams].sort((a, b) => b.utilisation - a.utilisation);
  const welds = sorted.find((s) => s.kind === "weld");
  return (
    <Group
      title={welds ? "Welds" : "Connectors"}
      aside={
        <span className="text-[13px]">
          {welds ? `${welds.bears.toFixed(0)} N/mm² in the throat` : `${sorted[0]?.bears.toFixed(0)} N·m by the maker`},
          the worst first
        </span>
      }
    >
      <ul className="columns-1 md:columns-2 gap-8">
        {sorted.map((seam) => (
          <li
            key={seam.kind + seam.seam}
            className="flex items-baseline gap-x-3 border-b border-hair py-0.5 break-inside-avoid"
          >
            <span className="font-semibold w-24">{seam.seam}</span>
            <span className={`font-sign font-semibold text-[17px] w-16 ${seam.utilisation > 1 ? "text-signal" : ""}`}>
              <Worked place={`hold/${carrier.id}/seam ${seam.seam}`} title={`${seam.kind} ${seam.seam}`}>
                {percent(seam.utilisation)}
              </Worked>
            </span>
            <span className="text-[13px]">
              safe {speed(seam.safe_m_s, units)}, lets go {speed(seam.let_go_m_s, units)}
            </span>
          </li>
        ))}
      </ul>
    </Group>
  );
}

export function RackMotion({ verdict }: { verdict: CarrierVerdict }) {
  const units = useUnits();
  if (!verdict.hum || verdict.sag_mm === null || verdict.sag_mm === undefined) return null;
  return (
    <p className="pt-1">
      Sags {length(verdict.sag_mm, units)} where it lands after a bump; swings at {verdict.hum.frequency_hz.toFixed(0)}{" "}
      Hz; hums around {speed(verdict.hum.wind_m_s, units)}.
      {verdict.grabbed && (
        <>
          {" "}
          Somebody hanging on a corner uses{" "}
          <span className={verdict.grabbed.utilisation > 1 ? "text-signal font-semibold" : "font-semibold"}>
            {percent(verdict.grabbed.utilisation)}
          </span>{" "}
          of {verdict.grabbed.part}.
        </>
      )}
    </p>
  );
}
