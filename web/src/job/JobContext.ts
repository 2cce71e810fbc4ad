/** The open job, what is selected on the roof, and how to get to another station. */
import { createContext, useContext } from "react";
import type { Evaluation, Findings, Job, StationName, Units } from "../api/types";
import { type Shown, useShown } from "./shown";
import type { JobHandle } from "./useJob";

/** What is being looked at: a job path such as `panels.p1` or `panels.p1.feet.f2`. */
export type Selection = string | null;

/** What does not change while something is dragged. */
export type JobDesk = {
  id: string;
  handle: JobHandle;
  selection: Selection;
  select: (path: Selection) => void;
  /** Panels picked together, with shift, for lining them up. The first one stays where it is. */
  picked: readonly string[];
  pick: (panel: string) => void;
  go: (station: StationName, selection?: Selection) => void;
  /** The path somebody was led to, by a snag or a question: its part of the station opens. Picking on the roof does not count. */
  ledTo: Selection;
  openWorking: (place: string, title: string) => void;
};

export const JobContext = createContext<JobDesk | null>(null);

/** The desk of the open job; drawn again when something is selected, not while something is dragged. */
export function useDesk(): JobDesk {
  const desk = useContext(JobContext);
  if (!desk) throw new Error("useDesk needs a JobContext");
  return desk;
}

/** One part of what is shown; drawn again only when that part has become another. */
export function usePartOf<T>(part: (shown: Shown) => T): T {
  const found = useShown(useDesk().id, part);
  if (found === undefined) throw new Error("nothing is shown yet");
  return found;
}

/** One finding by its name. */
export function useFinding<N extends keyof Findings>(name: N): Findings[N] {
  return usePartOf((shown) => shown.evaluation.findings[name]);
}

/** All findings and snags: for whoever shows so much of them that parts would save nothing. */
export const useEvaluation = (): Evaluation => usePartOf(evaluationOf);
/** The stored job, its revision and its units: they stay the same while something is dragged. */
export const useStoredJob = (): Job => usePartOf(jobOf);
export const useRevision = (): number => usePartOf(revisionOf);
export const useUnits = (): Units => usePartOf(unitsOf);

const evaluationOf = (shown: Shown) => shown.evaluation;
const jobOf = (shown: Shown) => shown.answer.job;
const revisionOf = (shown: Shown) => shown.answer.revision;
const unitsOf = (shown: Shown) => shown.answer.job.units;

export function selectedPanel(selection: Selection): string | null {
  const parts = selection?.split(".") ?? [];
  return parts[0] === "panels" ? (parts[1] ?? null) : null;
}

export function selectedFoot(selection: Selection): { panel: string; foot: string } | null {
  const parts = selection?.split(".") ?? [];
  return parts[0] === "panels" && parts[2] === "feet" && parts[1] && parts[3]
    ? { panel: parts[1], foot: parts[3] }
    : null;
}
