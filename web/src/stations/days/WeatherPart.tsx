/** The weather: a forecast fetched or loaded, told in spells, or left out; shelter and colour of the roof. */
import { useState } from "react";
import { http, unwrap } from "../../api/client";
import type { Job } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { FileButton } from "../../ui/FileButton";
import { temperature } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { newId } from "../wire/words";
import { DateBox } from "./DateBox";
import { dateOf, dayWords, nextDay, whenWords } from "./road";

type Spell = Job["days"]["spells"][number];

export function WeatherPart() {
  const { days, site } = useStoredJob();
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-10">
      <div>
        <Group title="Weather">
          <Choice
            label="It is"
            path="days.weather"
            value={days.weather}
            options={[
              ["forecast", "as a forecast says"],
              ["told", "as told below"],
              ["ignored", "left out: a guess"],
            ]}
          />
          {days.weather === "forecast" && <ForecastFields />}
          {days.weather === "told" && <Spells />}
        </Group>
        <Group title="Where it stands">
          <div className="grid grid-cols-2 gap-x-4 gap-y-1.5">
            <Choice
              label="Shelter"
              path="days.shelter"
              value={days.shelter}
              options={[
                ["none", "none"],
                ["roofed", "a roof over it"],
                ["heated", "heated"],
              ]}
            />
            {days.shelter === "heated" && <Field label="Kept at" path="days.shelter_warm" value={days.shelter_warm} />}
            <Choice
              label="Its roof is"
              path="days.colour"
              value={days.colour}
              options={[
                ["white", "white"],
                ["light", "light"],
                ["dark", "dark"],
              ]}
            />
            <Field label="Latitude" path="site.latitude" value={site.latitude} placeholder="52°" clearable />
            <Field label="Longitude" path="site.longitude" value={site.longitude} placeholder="13°" clearable />
          </div>
        </Group>
      </div>
      <HoursTable />
    </div>
  );
}

function ForecastFields() {
  const { id, handle } = useDesk();
  const { days } = useStoredJob();
  const [attempt, problem] = useTry();
  const [notes, setNotes] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState(false);
  const put = (read: () => Promise<{ forecast: unknown; notes: readonly string[] }>) =>
    attempt(async () => {
      setBusy(true);
      try {
        const found = await read();
        await handle.edit([{ op: "set", path: "days.forecast", value: found.forecast }]);
        setNotes(found.notes);
      } finally {
        setBusy(false);
      }
    });
  const fetchIt = () =>
    put(async () => unwrap(http.POST("/api/jobs/{job_id}/forecast", { params: { path: { job_id: id } } })));
  const load = async (text: string) => {
    await put(async () => unwrap(http.POST("/api/calc/forecast.parse", { body: { text } })));
  };
  const forecast = days.forecast;
  return (
    <div className="pt-2">
      <div className="flex flex-wrap gap-2">
        <button type="button" className="act" disabled={busy} onClick={() => void fetchIt()}>
          {forecast ? "Fetch a newer one" : "Fetch a forecast"}
        </button>
        <FileButton
          label="Load a forecast"
          accept=".csv,.json,text/csv,application/json"
          most={2_000_000}
          tooLarge="The forecast is longer than 2 MB: cut it to two weeks."
          take={load}
          refuse={(words) => void attempt(() => Promise.reject(new Error(words)))}
        />
      </div>
      {problem}
      {notes.map((words) => (
        <p key={words} className="pt-1">
          {words}
        </p>
      ))}
      {forecast ? (
        <p className="pt-1 text-[13px]">
          {forecast.source}: {forecast.members[0]?.air_c.length ?? 0} h from {whenWords(forecast.start)} UTC,{" "}
          {forecast.members.length} {forecast.members.length === 1 ? "course" : "courses"}; issued{" "}
          {whenWords(forecast.issued)}.
        </p>
      ) : (
        <p className="pt-1 text-[13px]">Hourly, CSV or JSON; the guide tells the layout.</p>
      )}
    </div>
  );
}

function Spells() {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const last = days.spells.at(-1)?.ends;
  const first = last ? nextDay(last) : (days.first ?? new Date().toISOString().slice(0, 10));
  const add = () =>
    handle.change([
      {
        op: "add",
        path: "days.spells",
        value: { id: newId("w"), starts: first, ends: nextDay(first, 2), low: { deg_c: 8 }, high: { deg_c: 16 } },
      },
    ]);
  return (
    <div className="pt-1">
      {days.spells.map((spell) => (
        <SpellRow key={spell.id} spell={spell} />
      ))}
      <button type="button" className="act mt-2" onClick={add}>
        Add days
      </button>
    </div>
  );
}

