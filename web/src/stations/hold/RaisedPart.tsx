/** Panels that are raised while parked: hinges, struts, pins, latches, and the gust before which they are laid flat. */
import type { Panel, RaisedVerdict, Raising } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { force, length, percent, speed } from "../../ui/format";
import { BOLTS } from "./Attachment";
import { SectionFields } from "./SectionFields";

const ALLOYS = ["6060-T66", "6063-T6", "6082-T6", "1.4301", "S235"].map((a) => [a, a] as const);

export function RaisedPart({ panel }: { panel: Panel }) {
  const { handle } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const raising = job.raisings.find((r) => r.panels.includes(panel.id));
  const verdict = useFinding("raised").find((r) => r.raising === raising?.id);
  if (!panel.tilt.deg) return null;
  if (!raising)
    return (
      <Group
        title="Raised while parked"
        aside={
          <button type="button" className="act" onClick={() => handle.change([{ op: "raise_panel", panel: panel.id }])}>
            Tell hinges and struts
          </button>
        }
      >
        <p className="text-[13px]">Raised by {panel.tilt.deg}°: until its struts are told, only its feet are judged.</p>
      </Group>
    );
  const path = `raisings.${raising.id}`;
  return (
    <Group
      title={`${raising.name}, raised while parked`}
      aside={
        verdict && (
          <span className="text-[13px]">
            lay it flat before gusts of{" "}
            <Worked place={`raised/${raising.id}`} title={`${raising.name} in the wind`}>
              {speed(verdict.stow_m_s, units)}
            </Worked>
            , a wind of {speed(verdict.mean_m_s, units)}
          </span>
        )
      }
    >
      {verdict?.frame && (
        <p className="text-[13px]">
          Raised with its frame: hinges at the feet of one rail, struts grip its bars and stand at the feet of the
          other.
        </p>
      )}
      {verdict && (
        <div className="flex flex-wrap gap-x-6 items-start">
          <Struts raising={raising} verdict={verdict} panel={panel} />
          <Parts verdict={verdict} />
        </div>
      )}
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        {!verdict?.frame && <Field label="Hinges" path={`${path}.hinges`} value={raising.hinges} />}
        <Field label="Struts" path={`${path}.struts`} value={raising.struts} />
        <Field label="Strut grips at" path={`${path}.at`} value={raising.at} hint="of the way to the raised edge" />
        <Field
          label="Strut stands from hinge"
          path={`${path}.base`}
          value={raising.base}
          placeholder={verdict?.frame ? "under the raised rail" : "as far as it grips"}
          hint={verdict ? `strut ${length(verdict.strut_mm, units)} pin to pin` : "on the roof"}
          clearable
        />
        <SectionFields section={raising.strut} path={`${path}.strut`} of="Strut" tubes />
        <Choice label="Strut, metal" path={`${path}.alloy`} value={raising.alloy} options={ALLOYS} />
        <Choice label="Pins" path={`${path}.pin`} value={raising.pin} options={BOLTS} />
        <Field label="Latches for the road" path={`${path}.latches`} value={raising.latches} />
        <Field
          label="A latch bears, N"
          path={`${path}.latch_n`}
          value={raising.latch_n}
          placeholder="1500"
          hint={verdict ? `${force(verdict.latch_pull_n, units)} pull at each` : "by its maker"}
          clearable
        />
      </div>
      <button
        type="button"
        className="underline text-[13px] pt-1"
        onClick={() => handle.change([{ op: "remove", path }])}
      >
        take hinges and struts away
      </button>
    </Group>
  );
}

function Parts({ verdict }: { verdict: RaisedVerdict }) {
  const units = useUnits();
  const borne = (value: number, unit: RaisedVerdict["parts"][number]["unit"]) =>
    unit === "N" ? force(value, units) : `${value.toFixed(0)} N/mm²`;
  return (
    <table className="sheet-table flex-1 min-w-[380px]">
      <thead>
        <tr>
          <th>part</th>
          <th>in the site’s gust</th>
          <th>bears</th>
          <th>used</th>
          <th>at its end in gusts of</th>
        </tr>
      </thead>
      <tbody>
        {verdict.parts.map((part) => {
          const used = Math.max(part.force_n, 0) / part.bears_n;
          return (
            <tr key={part.part}>
              <td className={part.part === verdict.first ? "font-semibold" : ""}>{part.part}</td>
              <td>{borne(Math.max(part.force_n, 0), part.unit)}</td>
              <td>{borne(part.bears_n, part.unit)}</td>
              <td className={used > 1 ? "text-signal font-semibold" : ""}>{percent(used)}</td>
              <td>{speed(part.gust_m_s, units)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const WIDE = 230;
const HIGH = 130;

/** The unit from the side, to scale: hinge, panel, strut. */
function Struts({ raising, verdict, panel }: { raising: Raising; verdict: RaisedVerdict; panel: Panel }) {
  const tilt = (panel.tilt.deg * Math.PI) / 180;
  const chord = verdict.chord_mm;
  const scale = Math.min((WIDE - 40) / chord, (HIGH - 34) / Math.max(chord * Math.sin(tilt), 1));
  const at = (u: number, z: number) => [16 + u * scale, HIGH - 16 - z * scale] as const;
  const edge = at(chord * Math.cos(tilt), chord * Math.sin(tilt));
  const pin = at(raising.at * chord * Math.cos(tilt), raising.at * chord * Math.sin(tilt));
  const foot = at(raising.base?.mm ?? (verdict.frame ? chord : raising.at * chord), 0);
  const hinge = at(0, 0);
  const hot = verdict.first.startsWith("strut");
  return (
    <svg
      width={WIDE}
      height={HIGH}
      role="img"
      aria-label={`Raised by ${panel.tilt.deg}°, strut ${verdict.strut_mm.toFixed(0)} mm`}
    >
      <line x1={4} x2={WIDE - 4} y1={HIGH - 12} y2={HIGH - 12} stroke="var(--color-ink)" strokeWidth={2} />
      <line
        x1={hinge[0]}
        y1={hinge[1]}
        x2={edge[0]}
        y2={edge[1]}
        stroke="var(--color-ink)"
        strokeWidth={5}
        strokeLinecap="round"
      />
      <line
        x1={pin[0]}
        y1={pin[1]}
        x2={foot[0]}
        y2={foot[1]}
        stroke={hot ? "var(--color-signal)" : "var(--color-chalk)"}
        strokeWidth={4}
      />
      {[hinge, pin, foot].map(([cx, cy]) => (
        <circle key={`${cx} ${cy}`} cx={cx} cy={cy} r={4.5} fill="var(--color-tape)" stroke="var(--color-ink)" />
      ))}
      <text x={edge[0] + 6} y={edge[1] + 6} className="font-sign font-semibold text-[14px] fill-ink">
        {panel.tilt.deg}°
      </text>
    </svg>
  );
}
