/** Clocks of dwell, skin and cure. They run in the record of the job, so a closed page does not stop them. */
import { useEffect, useState } from "react";
import type { Findings } from "../../api/types";
import type { JobLog, RunningClock } from "../../job/useLog";

type StepTimer = Findings["in_hand"][number]["timers"][number];

export function leftWords(ms: number): string {
  const minutes = Math.ceil(Math.abs(ms) / 60_000);
  const told =
    minutes < 90
      ? `${minutes} min`
      : minutes < 48 * 60
        ? `${Math.round(minutes / 60)} h`
        : `${Math.round(minutes / 60 / 24)} days`;
  return ms > 0 ? `${told} left` : `over for ${told}`;
}

function useNow(): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(tick);
  }, []);
  return now;
}

/** Of one step: those that can be started, and those that run. */
export function StepTimers({ step, timers, log }: { step: string; timers: readonly StepTimer[]; log: JobLog }) {
  const running = log.clocks.filter((c) => c.step === step);
  const idle = timers.filter((t) => !running.some((c) => c.name === t.name));
  return (
    <>
      {running.map((clock) => (
        <Running key={clock.name} clock={clock} log={log} />
      ))}
      {idle.map((timer) => (
        <button
          key={timer.name}
          type="button"
          className="thumb w-full !min-h-[52px] mt-2 !text-[18px] text-left px-3"
          onClick={() => log.write({ kind: "timer", step, name: timer.name, minutes: timer.minutes })}
        >
          Start: {timer.name}, {timer.most ? "at most " : ""}
          {timer.minutes < 90 ? `${timer.minutes} min` : `${Math.round(timer.minutes / 60)} h`}
        </button>
      ))}
    </>
  );
}

/** Clocks of other steps that have run out: said wherever one is. */
export function OtherTimers({ step, log }: { step: string; log: JobLog }) {
  const now = useNow();
  const due = log.clocks.filter((c) => c.step !== step && c.endsMs <= now);
  return (
    <>
      {due.map((clock) => (
        <Running key={clock.step + clock.name} clock={clock} log={log} named />
      ))}
    </>
  );
}

function Running({ clock, log, named = false }: { clock: RunningClock; log: JobLog; named?: boolean }) {
  const now = useNow();
  const over = clock.endsMs <= now;
  return (
    <div
      className={`mt-2 flex items-stretch border-2 ${over ? "border-signal" : "border-ink"} bg-paper`}
      role={over ? "alert" : undefined}
    >
      <p className="flex-1 px-3 py-1.5 text-[18px] leading-tight">
        <span className={`font-sign font-semibold text-[24px] block ${over ? "text-signal" : ""}`}>
          {leftWords(clock.endsMs - now)}
        </span>
        {named ? `${clock.step}: ` : ""}
        {clock.name}
      </p>
      <button
        type="button"
        className="thumb !border-0 !border-l-2 px-4 !min-h-[52px]"
        onClick={() => log.write({ kind: "timer off", step: clock.step, name: clock.name })}
      >
        {over ? "Seen" : "Stop"}
      </button>
    </div>
  );
}
