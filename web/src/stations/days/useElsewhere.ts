/** Where people of this crew are by the plans that other vehicles keep, as far as this job does not say so. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { DayPlan, Elsewhere } from "../../api/types";
import { useDesk, useRevision } from "../../job/JobContext";

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
