/** What is counted in a step that has no marks: bolts, seals, panels, cables; one more with each press. */
import type { WorkStep } from "../../api/types";
import { type JobLog, tickKey } from "../../job/useLog";

const item = (n: number) => `${n}`;

export function Counter({ step, unit, log }: { step: WorkStep; unit: string; log: JobLog }) {
  if (step.count < 2) return null;
  const numbers = Array.from({ length: step.count }, (_, i) => i + 1);
  const done = numbers.filter((n) => log.ticked.has(tickKey(step.title, item(n))));
  const next = numbers.find((n) => !done.includes(n));
  const last = done.at(-1);
  const tick = (n: number, isDone: boolean) =>
    log.write({ kind: "tick", step: step.title, item: item(n), done: isDone });
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_88px] gap-2 pt-3">
      <button
        type="button"
        className="thumb !text-[19px]"
        disabled={next === undefined}
        onClick={() => next !== undefined && tick(next, true)}
      >
        {done.length} of {step.count} {step.count === 1 ? unit : plural(unit)}
        {next !== undefined && ": one more"}
      </button>
      <button
        type="button"
        className="thumb !text-[17px]"
        disabled={last === undefined}
        aria-label={`One ${unit} less`}
        onClick={() => last !== undefined && tick(last, false)}
      >
        less
      </button>
    </div>
  );
}

const plural = (unit: string): string => (unit === "foot" ? "feet" : unit === "roof" ? "roofs" : `${unit}s`);
