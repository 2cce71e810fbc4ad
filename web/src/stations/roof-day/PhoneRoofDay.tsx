/** Roof day on a phone: one step at a time, the marks of the foot in hand, one thumb. */
import { useState } from "react";
import type { Mark, WorkStep } from "../../api/types";
import { useDesk, useFinding, usePartOf, useStoredJob, useUnits } from "../../job/JobContext";
import { useLog } from "../../job/useLog";
import { length } from "../../ui/format";
import { atHand, firstOpen, footInHand, marksByFoot } from "./steps";

export function PhoneRoofDay() {
  const { id, select } = useDesk();
  const steps = useFinding("steps");
  const marks = useFinding("marks");
  const log = useLog(id);
  const [at, setAt] = useState<number | null>(null);
  const now = at ?? firstOpen(steps, log.done);
  const step = steps[now];
  if (!step) return <p className="py-4 text-[18px]">Nothing to do yet: place a panel under Layout.</p>;
  const done = log.done.has(step.title);
  const turnTo = (next: number) => {
    setAt(Math.max(0, Math.min(next, steps.length - 1)));
    select(null);
  };
  return (
    <div className="flex flex-col flex-1 min-h-0">
      <Progress steps={steps} done={log.done} now={now} turnTo={turnTo} />
      <section className="flex-1 min-h-0 overflow-y-auto py-3" aria-live="polite" aria-label={`Step ${step.number}`}>
        <h2 className="text-[28px] leading-[1.1]">{step.title}</h2>
        <p className="text-[18px] leading-snug pt-2">{step.detail}</p>
        <Marks key={step.number} marks={atHand(step, marks)} />
        <p className="mt-3 border-l-[6px] border-chalk pl-3 text-[18px] leading-snug text-chalk font-semibold">
          {step.check}
        </p>
        {step.wait_h > 0 && <p className="pt-3 text-[18px] font-semibold">Then wait {step.wait_h} h.</p>}
      </section>
      {log.refusal && <p className="text-signal font-semibold pb-1">{log.refusal}</p>}
      {log.waiting > 0 && <p className="text-soft pb-1">{log.waiting} not stored yet: kept on this phone.</p>}
      <div className="grid grid-cols-[72px_minmax(0,1fr)_72px] gap-2 pb-2 shrink-0">
        <button type="button" className="thumb" disabled={now === 0} onClick={() => turnTo(now - 1)}>
          Back
        </button>
        <button
          type="button"
          className={`thumb ${done ? "" : "!bg-tape !text-[#1d2225]"}`}
          aria-pressed={done}
          onClick={() => {
            log.write({ kind: "step", step: step.title, done: !done });
            if (!done) turnTo(now + 1);
          }}
        >
          {done ? "Done ✓, undo" : "Done"}
        </button>
        <button type="button" className="thumb" disabled={now === steps.length - 1} onClick={() => turnTo(now + 1)}>
          Next
        </button>
      </div>
    </div>
  );
}

function Progress(props: {
  steps: readonly WorkStep[];
  done: ReadonlySet<string>;
  now: number;
  turnTo: (step: number) => void;
}) {
  const finished = props.steps.filter((s) => props.done.has(s.title)).length;
  return (
    <div className="shrink-0 pt-2">
      <p className="flex items-baseline justify-between font-sign font-semibold text-[16px]">
        <span>
          Step {props.now + 1} of {props.steps.length}
        </span>
        <span className="text-soft">{finished} done</span>
      </p>
      <div className="flex flex-wrap gap-x-[3px]">
        {props.steps.map((step, i) => (
          <button
            key={step.number}
            type="button"
            className="flex-1 min-w-[22px] h-7 grid items-center"
            aria-label={`Step ${step.number}, ${step.title}${props.done.has(step.title) ? ", done" : ""}`}
            aria-current={i === props.now ? "step" : undefined}
            onClick={() => props.turnTo(i)}
          >
            <span
              className={`block border-2 border-ink ${i === props.now ? "h-4" : "h-2"} ${props.done.has(step.title) ? "bg-ink" : i === props.now ? "bg-tape" : "bg-paper"}`}
            />
          </button>
        ))}
      </div>
    </div>
  );
}

