/** What sun, shadow and heat make of the year: by panel, by month and hour, flat against raised, low against airy. */
import { useState } from "react";
import type { YieldFinding } from "../../api/types";
import { Group, Pick } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { selectedPanel, useDesk, useUnits } from "../../job/JobContext";
import { dayEnergy, length, percent, yearEnergy } from "../../ui/format";
import { ShadeClock } from "./ShadeClock";

export function Year({ found, stale }: { found: YieldFinding; stale: boolean }) {
  return (
    <div className={stale ? "opacity-60" : ""}>
      <Group
        title="The year"
        aside={<span className="text-soft text-[13px]">{stale ? "of the layout before: working …" : found.site}</span>}
      >
        <div className="flex flex-wrap items-end gap-x-8 pb-1">
          <Figure value={yearEnergy(found.year_wh)} words="a year" />
          <Figure value={percent(found.lost)} words="lost to shadow" />
          <Figure value={dayEnergy(found.months[11]?.day_wh ?? 0)} words="a day in December" />
          <Figure value={dayEnergy(found.months[5]?.day_wh ?? 0)} words="a day in June" />
        </div>
        <p className="text-soft text-[13px]">
          {found.stand}.{" "}
          {found.flat_wh !== null && found.flat_wh !== undefined && (
            <span className="text-ink font-semibold">With all panels flat {yearEnergy(found.flat_wh)}. </span>
          )}
          {found.caution}
        </p>
      </Group>
      <PanelTable found={found} />
      <Shadows found={found} />
      <div className="grid sm:grid-cols-2 gap-x-8">
        <Tilts found={found} />
        <Gaps found={found} />
      </div>
    </div>
  );
}

function Figure({ value, words }: { value: string; words: string }) {
  return (
    <p className="leading-none">
      <span className="font-sign font-semibold text-[30px]">{value}</span>
      <span className="block text-soft text-[13px] pt-0.5">{words}</span>
    </p>
  );
}

const ALL = "";

/** Every panel over the year, or over one month of it. */
function PanelTable({ found }: { found: YieldFinding }) {
  const { select } = useDesk();
  const [month, setMonth] = useState(ALL);
  const at = found.months.findIndex((m) => m.month === month);
  return (
    <Group
      title="By panel"
      aside={
        <Pick
          bare
          label="Year or month"
          value={month}
          onChange={setMonth}
          options={[[ALL, "the year"], ...found.months.map((m) => [m.month, m.month] as const)]}
        />
      }
    >
      <table className="sheet-table mb-1">
        <thead>
          <tr>
            <th>panel</th>
            <th className="num">{at < 0 ? "a year" : "a day"}</th>
            <th className="num">lost</th>
            <th className="num">direct light lost</th>
            <th className="num">diffuse lost</th>
            <th className="num">hottest cells</th>
            <th>taken as usual</th>
          </tr>
        </thead>
        <tbody>
          {found.panels.map((p) => {
            const of = p.months[at] ?? p;
            return (
              <tr key={p.panel}>
                <td>
                  <button type="button" className="underline" onClick={() => select(`panels.${p.panel}`)}>
                    {p.name}
                  </button>
                </td>
                <td className="num">
                  <Worked place={`yield/${p.panel}`} title={`${p.name}: power under the brightest light`}>
                    {"day_wh" in of ? dayEnergy(of.day_wh) : yearEnergy(of.wh)}
                  </Worked>
                </td>
                <td className="num font-semibold">{percent(of.lost)}</td>
                <td className="num">{percent(of.beam_lost)}</td>
                <td className="num">{percent(p.diffuse_lost)}</td>
                <td className="num">{p.hottest_deg_c.toFixed(0)} °C</td>
                <td className="text-[13px] text-soft">{p.supposed.join(", ")}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Group>
  );
}

/** The hours of shadow of all panels, or of the one picked on the roof. */
function Shadows({ found }: { found: YieldFinding }) {
  const { selection, select } = useDesk();
  const picked = found.panels.find((p) => p.panel === selectedPanel(selection));
  return (
    <Group
      title="When the shadow falls"
      aside={
        <span className="flex items-center gap-3">
          <span className="text-soft text-[13px]">% lost, hours by the mean sun</span>
          <Pick
            bare
            label="Shadow on"
            value={picked?.panel ?? ALL}
            onChange={(panel) => select(panel === ALL ? null : `panels.${panel}`)}
            options={[[ALL, "all panels"], ...found.panels.map((p) => [p.panel, p.name] as const)]}
          />
        </span>
      }
    >
      <ShadeClock months={(picked ?? found).months} />
    </Group>
  );
}

function Tilts({ found }: { found: YieldFinding }) {
  return (
    <Group
      title="Flat against raised"
      aside={<span className="text-soft text-[13px]">towards the sun, no shadow</span>}
    >
      <table className="sheet-table">
        <thead>
          <tr>
            <th>raised by</th>
            <th className="num">year</th>
            <th className="num">December</th>
            <th className="num">June</th>
          </tr>
        </thead>
        <tbody>
          {found.tilts.map((t) => (
            <tr key={t.tilt_deg}>
              <td>{t.tilt_deg ? `${t.tilt_deg}°` : "flat"}</td>
              <td className="num">{percent(t.year)}</td>
              <td className="num">{percent(t.winter)}</td>
              <td className="num">{percent(t.summer)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}

function Gaps({ found }: { found: YieldFinding }) {
  const units = useUnits();
  return (
    <Group title="Low against airy" aside={<span className="text-soft text-[13px]">gap under the panel</span>}>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>air gap</th>
            <th className="num">energy</th>
            <th className="num">hottest cells</th>
          </tr>
        </thead>
        <tbody>
          {found.gaps.map((g) => (
            <tr key={g.gap_mm}>
              <td>{length(g.gap_mm, units)}</td>
              <td className="num">{(g.energy * 100).toFixed(1)} %</td>
              <td className="num">{g.hottest_deg_c.toFixed(0)} °C</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}
