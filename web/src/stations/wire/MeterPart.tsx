/** The meter card: what each string must show in this light, the reading typed in, and what it means. */
import type { Findings, Job } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { percent, temperature } from "../../ui/format";
import { MONTHS, newId } from "./words";

type Reading = Job["wiring"]["meter"][number];
type Verdict = Findings["meter"][number];

export function MeterPart() {
  const { handle } = useDesk();
  const { wiring, panels } = useStoredJob();
  const verdicts = useFinding("meter");
  const names = new Map(panels.map((p) => [p.id, p.name]));
  const ends = [
    ...wiring.strings.map((s) => [s.id, s.panels.map((p) => names.get(p) ?? p).join(" + ")] as const),
    ...wiring.controllers
      .filter((c) => wiring.strings.filter((s) => s.controller === c.id).length > 1)
      .map((c) => [c.id, `all of ${c.name}, joined`] as const),
  ];
  if (!ends.length) return <p>Plug the panels into strings first: then the card says what the meter must show.</p>;
  const start = (at: string) => {
    const now = new Date();
    const value = { id: newId("m"), at, month: now.getMonth() + 1, hour: now.getHours() };
    handle.change([{ op: "add", path: "wiring.meter", value }]);
  };
  return (
    <>
      <p className="max-w-[80ch] pb-1">
        Range for direct current, above the cold voltage. Never let the ends touch. Open volts first, before anything is
        joined.
      </p>
      <div className="flex flex-wrap gap-2 pb-3">
        {ends.map(([id, name]) => (
          <button key={id} type="button" className="act" onClick={() => start(id)}>
            Measure {name}
          </button>
        ))}
      </div>
      {wiring.meter.map((reading) => (
        <Card
          key={reading.id}
          reading={reading}
          name={ends.find(([id]) => id === reading.at)?.[1]}
          verdict={verdicts.find((v) => v.reading === reading.id)}
        />
      ))}
    </>
  );
}

function Card({
  reading,
  name,
  verdict,
}: {
  reading: Reading;
  name?: string | undefined;
  verdict?: Verdict | undefined;
}) {
  const { handle } = useDesk();
  const units = useUnits();
  const path = `wiring.meter.${reading.id}`;
  const first = verdict?.meant[0];
  const good = first?.meaning === "right" && verdict?.explained;
  return (
    <Group
      title={name ?? "a string that is gone"}
      aside={
        <button
          type="button"
          className="underline text-[13px]"
          aria-label={`Remove the reading at ${name ?? "a string that is gone"}`}
          onClick={() => handle.change([{ op: "remove", path }])}
        >
          remove
        </button>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-x-8">
        <div>
          {verdict && (
            <p className="font-sign text-[26px] leading-8 font-semibold" aria-live="polite">
              {verdict.volts.low.toFixed(1)} to {verdict.volts.high.toFixed(1)} V
              <span className="text-[17px] font-normal">
                {" "}
                open, {verdict.amps.low.toFixed(1)} to {verdict.amps.high.toFixed(1)} A short
              </span>
            </p>
          )}
          <div className="grid grid-cols-2 sm:grid-cols-3 gap-x-4 gap-y-1.5 pt-1">
            <Field
              label="Meter says, volts"
              path={`${path}.volts`}
              reads="volts"
              value={reading.volts}
              placeholder="38.4 V"
              clearable
            />
            <Field label="Short, amps" path={`${path}.amps`} value={reading.amps} placeholder="not needed" clearable />
            <Choice
              label="Sky"
              path={`${path}.sky`}
              value={reading.sky}
              options={[
                ["clear", "clear sun"],
                ["haze", "haze, soft shadows"],
                ["cloud", "cloud, no shadows"],
                ["shade", "deep shade or dawn"],
              ]}
            />
            <Choice
              label="Month"
              path={`${path}.month`}
              value={String(reading.month)}
              options={MONTHS.map((m, i) => [String(i + 1), m] as const)}
              onChange={(v) => handle.change([{ op: "set", path: `${path}.month`, value: Number(v) }])}
            />
            <Field label="Hour, mean sun" path={`${path}.hour`} value={reading.hour} />
            <Field
              label="Panel's back, measured"
              path={`${path}.panel`}
              value={reading.panel}
              placeholder="not needed"
              clearable
            />
          </div>
        </div>
        <div>
          {!verdict && <p>Its string is not plugged any more, or a sheet has gaps.</p>}
          {verdict && !first && (
            <p className="text-[13px]">
              For {Math.round(verdict.light.low)} to {Math.round(verdict.light.high)} W/m² and cells of{" "}
              {temperature(verdict.cell_c.low, units)} to {temperature(verdict.cell_c.high, units)}. Type what the meter
              says.
            </p>
          )}
          {verdict && first && (
            <>
              <p
                aria-live="polite"
                className={`font-sign text-[24px] leading-7 font-semibold ${good ? "" : "text-signal"}`}
              >
                {!verdict.explained ? "Nothing explains this" : good ? "As it should be" : MEANS[first.meaning]}
              </p>
              <p className="pb-1">{verdict.explained ? first.check : "Measure again: range, probes, light."}</p>
              <ul>
                {verdict.meant.slice(0, 4).map((m) => (
                  <li key={m.meaning} className="flex items-baseline gap-3 border-b border-hair py-0.5">
                    <span className="num w-12 font-semibold">{percent(m.share)}</span>
                    <span>{m.words}</span>
                  </li>
                ))}
              </ul>
            </>
          )}
          {verdict && <p className="text-[13px] pt-1">{verdict.cannot}</p>}
        </div>
      </div>
    </Group>
  );
}

const MEANS: Record<string, string> = {
  reversed: "Reversed",
  "one panel missing": "A panel is missing",
  "one group dead": "A third gives nothing",
  "joined wrongly": "Joined the wrong way",
  "no contact": "No contact",
  "wrong range": "Wrong range",
  right: "As it should be",
};