function SpellRow({ spell }: { spell: Spell }) {
  const { handle } = useDesk();
  const path = `days.spells.${spell.id}`;
  return (
    <div className="grid grid-cols-3 gap-x-3 gap-y-1 border-b border-hair py-1.5">
      <DateBox label="From" path={`${path}.starts`} value={spell.starts} />
      <DateBox label="To" path={`${path}.ends`} value={spell.ends} />
      <Field
        label="Until (hour)"
        path={`${path}.until`}
        value={spell.until?.slice(0, 5)}
        placeholder="noon: 12:00"
        clearable
      />
      <Choice
        label="Sky"
        path={`${path}.sky`}
        value={spell.sky}
        options={[
          ["dry", "dry"],
          ["rain", "rain"],
        ]}
      />
      <Field label="Coldest" path={`${path}.low`} value={spell.low} />
      <Field label="Warmest" path={`${path}.high`} value={spell.high} />
      <Field label="Wind" path={`${path}.wind`} value={spell.wind} />
      <Field label="Moisture, %" path={`${path}.humidity`} value={spell.humidity} />
      <button
        type="button"
        className="underline text-[13px] self-end justify-self-end"
        aria-label={`Remove the days from ${dayWords(spell.starts)}`}
        onClick={() => handle.change([{ op: "remove", path }])}
      >
        remove
      </button>
    </div>
  );
}

/** Day by day: skin, dew, rain, wind in working hours, and for how many of them what goes. */
function HoursTable() {
  const { openWorking } = useDesk();
  const { days } = useStoredJob();
  const hours = useFinding("hours");
  const units = useUnits();
  if (!hours) return <p>Answer what is asked above: then each day says what it allows.</p>;
  const start = dateOf(hours.starts);
  const rows = Array.from({ length: Math.floor(hours.light.length / 24) }, (_, day) => {
    const own = Array.from({ length: 24 }, (_, h) => day * 24 + h).filter((i) => hours.works[i]);
    const told = (values: readonly (number | null)[]) =>
      own.map((i) => values[i]).filter((v): v is number => v !== null && v !== undefined);
    const count = (flags: readonly boolean[]) => own.filter((i) => flags[i]).length;
    return {
      date: nextDay(start, day),
      own,
      skin: told(hours.skin_c),
      dew: told(hours.dew_c),
      rain: told(hours.rain_mm),
      count,
    };
  });
  const range = (values: readonly number[]) =>
    values.length
      ? `${temperature(Math.min(...values), units)} … ${temperature(Math.max(...values), units)}`
      : "not known";
  return (
    <Group title="What each day allows, in working hours">
      <table className="sheet-table">
        <thead>
          <tr>
            <th>day</th>
            <th>roof's skin</th>
            <th>dew</th>
            <th className="!text-right">rain</th>
            <th className="!text-right">climb</th>
            <th className="!text-right">carry</th>
            <th className="!text-right">seal</th>
            <th className="!text-right">tape</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) =>
            row.own.length ? (
              <tr key={row.date}>
                <td className="font-semibold">{dayWords(row.date)}</td>
                <td>
                  {row.skin.length && days.shelter === "none" ? (
                    <button
                      type="button"
                      className="underline decoration-dotted"
                      aria-label={`Working of the roof's skin on ${dayWords(row.date)}`}
                      onClick={() => openWorking(`skin/${row.date}`, `Roof's skin, ${dayWords(row.date)}`)}
                    >
                      {range(row.skin)}
                    </button>
                  ) : (
                    range(row.skin)
                  )}
                </td>
                <td>{range(row.dew)}</td>
                <td className="num">{row.rain.length ? `${row.rain.reduce((a, b) => a + b, 0).toFixed(1)} mm` : ""}</td>
                <td className="num">{row.count(hours.roof)} h</td>
                <td className="num">{row.count(hours.carry)} h</td>
                <td className="num">{row.count(hours.seal)} h</td>
                <td className="num">{row.count(hours.tape)} h</td>
              </tr>
            ) : (
              <tr key={row.date} className="text-soft">
                <td>{dayWords(row.date)}</td>
                <td colSpan={7}>nobody works</td>
              </tr>
            ),
          )}
        </tbody>
      </table>
    </Group>
  );
}
