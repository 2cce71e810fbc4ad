/** The plan: when it may drive, the road of days, the steps day by day, and the step that is looked at. */
import { useEffect, useState } from "react";
import type { DayPlan, PlannedStep } from "../../api/types";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { planLookedAt } from "./DoneShapes";
import { keepEdits } from "./pins";
import { RoadOfDays } from "./RoadOfDays";
import { dateOf, dayWords, timeOf, whenWords } from "./road";
import { StepCard } from "./StepCard";
import { clashesOf, useElsewhere } from "./useElsewhere";
import { usePlan } from "./usePlan";

export function PlanPart() {
  const { plan, doing, problem } = usePlan();
  const hours = useFinding("hours");
  const [picked, setPicked] = useState<string | null>(null);
  const step = plan?.steps.find((s) => s.id === picked) ?? null;
  useEffect(() => {
    planLookedAt.set(plan && step ? { plan, moment: step.ends } : null);
    return () => planLookedAt.set(null);
  }, [plan, step]);
  return (
    <>
      {problem && (
        <p role="alert" className="text-signal font-semibold max-w-[70ch]">
          {problem}
        </p>
      )}
      {!plan && !problem && !doing && <p>Answer what is asked above: then the days are found.</p>}
      {doing && !plan && (
        <p className="text-[13px]" aria-live="polite">
          working: {doing} …
        </p>
      )}
      {plan?.state === "nothing to do" && <p>Nothing is to be done.</p>}
      {plan?.state === "not found" && <p>No plan was found in the time there was; nor that there is none.</p>}
      {plan?.state === "impossible" && <NoPlan plan={plan} />}
      {plan?.state === "found" && (
        <>
          <Headline plan={plan} doing={doing} />
          <Wanted plan={plan} />
          <RoadOfDays plan={plan} hours={hours ?? null} picked={picked} pick={setPicked} stale={false} />
          {step && <StepCard key={step.id} step={step} plan={plan} />}
          <Columns plan={plan} picked={picked} pick={setPicked} />
        </>
      )}
    </>
  );
}

function Headline({ plan, doing }: { plan: DayPlan; doing: string | null }) {
  const { id, handle } = useDesk();
  const { days } = useStoredJob();
  const kept = useFinding("kept");
  const isKept =
    days.kept.length === plan.steps.length &&
    plan.steps.every((s) => days.kept.some((k) => k.step === s.id && Date.parse(k.starts) === Date.parse(s.starts)));
  return (
    <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 pb-2" aria-live="polite">
      <p className="font-sign font-semibold text-[27px] leading-8">
        Drive from {plan.finish ? whenWords(plan.finish) : "?"}
      </p>
      <p className="font-sign text-[18px]">
        {plan.roof_days} {plan.roof_days === 1 ? "day" : "days"} on the roof
      </p>
      <p className="text-[13px] max-w-[30ch]">
        {doing ? `Looking for better: ${doing} …` : proofWords(plan)}
        {!plan.weather_known && " Weather does not count."}
        {plan.guessed_from && ` Cure after ${whenWords(plan.guessed_from)} is reckoned as on a cool day.`}
      </p>
      <span className="ml-auto flex items-baseline gap-3">
        {kept && kept.breaks.length > 0 && <span className="text-signal font-semibold">The kept plan breaks.</span>}
        {isKept ? (
          <span className="font-sign font-semibold">this plan is kept</span>
        ) : (
          <button
            type="button"
            className="act"
            disabled={doing !== null}
            onClick={() => handle.change(keepEdits(plan))}
          >
            Keep this plan
          </button>
        )}
        {isKept && (
          <>
            <a className="underline" href={`/api/jobs/${id}/files/days.ics`} download>
              calendar
            </a>
            <a className="underline" href={`/api/jobs/${id}/files/week-sheet.pdf`} download>
              week sheet
            </a>
          </>
        )}
        {days.kept.length > 0 && (
          <button
            type="button"
            className="underline text-[13px]"
            onClick={() => handle.change([{ op: "set", path: "days.kept", value: [] }])}
          >
            let the kept plan go
          </button>
        )}
      </span>
    </div>
  );
}

/** Other vehicles want the same people at the same time, and nobody has said so here. */
function Wanted({ plan }: { plan: DayPlan }) {
  const clashes = clashesOf(plan, useElsewhere());
  if (!clashes.length) return null;
  return (
    <p aria-live="polite" className="pb-2 font-semibold">
      {clashes.map(({ job, names }) => `${job} has ${names.join(", ")} at some of these hours`).join("; ")}
      <span className="font-normal">: say it under People and days, or plan both under Other vehicles.</span>
    </p>
  );
}

function proofWords(plan: DayPlan): string {
  const first = plan.proved.includes("finish")
    ? "Proved: none ends earlier"
    : plan.bound_finish
      ? `Perhaps earlier, never before ${whenWords(plan.bound_finish)}`
      : "";
  const second = plan.proved.includes("roof days")
    ? ", nor as early with fewer roof days."
    : plan.bound_roof_days !== null && plan.bound_roof_days !== undefined
      ? `; at least ${plan.bound_roof_days} on the roof.`
      : ".";
  return first + second;
}

function NoPlan({ plan }: { plan: DayPlan }) {
  return (
    <div role="alert" className="pb-2">
      <p className="font-sign font-semibold text-[26px] leading-8 text-signal">Not within these days</p>
      <ul>
        {plan.reasons.map((r) => (
          <li key={r.name + r.step} className="max-w-[80ch]">
            <b>{r.name}</b>: {r.words}
          </li>
        ))}
      </ul>
      <p className="pt-1">Part “What helps” tries changes one by one.</p>
    </div>
  );
}

/** The steps as words, day by day. */
function Columns({ plan, picked, pick }: { plan: DayPlan; picked: string | null; pick: (id: string) => void }) {
  const days = new Map<string, PlannedStep[]>();
  for (const step of plan.steps.filter((s) => s.kind !== "drive"))
    days.set(dateOf(step.starts), [...(days.get(dateOf(step.starts)) ?? []), step]);
  return (
    <div className="grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-x-6 gap-y-2 pt-2">
      {[...days].map(([date, steps]) => (
        <section key={date} aria-label={dayWords(date)}>
          <h3 className="border-b border-ink text-[15px]">{dayWords(date)}</h3>
          <ul>
            {steps.map((step) => (
              <li key={step.id}>
                <button
                  type="button"
                  className={`w-full text-left grid grid-cols-[44px_minmax(0,1fr)] gap-x-2 py-[3px] border-b border-hair ${picked === step.id ? "bg-tape/50" : ""}`}
                  aria-pressed={picked === step.id}
                  onClick={() => pick(step.id)}
                >
                  <span className="num font-semibold">{timeOf(step.starts)}</span>
                  <span>
                    {step.title}{" "}
                    <span className="text-soft text-[13px]">
                      {step.done ? "done" : step.persons.join(", ")}
                      {step.pinned ? " · pinned" : ""}
                    </span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
