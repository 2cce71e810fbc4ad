/** Roof day on a phone: the box first, then one step at a time, the marks of the foot in hand, one thumb. */
import { useState } from "react";
import type { Findings, WorkStep } from "../../api/types";
import { useDesk, useFinding } from "../../job/JobContext";
import { type JobLog, useLog } from "../../job/useLog";
import { Counter } from "./Counter";
import { KitPage } from "./KitPage";
import { MarksInHand } from "./MarksInHand";
import { Readings } from "./Readings";
import { atHand, firstOpen } from "./steps";
import { OtherTimers, StepTimers } from "./Timers";
import { WaysOut } from "./WaysOut";

type InHand = Findings["in_hand"][number];
/** The page of the box, before the first step. */
const BOX = -1;

export function PhoneRoofDay() {
  const { id, select } = useDesk();
  const steps = useFinding("steps");
  const inHand = useFinding("in_hand");
  const kit = useFinding("kit");
  const log = useLog(id);
  const [at, setAt] = useState<number | null>(null);
  const first = firstOpen(steps, log.done);
  const unpacked = log.done.size === 0 && kit.some((line) => !line.packed);
  const now = at ?? (unpacked ? BOX : first);
  const step = steps[Math.max(now, 0)];
  if (!step) return <p className="py-4 text-[18px]">Nothing to do yet: place a panel under Layout.</p>;
  const turnTo = (next: number) => {
    setAt(Math.max(kit.length ? BOX : 0, Math.min(next, steps.length - 1)));
    select(null);
  };
  return (
    <div className="flex flex-col flex-1 min-h-0">
      <Progress steps={steps} log={log} now={now} box={kit.length > 0} turnTo={turnTo} />
      {now === BOX ? (
        <KitPage climb={() => turnTo(first)} />
      ) : (
        <>
          <StepInHand key={step.number} step={step} hand={inHand.find((h) => h.number === step.number)} log={log} />
          {log.refusal && <p className="text-signal font-semibold pb-1">{log.refusal}</p>}
          {log.waiting > 0 && <p className="text-soft pb-1">{log.waiting} not stored yet: kept on this phone.</p>}
          <Buttons step={step} log={log} now={now} last={steps.length - 1} box={kit.length > 0} turnTo={turnTo} />
        </>
      )}
    </div>
  );
}

function StepInHand({ step, hand, log }: { step: WorkStep; hand: InHand | undefined; log: JobLog }) {
  const marks = atHand(step, useFinding("marks"));
  const records = hand?.read.some((r) => r === "position" || r === "pilot hole") ?? false;
  return (
    <section className="flex-1 min-h-0 overflow-y-auto py-3" aria-live="polite" aria-label={`Step ${step.number}`}>
      <OtherTimers step={step.title} log={log} />
      <h2 className="text-[28px] leading-[1.1]">{step.title}</h2>
      {hand?.caution && (
        <p className="mt-2 border-l-[6px] border-signal pl-3 text-[18px] leading-snug font-semibold text-signal">
          {hand.caution}
        </p>
      )}
      {hand && hand.tools.length > 0 && (
        <p className="pt-2 text-[17px]">
          <span className="font-sign font-semibold">Take up:</span> {hand.tools.join(", ")}
        </p>
      )}
      <p className="text-[18px] leading-snug pt-2">{step.detail}</p>
      <ReadAloud step={step} caution={hand?.caution ?? ""} />
      {records && <WaysOut />}
      <MarksInHand step={step} marks={marks} records={records} log={log} />
      {hand && !marks.length && <Counter step={step} unit={hand.unit} log={log} />}
      {hand && <StepTimers step={step.title} timers={hand.timers} log={log} />}
      {hand && <Readings hand={hand} step={step} log={log} />}
      <p className="mt-3 border-l-[6px] border-chalk pl-3 text-[18px] leading-snug text-chalk font-semibold">
        {step.check}
      </p>
    </section>
  );
}

/** The browser's own voice, where it has one: hands are full up there. */
function ReadAloud({ step, caution }: { step: WorkStep; caution: string }) {
  if (!("speechSynthesis" in window)) return null;
  const say = () => {
    speechSynthesis.cancel();
    const words = new SpeechSynthesisUtterance(`${step.title}. ${caution} ${step.detail} Then check: ${step.check}`);
    words.lang = "en";
    speechSynthesis.speak(words);
  };
  return (
    <button type="button" className="underline text-[17px] min-h-[44px]" onClick={say}>
      Read it aloud
    </button>
  );
}

type Turning = { log: JobLog; now: number; box: boolean; turnTo: (step: number) => void };

function Buttons({ step, log, now, last, box, turnTo }: Turning & { step: WorkStep; last: number }) {
  const done = log.done.has(step.title);
  return (
    <div className="grid grid-cols-[72px_minmax(0,1fr)_72px] gap-2 pb-2 shrink-0">
      <button type="button" className="thumb" disabled={now === 0 && !box} onClick={() => turnTo(now - 1)}>
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
      <button type="button" className="thumb" disabled={now === last} onClick={() => turnTo(now + 1)}>
        Next
      </button>
    </div>
  );
}

function Progress({ steps, log, now, box, turnTo }: Turning & { steps: readonly WorkStep[] }) {
  const finished = steps.filter((s) => log.done.has(s.title)).length;
  return (
    <div className="shrink-0 pt-2">
      <p className="flex items-baseline justify-between font-sign font-semibold text-[16px]">
        <span>{now === BOX ? "The box" : `Step ${now + 1} of ${steps.length}`}</span>
        <span className="text-soft">{finished} done</span>
      </p>
      <div className="flex flex-wrap gap-x-[3px]">
        {box && <Tile name="The box" now={now === BOX} done={now > BOX && finished > 0} turn={() => turnTo(BOX)} />}
        {steps.map((step, i) => {
          const done = log.done.has(step.title);
          return (
            <Tile
              key={step.number}
              name={`Step ${step.number}, ${step.title}${done ? ", done" : ""}`}
              now={i === now}
              done={done}
              turn={() => turnTo(i)}
            />
          );
        })}
      </div>
    </div>
  );
}

function Tile({ name, now, done, turn }: { name: string; now: boolean; done: boolean; turn: () => void }) {
  return (
    <button
      type="button"
      className="flex-1 min-w-[22px] h-7 grid items-center"
      aria-label={name}
      aria-current={now ? "step" : undefined}
      onClick={turn}
    >
      <span
        className={`block border-2 border-ink ${now ? "h-4" : "h-2"} ${done ? "bg-ink" : now ? "bg-tape" : "bg-paper"}`}
      />
    </button>
  );
}
