/** The open job, what is selected on the roof, and how to get to another station. */
import { createContext, useContext } from "react";
import type { Evaluation, Job, StationName, Units } from "../api/types";
import type { JobHandle } from "./useJob";

/** What is being looked at: a job path such as `panels.p1` or `panels.p1.feet.f2`. */
export type Selection = string | null;

export type JobView = {
  id: string;
  job: Job;
  evaluation: Evaluation;
  units: Units;
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

export const JobContext = createContext<JobView | null>(null);

export function useJobView(): JobView {
  const view = useContext(JobContext);
  if (!view) throw new Error("useJobView needs a JobContext");
  return view;
}

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
