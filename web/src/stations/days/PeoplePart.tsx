/** Who works when, from which day on, and what comes when. */
import type { Elsewhere, Job } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useStoredJob } from "../../job/JobContext";
import { newId } from "../wire/words";
import { DateBox } from "./DateBox";
import { KINDS } from "./kinds";
import { takenEdit } from "./pins";
import { dayWords } from "./road";
import { daysTaken, spansWords, useElsewhere } from "./useElsewhere";

type Person = Job["days"]["crew"][number];
const WEEK = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"] as const;

export function PeoplePart() {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const taken = useElsewhere();
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-x-10">
      <div>
        <Group title="People">
          {!days.crew.length && <p className="pb-1">Who works, and when?</p>}
          {days.crew.map((person) => (
            <PersonRow key={person.id} person={person} taken={taken.filter((t) => t.person === person.id)} />
          ))}
          <button
            type="button"
            className="act mt-2"
            data-path="days.crew"
            onClick={() =>
              handle.change([
                { op: "add", path: "days.crew", value: { id: newId("c"), name: `Person ${days.crew.length + 1}` } },
              ])
            }
          >
            Add a person
          </button>
        </Group>
        <Deliveries />
      </div>
      <Group title="Days">
        <div className="grid grid-cols-2 gap-x-4 gap-y-1.5">
          <DateBox label="First day" path="days.first" value={days.first ?? null} />
          <Field label="Days that are planned" path="days.horizon" value={days.horizon} />
          <Field label="Time zone" path="days.zone" value={days.zone} placeholder={here} clearable />
          {days.zone !== here && (
            <div className="self-end">
              <button
                type="button"
                className="act"
                onClick={() => handle.change([{ op: "set", path: "days.zone", value: here }])}
              >
                {here}, as here
              </button>
            </div>
          )}
        </div>
      </Group>
    </div>
  );
}

/** Another vehicle has somebody, or has let them go: said here too with one press. */
function Taken({ person, taken }: { person: Person; taken: Elsewhere }) {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const free = taken.taken.length === 0;
  return (
    <p className="basis-full flex flex-wrap items-baseline gap-x-3">
      <span>
        <b>{taken.job}</b>{" "}
        {free
          ? `no longer has ${person.name}`
          : `${taken.sure ? "has" : "may have"} ${person.name}: ${spansWords(taken.taken)}`}
      </span>
      <button
        type="button"
        className="act !h-[26px]"
        aria-label={free ? `${person.name} is free of ${taken.job}` : `${person.name} is at ${taken.job} then`}
        onClick={() => handle.change(takenEdit(days, person.id, [taken.job], taken.taken))}
      >
        {free ? "Free here" : "Away then"}
      </button>
    </p>
  );
}

/** At which other vehicles somebody is, as this job says. */
function AtOthers({ person }: { person: Person }) {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  return [...new Set(person.taken.map((t) => t.job))].map((job) => {
    const own = person.taken.filter((t) => t.job === job);
    return (
      <button
        key={job}
        type="button"
        className="act !h-[30px] !px-2 !text-[13px] self-end"
        aria-label={`${person.name} is not at ${job} after all`}
        title={spansWords(own)}
        onClick={() => handle.change(takenEdit(days, person.id, [job], []))}
      >
        at {job}, {daysTaken(own) === 1 ? "1 day" : `${daysTaken(own)} days`} ×
      </button>
    );
  });
}

function PersonRow({ person, taken }: { person: Person; taken: readonly Elsewhere[] }) {
  const { handle } = useDesk();
  const path = `days.crew.${person.id}`;
  const toggle = (day: number) =>
    handle.change([
      {
        op: "set",
        path: `${path}.weekdays`,
        value: person.weekdays.includes(day)
          ? person.weekdays.filter((d) => d !== day)
          : [...person.weekdays, day].sort(),
      },
    ]);
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-1 border-b border-hair py-1.5">
      <div className="w-40">
        <Field label="Name" path={`${path}.name`} value={person.name} />
      </div>
      <div className="w-20">
        <Field label="From" path={`${path}.starts`} value={person.starts.slice(0, 5)} />
      </div>
      <div className="w-20">
        <Field label="To" path={`${path}.ends`} value={person.ends.slice(0, 5)} />
      </div>
      <fieldset className="flex gap-0.5" aria-label={`Days of ${person.name}`}>
        {WEEK.map((word, day) => (
          <button
            key={word}
            type="button"
            className="act !h-[30px] !px-1.5 !text-[13px]"
            data-on={person.weekdays.includes(day)}
            aria-pressed={person.weekdays.includes(day)}
            onClick={() => toggle(day)}
          >
            {word}
          </button>
        ))}
      </fieldset>
      <Away person={person} />
      <AtOthers person={person} />
      <button
        type="button"
        className="underline text-[13px] ml-auto"
        aria-label={`Remove ${person.name}`}
        onClick={() => handle.change([{ op: "remove", path }])}
      >
        remove
      </button>
      {taken.map((one) => (
        <Taken key={one.job} person={person} taken={one} />
      ))}
    </div>
  );
}

/** Days on which somebody is not there. */
function Away({ person }: { person: Person }) {
  const { handle } = useDesk();
  const set = (away: readonly string[]) =>
    handle.change([{ op: "set", path: `days.crew.${person.id}.away`, value: [...new Set(away)].sort() }]);
  return (
    <div className="flex flex-wrap items-end gap-1">
      <label className="label">
        away on
        <input
          type="date"
          className="box text-ink font-sans block !w-36"
          value=""
          onChange={(event) => event.target.value && set([...person.away, event.target.value])}
        />
      </label>
      {person.away.map((day) => (
        <button
          key={day}
          type="button"
          className="act !h-[30px] !px-2 !text-[13px]"
          aria-label={`${person.name} is there on ${dayWords(day)} after all`}
          onClick={() => set(person.away.filter((d) => d !== day))}
        >
          {dayWords(day)} ×
        </button>
      ))}
    </div>
  );
}

/** What comes when, beside the lead times of the purchase list. */
function Deliveries() {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const add = () =>
    handle.change([
      {
        op: "add",
        path: "days.deliveries",
        value: {
          id: newId("v"),
          name: "Panels",
          day: days.first ?? new Date().toISOString().slice(0, 10),
          before: "measure",
        },
      },
    ]);
  return (
    <Group title="Deliveries">
      {days.deliveries.map((d) => (
        <div key={d.id} className="flex flex-wrap items-end gap-x-4 gap-y-1 border-b border-hair py-1.5">
          <div className="w-44">
            <Field label="What comes" path={`days.deliveries.${d.id}.name`} value={d.name} />
          </div>
          <DateBox label="On" path={`days.deliveries.${d.id}.day`} value={d.day} />
          <div className="w-44">
            <Choice label="Needed for" path={`days.deliveries.${d.id}.before`} value={d.before} options={KINDS} />
          </div>
          <button
            type="button"
            className="underline text-[13px] ml-auto"
            aria-label={`Remove the delivery ${d.name}`}
            onClick={() => handle.change([{ op: "remove", path: `days.deliveries.${d.id}` }])}
          >
            remove
          </button>
        </div>
      ))}
      <button type="button" className="act mt-2" onClick={add}>
        Add a delivery
      </button>
      <p className="text-soft text-[13px] pt-1">Lead times typed under Build, Buy count from the first day.</p>
    </Group>
  );
}
