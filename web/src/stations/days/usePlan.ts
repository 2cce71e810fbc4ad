/** The plan that is looked at: worked out anew for every revision; what was last found stays meanwhile. */
import type { DayPlan } from "../../api/types";
import { useDesk, useRevision, useStoredJob } from "../../job/JobContext";
import { useLookedAt } from "../../job/useSlow";

export type Planning = { plan: DayPlan | null; doing: string | null; problem: string | null };

/** Without the first day, people and weather there is nothing to plan yet. */
export function usePlan(): Planning {
  const { id } = useDesk();
  const revision = useRevision();
  const { days, panels } = useStoredJob();
  const told = Boolean(panels.length && days.first && days.zone && days.crew.length && days.weather);
  const work = useLookedAt(id, "days", revision, told);
  const plan = work.growing?.result ?? work.data?.result ?? null;
  return {
    plan: told ? plan : null,
    doing: work.isFetching ? work.doing || "a first plan" : null,
    problem: work.isError ? work.error.message : null,
  };
}
