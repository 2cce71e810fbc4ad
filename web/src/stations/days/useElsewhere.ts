/** Where people of this crew are by the plans that other vehicles keep, as far as this job does not say so. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { DayPlan, Elsewhere } from "../../api/types";
import { useDesk, useRevision } from "../../job/JobContext";
import { dateOf, dayWords, hourOf, nextDay } from "./road";

export function useElsewhere(): readonly Elsewhere[] {
  const { id } = useDesk();
  const revision = useRevision();
  return (
    useQuery({
      queryKey: ["elsewhere", id, revision],
      queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/elsewhere", { params: { path: { job_id: id } } })),
    }).data ?? []
  );
}

type Taken = Elsewhere["taken"];

/** First and last day of a span by the clock that it is told in; one that ends at midnight ends the day before. */
function daysOf(span: Taken[number]): [string, string] {
  const first = dateOf(span.starts);
  const last = hourOf(span.ends) === 0 ? nextDay(dateOf(span.ends), -1) : dateOf(span.ends);
  return [first, last < first ? first : last];
}

/** The days in words, those that follow one another as from and to. */
export function spansWords(taken: Taken): string {
  const words = taken.map((span) => {
    const [first, last] = daysOf(span);
    return first === last ? dayWords(first) : `${dayWords(first)} to ${dayWords(last)}`;
  });
  return [...new Set(words)].join(", ");
}

/** On how many days somebody is taken at all. */
export function daysTaken(taken: Taken): number {
  const days = new Set<string>();
  for (const span of taken) {
    const [first, last] = daysOf(span);
    for (let day = first; day <= last; day = nextDay(day)) days.add(day);
  }
  return days.size;
}

/** Who of a plan is wanted at another vehicle at the same time: each vehicle with the names. */
export function clashesOf(plan: DayPlan, elsewhere: readonly Elsewhere[]): readonly { job: string; names: string[] }[] {
  const clashes = new Map<string, string[]>();
  for (const one of elsewhere) {
    const own = plan.steps.filter((s) => !s.done && s.persons.includes(one.name));
    const meets = (t: Elsewhere["taken"][number]) =>
      own.some((s) => Date.parse(s.starts) < Date.parse(t.ends) && Date.parse(t.starts) < Date.parse(s.ends));
    if (one.taken.some(meets)) clashes.set(one.job, [...(clashes.get(one.job) ?? []), one.name]);
  }
  return [...clashes].map(([job, names]) => ({ job, names }));
}
