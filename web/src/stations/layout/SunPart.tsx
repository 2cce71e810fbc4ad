/** Where the vehicle stands, and the year that follows from it. */
import { useState } from "react";
import { http, unwrap } from "../../api/client";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob } from "../../job/JobContext";
import { useLookedAt } from "../../job/useSlow";
import { FileButton } from "../../ui/FileButton";
import { useTry } from "../../ui/useTry";
import { DayShadows } from "./DayShadows";
import { useCatalogue } from "./useModels";
import { Year } from "./Year";

export function SunPart() {
  const { id } = useDesk();
  const job = useStoredJob();
  const revision = useRevision();
  const { data, doing, error, isPlaceholderData, isFetching } = useLookedAt(id, "year", revision);
  const found = data?.result;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[3fr_7fr] gap-x-8">
      <SiteFields />
      <div aria-busy={isFetching}>
        {error && <p className="font-semibold">{error.message}</p>}
        {!found && isFetching && <p>Following the sun through the year{doing && `: ${doing}`} …</p>}
        {found && !error && <DayShadows months={found.months.map((m) => m.month)} />}
        {found && !error && job.panels.length > 0 && <Year found={found} stale={isPlaceholderData} />}
        {!job.panels.length && <p>Place panels first.</p>}
      </div>
    </div>
  );
}

function SiteFields() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const catalogue = useCatalogue();
  const { site } = job;
  const [attempt, problem] = useTry();
  const known = catalogue?.climates.find((c) => c.value === site.climate);
  const [refused, setRefused] = useState<string | null>(null);
  const load = async (text: string) => {
    setRefused(null);
    await attempt(async () => {
      const months = await unwrap(http.POST("/api/calc/climate.parse", { body: { text } }));
      await handle.edit([{ op: "set", path: "site.months", value: months }]);
    });
  };
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
      <div className="pt-2">
        <p className="label">Own climate, twelve months (CSV: month, sunshine, temperature)</p>
        <FileButton
          label="Load a climate"
          accept=".csv,.txt"
          most={20_000}
          tooLarge="This is no table of twelve months. Give one line for each month."
          take={load}
          refuse={setRefused}
        />
      </div>
      {refused && (
        <p role="alert" className="text-signal font-semibold text-[13px]">
          {refused}
        </p>
      )}
      {site.months.length > 0 && (
        <p className="text-[13px]">
          Twelve months of your own count.{" "}
          <button
            type="button"
            className="underline"
            onClick={() => handle.change([{ op: "set", path: "site.months", value: [] }])}
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
