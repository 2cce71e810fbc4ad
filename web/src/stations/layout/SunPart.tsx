/** Where it stands, and what sun, shadow and heat make of the year. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { YieldFinding } from "../../api/types";
import { useJobView } from "../../app/JobContext";
import { Choice, Field, Group } from "../../ui/Field";
import { dayEnergy, length, percent, yearEnergy } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { Worked } from "../../ui/WorkingDialog";
import { ShadeClock } from "./ShadeClock";
import { useCatalogue } from "./useModels";

export function SunPart() {
  const { id, job, handle } = useJobView();
  const { data, error, isPlaceholderData, isFetching } = useQuery({
    queryKey: ["yield", id, handle.answer?.revision],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/yield", { params: { path: { job_id: id } } })),
  });
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[3fr_7fr] gap-x-8">
      <SiteFields />
      <div aria-busy={isFetching}>
        {error && <p className="font-semibold">{error.message}</p>}
        {!data && isFetching && <p>Following the sun through the year …</p>}
        {data && !error && job.panels.length > 0 && <Year found={data} stale={isPlaceholderData} />}
        {!job.panels.length && <p>Place panels first.</p>}
      </div>
    </div>
  );
}

function SiteFields() {
  const { job, handle } = useJobView();
  const catalogue = useCatalogue();
  const { site } = job;
  const [attempt, problem] = useTry();
  const known = catalogue?.climates.find((c) => c.value === site.climate);
  const load = (file: File) =>
    attempt(async () => {
      const months = await unwrap(http.POST("/api/calc/climate.parse", { body: { text: await file.text() } }));
      await handle.edit([{ op: "set", path: "site.months", value: months }]);
    });
  return (
    <Group title="Where it stands">
      <div className="grid grid-cols-1 gap-y-1.5 pb-1.5">
        <Choice
          label="Climate"
          path="site.climate"
          value={site.climate}
          options={(catalogue?.climates ?? []).map((c) => [c.value, `${c.value}: ${c.words}`] as const)}
        />
        <Choice
          label="It is"
          path="site.standing"
          value={site.standing}
          options={[
            ["any", "parked, heading not known"],
            ["heading", "parked, heading known"],
            ["driving", "driving"],
          ]}
        />
      </div>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1.5">
        <Field
          label="Latitude, north +"
          path="site.latitude"
          value={site.latitude}
          placeholder={known ? `${known.latitude_deg}°` : "49.0°"}
          clearable
        />
        <Field
          label="Longitude, east +"
          path="site.longitude"
          value={site.longitude}
          placeholder={known ? `${known.longitude_deg}°` : "10.0°"}
          clearable
        />
        <Field
          label="Front points to, north 0°"
          path="site.heading"
          value={site.heading}
          placeholder="180°"
          clearable
        />
        <Choice
          label="Lids"
          path="site.lids"
          value={site.lids}
          options={[
            ["closed", "shut"],
            ["open", "open"],
          ]}
        />
      </div>
      <label className="label block pt-2">
        Own climate, twelve months (CSV: month, sunshine, temperature)
        <input
          type="file"
          accept=".csv,.txt"
          className="block text-[13px] text-ink"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void load(file);
            event.target.value = "";
          }}
        />
      </label>
      {site.months.length > 0 && (
        <p className="text-[13px]">
          Twelve months of your own count.{" "}
          <button
            type="button"
            className="underline"
            onClick={() => void handle.edit([{ op: "set", path: "site.months", value: [] }])}
          >
            drop them
          </button>
        </p>
      )}
      {problem}
      <p className="text-soft text-[13px] pt-1">The climates are invented sites; load the place you stand at.</p>
    </Group>
  );
}

function Year({ found, stale }: { found: YieldFinding; stale: boolean }) {
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
          {found.flat_wh !== null && found.flat_wh !== undefined && (
            <Figure value={yearEnergy(found.flat_wh)} words="with all panels flat" />
          )}
        </div>
        <p className="text-soft text-[13px]">
          {found.stand}. {found.caution}
        </p>
      </Group>
      <PanelTable found={found} />
      <Group
        title="When the shadow falls"
        aside={<span className="text-soft text-[13px]">share lost, local time</span>}
      >
        <ShadeClock months={found.months} />
      </Group>
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

function PanelTable({ found }: { found: YieldFinding }) {
  const { select } = useJobView();
  return (
    <table className="sheet-table mb-3">
      <thead>
        <tr>
          <th>panel</th>
          <th className="num">a year</th>
          <th className="num">lost</th>
          <th className="num">direct light lost</th>
          <th className="num">diffuse lost</th>
          <th className="num">hottest cells</th>
          <th>taken as usual</th>
        </tr>
      </thead>
      <tbody>
        {found.panels.map((p) => (
          <tr key={p.panel}>
            <td>
              <button type="button" className="underline" onClick={() => select(`panels.${p.panel}`)}>
                {p.name}
              </button>
            </td>
            <td className="num">
              <Worked place={`yield/${p.panel}`} title={`${p.name}: power under the brightest light`}>
                {yearEnergy(p.wh)}
              </Worked>
            </td>
            <td className="num font-semibold">{percent(p.lost)}</td>
            <td className="num">{percent(p.beam_lost)}</td>
            <td className="num">{percent(p.diffuse_lost)}</td>
            <td className="num">{p.hottest_deg_c.toFixed(0)} °C</td>
            <td className="text-[13px] text-soft">{p.supposed.join(", ")}</td>
          </tr>
        ))}
      </tbody>
    </table>
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
  const { units } = useJobView();
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
