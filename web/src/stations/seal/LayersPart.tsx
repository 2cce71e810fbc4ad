/** How it is sealed: the schools with their reasons, and each kind of place cut through, layer by layer. */
import { useState } from "react";
import type { SealSection } from "../../api/types";
import { Choice, Field, Group, Pick } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";

const GROUND = [
  "rubber membrane",
  "thermoplastic membrane",
  "gelcoat",
  "painted metal",
  "galvanised steel",
  "bare aluminium",
  "anodised aluminium",
  "glass",
  "acrylic glass",
  "wood",
  "old silicone",
] as const;
const FAMILIES = [
  "butyl tape",
  "bitumen tape",
  "lap sealant",
  "polyurethane",
  "hybrid",
  "silicone",
  "polysulphide",
  "acrylic",
  "rubber gasket",
] as const;
const same = (names: readonly string[]) => names.map((n) => [n, n] as const);

export function LayersPart() {
  const { seal } = useStoredJob();
  const choice = useFinding("seal");
  const sections = useFinding("seal_sections");
  return (
    <>
      {sections.length ? <Sections sections={sections} /> : <p className="pb-2">Nothing to seal yet.</p>}
      <Ways />
      <Group title="How it is sealed">
        <div className="grid grid-cols-2 sm:grid-cols-3 gap-x-4 gap-y-1.5 max-w-[860px]">
          <Choice
            label={choice?.assumed ? `Ground, ${choice.substrate} counts` : "Ground"}
            path="seal.substrate"
            value={seal.substrate}
            options={same(GROUND)}
          />
          <Choice
            label="Under a plate"
            path="seal.under"
            value={seal.under}
            options={[
              ["tape", "tape first: clean, works at once"],
              ["wet", "wet sealant only: fills every gap"],
            ]}
          />
          <Choice
            label="Squeeze-out"
            path="seal.edge"
            value={seal.edge}
            options={[
              ["leave", "leave it: the edge stays whole"],
              ["trim", "trim after two days, then cap"],
            ]}
          />
          <Choice
            label="Sides"
            path="seal.sides"
            value={seal.sides}
            options={[
              ["all round", "all round: nothing creeps under"],
              ["low side open", "low side open: a leak shows"],
            ]}
          />
          <Choice
            label={seal.under_with ? "Under it" : `Under it, ${choice?.under.name ?? ""} counts`}
            path="seal.under_with"
            value={seal.under_with}
            options={same(FAMILIES)}
          />
          <Choice
            label={seal.round_with ? "Round it" : `Round it, ${choice?.round.name ?? ""} counts`}
            path="seal.round_with"
            value={seal.round_with}
            options={same(FAMILIES)}
          />
          <Field label="Why so" path="seal.why" value={seal.why} placeholder="" clearable />
        </div>
      </Group>
      <Kinds />
    </>
  );
}

const KINDS = [
  "screw foot",
  "bolt foot",
  "one-sided foot",
  "tape edge",
  "deck bolt",
  "factory thread",
  "gland",
  "clip screw",
  "cable clip",
  "scar",
  "open tube",
] as const;
const AS_ALL = ["", "as the rest"] as const;

/** Kinds of places that are sealed otherwise, each with its reason. */
function Kinds() {
  const { handle } = useDesk();
  const { kinds } = useStoredJob().seal;
  const there = useFinding("seal_sections").map((s) => s.kind);
  const free = KINDS.filter((k) => there.includes(k) && !kinds.some((entry) => entry.kind === k) && k !== "open tube");
  const set = (path: string, value: string) => handle.change([{ op: "set", path, value: value || null }]);
  return (
    <Group title="Otherwise for one kind" aside={<span className="text-[13px]">the rest as above</span>}>
      {kinds.map((entry) => {
        const path = `seal.kinds.${entry.id}`;
        const pick = (
          label: string,
          of: "under" | "edge" | "sides" | "under_with" | "round_with",
          options: readonly (readonly [string, string])[],
        ) => (
          <Pick
            label={label}
            path={`${path}.${of}`}
            value={entry[of] ?? ""}
            options={[AS_ALL, ...options]}
            onChange={(value) => set(`${path}.${of}`, value)}
          />
        );
        return (
          <section key={entry.id} aria-label={`Seal of each ${entry.kind}`} className="pb-2">
            <div className="flex items-baseline gap-4">
              <span className="font-semibold">{entry.kind}</span>
              <button
                type="button"
                className="underline text-[13px]"
                aria-label={`Seal ${entry.kind} as the rest`}
                onClick={() => handle.change([{ op: "remove", path }])}
              >
                as the rest
              </button>
            </div>
            <div className="grid grid-cols-2 sm:grid-cols-6 gap-x-4 gap-y-1.5">
              {pick("Under a plate", "under", [
                ["tape", "tape first"],
                ["wet", "wet only"],
              ])}
              {pick("Squeeze-out", "edge", [
                ["leave", "leave it"],
                ["trim", "trim, then cap"],
              ])}
              {pick("Sides", "sides", [
                ["all round", "all round"],
                ["low side open", "low side open"],
              ])}
              {pick("Under it", "under_with", same(FAMILIES))}
              {pick("Round it", "round_with", same(FAMILIES))}
              <Field label="Why" path={`${path}.why`} value={entry.why} clearable />
            </div>
          </section>
        );
      })}
      <div className="flex flex-wrap gap-2">
        {free.map((kind) => (
          <button
            key={kind}
            type="button"
            className="act !h-[30px]"
            onClick={() => handle.change([{ op: "add", path: "seal.kinds", value: { kind } }])}
          >
            Otherwise for each {kind}
          </button>
        ))}
      </div>
    </Group>
  );
}

