/** A step of the plan: when and with whom, what comes before it and why, where it is held, why not on another day. */
import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { http, unwrap } from "../../api/client";
import type { DayPlan, PlannedStep } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useFinding, useRevision, useStoredJob } from "../../job/JobContext";
import { doneEdits, pinEdits, undoneEdits, unpinEdits } from "./pins";
import { dateOf, dayWords, timeOf, whenWords } from "./road";

export function StepCard({ step, plan }: { step: PlannedStep; plan: DayPlan }) {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const work = useFinding("work");
  const activity = work?.activities.find((a) => a.id === step.id);
  const titles = new Map(work?.activities.map((a) => [a.id, a.title]));
  const before = work?.links.filter((l) => l.after === step.id) ?? [];
  return (
    <div className="pt-2" ref={(own) => own?.scrollIntoView({ block: "nearest" })}>
      <Group
        title={step.title}
        aside={
          <span className="flex items-baseline gap-4">
            {step.pinned && (
              <button type="button" className="underline" onClick={() => handle.change(unpinEdits(days, step.id))}>
                let it go
              </button>
            )}
            {step.done ? (
              <button type="button" className="underline" onClick={() => handle.change(undoneEdits(days, step.id))}>
                not done after all
              </button>
            ) : (
              step.kind !== "drive" && (
                <button type="button" className="act" onClick={() => handle.change(doneEdits(days, step))}>
                  Done as planned
                </button>
              )
            )}
          </span>
        }
      >
        <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-8">
          <div>
            <p className="font-sign text-[20px] font-semibold">
              {whenWords(step.starts)} to {timeOf(step.ends)}
              <span className="text-[15px] font-normal"> {step.persons.join(", ")}</span>
            </p>
            {activity && (
              <p className="text-[13px]">
                {activity.minutes} min: {activity.how_long}; {activity.hands}{" "}
                {activity.hands === 1 ? "person" : "people"}.
              </p>
            )}
            {step.rests && (
              <p className="text-[13px]">
                Rests until {whenWords(step.rests)}: {step.rests_words}.
              </p>
            )}
            <h3 className="label pt-2">comes after</h3>
            <ul className="text-[13px]">
              {before.map((l) => (
                <li key={l.before}>
                  <b>{titles.get(l.before) ?? l.before}</b>: {l.why}
                  {l.wait ? `; ${l.wait.words}` : ""}
                  {l.day === "same" ? "; the same day" : l.day === "later" ? "; a later day" : ""}
                </li>
              ))}
              {!before.length && <li>Nothing.</li>}
            </ul>
          </div>
          {step.done ? <AsItWas step={step} /> : <WhyNot step={step} plan={plan} />}
        </div>
      </Group>
    </div>
  );
}

/** When a done step really began and ended: the shop's rates learn from it. */
function AsItWas({ step }: { step: PlannedStep }) {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const done = days.done.find((d) => d.step === step.id);
  const boxes = useId();
  if (!done) return null;
  const set = (field: "started" | "ended", local: string, was: string) =>
    local &&
    handle.change([{ op: "set", path: `days.done.${done.id}.${field}`, value: `${local}:00${was.slice(19)}` }]);
  return (
    <div className="flex flex-wrap items-end gap-3">
      {(
        [
          ["started", "Began", step.starts],
          ["ended", "Ended", step.ends],
        ] as const
      ).map(([field, words, at]) => (
        <label key={field} className="label" htmlFor={`${boxes}-${field}`}>
          {words}
          <input
            id={`${boxes}-${field}`}
            type="datetime-local"
            className="box text-ink font-sans block"
            value={at.slice(0, 16)}
            onChange={(event) => set(field, event.target.value, at)}
          />
        </label>
      ))}
    </div>
  );
}

/** Asked for a day: what stands against it; and holding the step there. */
function WhyNot({ step, plan }: { step: PlannedStep; plan: DayPlan }) {
  const { id, handle } = useDesk();
  const revision = useRevision();
  const { days } = useStoredJob();
  const [day, setDay] = useState(days.first ?? dateOf(step.starts));
  const [at, setAt] = useState("");
  const boxes = useId();
  const asked = useQuery({
    queryKey: ["why not", id, revision, step.id, day],
    enabled: day !== "",
    retry: false,
    queryFn: async () =>
      unwrap(
        http.GET("/api/jobs/{job_id}/why-not", { params: { path: { job_id: id }, query: { step: step.id, day } } }),
      ),
  });
  const found = asked.data;
  return (
    <div>
      <div className="flex flex-wrap items-end gap-3">
        <label className="label" htmlFor={`${boxes}-day`}>
          Why not on
          <input
            id={`${boxes}-day`}
            type="date"
            className="box text-ink font-sans block"
            value={day}
            onChange={(event) => setDay(event.target.value)}
          />
        </label>
        <label className="label" htmlFor={`${boxes}-at`}>
          at, if it matters
          <input
            id={`${boxes}-at`}
            type="time"
            step={1800}
            className="box text-ink font-sans block"
            value={at}
            onChange={(event) => setAt(event.target.value)}
          />
        </label>
        <button
          type="button"
          className="act"
          disabled={!day}
          onClick={() => handle.change(pinEdits(days, step.id, day, at || null))}
        >
          Hold it there
        </button>
      </div>
      <div aria-live="polite" className="pt-2">
        {asked.isError && <p className="text-signal font-semibold">{asked.error.message}</p>}
        {found?.possible && (
          <p className="font-semibold">
            {day === dateOf(step.starts)
              ? "It is planned on that day."
              : `It may be done from ${found.at ? timeOf(found.at) : ""}; the plan ends ${plan.finish ? "no earlier" : ""} with it. Hold it there to see what follows.`}
          </p>
        )}
        {found && !found.possible && (
          <>
            <p className="font-sign font-semibold text-[17px]">
              Not on {dayWords(day)}
              {found.at ? `, at best ${timeOf(found.at)}` : ""}:
            </p>
            <ul>
              {found.reasons.map((r) => (
                <li key={r.name + r.words}>
                  <b>{r.name}</b>: {r.words}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </div>
  );
}