/** The marks of one foot, in the unit that is on the tape; from foot to foot by the thumb. */
function Marks({ marks }: { marks: readonly Mark[] }) {
  const { selection, select } = useDesk();
  const units = useUnits();
  const names = new Map(useStoredJob().panels.map((p) => [p.id, p.name]));
  const refusedFeet = usePartOf((shown) => shown.evaluation.spoken.refused_feet);
  const feet = marksByFoot(marks);
  if (!feet.length) return null;
  const at = footInHand(feet, selection);
  const foot = feet[at];
  const first = foot?.[0];
  if (!foot || !first) return null;
  const refused = refusedFeet.includes(`${first.panel}.${first.foot}`);
  const turn = (to: number) => {
    const next = feet[to]?.[0];
    if (next) select(`panels.${next.panel}.feet.${next.foot}`);
  };
  return (
    <div className="mt-3 border-2 border-ink bg-paper">
      <div className="flex items-stretch border-b-2 border-ink">
        <button type="button" className="thumb !border-0 w-14" disabled={at === 0} onClick={() => turn(at - 1)}>
          <span aria-hidden="true">◀</span>
          <span className="sr-only">Foot before</span>
        </button>
        <p className="flex-1 text-center py-1 leading-tight">
          <span className="font-sign font-semibold text-[20px] block">
            {names.get(first.panel)} {first.foot}
          </span>
          <span className="text-soft">
            foot {at + 1} of {feet.length}, {first.into}
          </span>
        </p>
        <button
          type="button"
          className="thumb !border-0 w-14"
          disabled={at === feet.length - 1}
          onClick={() => turn(at + 1)}
        >
          <span aria-hidden="true">▶</span>
          <span className="sr-only">Next foot</span>
        </button>
      </div>
      {refused && (
        <p className="bg-signal text-white font-sign font-semibold text-[20px] px-2 py-1">
          Refused by a stop: leave this foot alone.
        </p>
      )}
      <table className="w-full text-[22px] tabular-nums">
        <thead>
          <tr className="text-[14px] text-soft font-sign">
            <th className="text-left pl-2 font-medium">mark</th>
            <th className="text-right font-medium">aft</th>
            <th className="text-right pr-2 font-medium">from centre</th>
          </tr>
        </thead>
        <tbody>
          {foot.map((mark) => (
            <tr key={mark.number} className="border-t border-hair">
              <td className="pl-2 py-1 font-sign font-semibold text-[26px]">{mark.number}</td>
              <td className="text-right font-semibold whitespace-nowrap">{length(mark.x_mm, units)}</td>
              <td className="text-right pr-2 font-semibold whitespace-nowrap leading-tight">
                {length(Math.abs(mark.y_mm), units)}
                <span className="block text-[14px] font-normal text-soft">{sideOf(mark)}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="border-t-2 border-ink px-2 py-1 text-[17px]">{howTo(first, (mm) => length(mm, units))}</p>
    </div>
  );
}

function sideOf(mark: Mark): string {
  return Math.abs(mark.y_mm) < 0.5 ? "on the centre line" : mark.y_mm < 0 ? "to port" : "to starboard";
}

function howTo(mark: Mark, say: (mm: number) => string): string {
  if (mark.kind === "pad") return `${mark.fastener}. Edge: ${mark.sealant}.`;
  const drill = mark.final_mm ? `Pilot ${mark.pilot_mm} mm, then ${mark.final_mm} mm` : `Drill ${mark.pilot_mm} mm`;
  return `${drill}, depth stop ${say(mark.depth_stop_mm ?? 0)}. ${mark.fastener}.`;
}
