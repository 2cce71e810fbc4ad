/** Edits of the plan: holding a step on a day or an hour, letting it go, saying that it is done, keeping the whole. */
import type { DayPlan, Edit, Job, PlannedStep } from "../../api/types";
import { newId } from "../wire/words";

type Days = Job["days"];

export function pinEdits(days: Days, step: string, day: string, at: string | null): Edit[] {
  return [...unpinEdits(days, step), { op: "add", path: "days.pins", value: { id: newId("p"), step, day, at } }];
}

export function unpinEdits(days: Days, step: string): Edit[] {
  return days.pins.filter((p) => p.step === step).map((p) => ({ op: "remove", path: `days.pins.${p.id}` }));
}

export function doneEdits(days: Days, step: PlannedStep): Edit[] {
  const value = { id: newId("d"), step: step.id, started: step.starts, ended: step.ends };
  return [...unpinEdits(days, step.id), { op: "add", path: "days.done", value }];
}

export function undoneEdits(days: Days, step: string): Edit[] {
  return days.done.filter((d) => d.step === step).map((d) => ({ op: "remove", path: `days.done.${d.id}` }));
}

export function keepEdits(plan: DayPlan): Edit[] {
  const value = plan.steps.map((s) => ({ step: s.id, starts: s.starts, ends: s.ends, persons: s.persons }));
  return [{ op: "set", path: "days.kept", value }];
}

type Taken = NonNullable<Days["crew"][number]["taken"]>;

/** Times of a person at these jobs in place of those that were said before. */
export function takenEdit(days: Days, person: string, jobs: readonly string[], taken: Taken): Edit[] {
  const crew = days.crew.find((p) => p.id === person);
  if (!crew) return [];
  const others = crew.taken.filter((t) => !jobs.includes(t.job));
  const value = [...others, ...taken].sort((a, b) => Date.parse(a.starts) - Date.parse(b.starts));
  return [{ op: "set", path: `days.crew.${person}.taken`, value }];
}