/** The schools beside one another; one click takes one. */
function Ways() {
  const { handle } = useDesk();
  const ways = useFinding("seal_ways");
  if (!ways.length) return null;
  return (
    <Group title="Ways side by side">
      <table className="sheet-table max-w-[900px]">
        <thead>
          <tr>
            <th>under a plate</th>
            <th>squeeze-out</th>
            <th>with</th>
            <th className="!text-right">sealant</th>
            <th className="!text-right">hours</th>
            <th className="!text-right">visits</th>
            <th className="!text-right">through after</th>
            <th>
              <span className="sr-only">take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {ways.map((way) => (
            <tr key={`${way.under} ${way.edge}`} className={way.chosen ? "bg-tape/30" : ""}>
              <td>{way.under === "tape" ? "tape first" : "wet sealant only"}</td>
              <td>{way.edge === "trim" ? "trimmed, then capped" : "left alone"}</td>
              <td>{way.refused ? <span className="text-signal font-semibold">{way.refused}</span> : way.with_what}</td>
              <td className="num">{way.volume_ml.toFixed(0)} ml</td>
              <td className="num">{way.hours.toFixed(1)}</td>
              <td className="num">{way.visits}</td>
              <td className="num">{way.ready_days > 365 ? "over a year" : `${Math.ceil(way.ready_days)} days`}</td>
              <td className="num">
                {way.chosen ? (
                  "chosen"
                ) : (
                  <button
                    type="button"
                    className="underline text-[13px]"
                    aria-label={`Take ${way.under}, ${way.edge}`}
                    onClick={() =>
                      handle.change([
                        { op: "set", path: "seal.under", value: way.under },
                        { op: "set", path: "seal.edge", value: way.edge },
                      ])
                    }
                  >
                    take it
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}

function Sections({ sections }: { sections: readonly SealSection[] }) {
  const [open, setOpen] = useState<string | null>(null);
  const shown = sections.find((s) => s.kind === open) ?? sections[0];
  return (
    <Group title="Layers from below" aside={<span className="text-[13px]">drawn to scale</span>}>
      <div className="flex flex-wrap gap-1.5 pb-2">
        {sections.map((section) => (
          <button
            key={section.kind}
            type="button"
            className={`act !h-auto py-0.5 ${section === shown ? "!bg-ink !text-paper" : ""}`}
            aria-pressed={section === shown}
            onClick={() => setOpen(section.kind)}
          >
            {section.kind} <span className="text-[13px]">{section.places}</span>
          </button>
        ))}
      </div>
      {shown && (
        <div className="grid md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-6">
          <Cut section={shown} />
          <ol>
            {shown.layers.map((layer, i) => (
              <li key={layer.what} className="grid grid-cols-[2rem_minmax(0,1fr)] border-b border-hair py-1">
                <span className="font-sign font-semibold text-[17px] text-chalk">{i + 1}</span>
                <span>
                  <span className="font-semibold">{layer.what}</span>
                  {layer.wait_h > 0 && (
                    <span className="text-[13.5px]">
                      , then wait {layer.wait_h < 2 ? `${layer.wait_h * 60} min` : `${layer.wait_h.toFixed(0)} h`}
                    </span>
                  )}
                  <br />
                  <span className="text-[13.5px]">{layer.why}</span>
                </span>
              </li>
            ))}
          </ol>
        </div>
      )}
    </Group>
  );
}

const FILL: Record<string, string> = {
  skin: "var(--color-soft)",
  soft: "var(--color-ink)",
  sealant: "var(--color-chalk)",
  metal: "none",
  tape: "var(--color-tape)",
  none: "none",
};

function Cut({ section }: { section: SealSection }) {
  const points = section.layers.flatMap((layer) => layer.rings.flat());
  if (!points.length) return <p>Nothing to draw: it is capped.</p>;
  const us = points.map((p) => p.u_mm);
  const zs = points.map((p) => p.z_mm);
  const [left, right] = [Math.min(...us) - 4, Math.max(...us) + 4];
  const [low, high] = [Math.min(...zs) - 5, Math.max(...zs) + 9];
  const wide = right - left;
  const text = wide / 30;
  return (
    <svg
      viewBox={`${left} ${-high} ${wide} ${high - low}`}
      className="w-full max-h-[300px]"
      role="img"
      aria-label={`${section.kind} cut through, ${section.layers.length} layers`}
    >
      {section.layers.map((layer, i) => (
        <g key={layer.what}>
          {layer.rings.map((ring) => (
            <path
              key={JSON.stringify(ring[0])}
              d={`M${ring.map((p) => `${p.u_mm} ${-p.z_mm}`).join("L")}Z`}
              fill={FILL[layer.look]}
              fillOpacity={layer.look === "skin" ? 0.45 : layer.look === "metal" ? 0 : 0.8}
              stroke="var(--color-ink)"
              strokeWidth={wide / 420}
            />
          ))}
          {layer.rings[0]?.[0] && (
            <text
              x={Math.max(...layer.rings.flat().map((p) => p.u_mm)) - text * 0.3}
              y={-Math.max(...layer.rings.flat().map((p) => p.z_mm)) - text * 0.25}
              fontSize={text}
              textAnchor="end"
              className="font-sign font-semibold fill-ink"
            >
              {i + 1}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
