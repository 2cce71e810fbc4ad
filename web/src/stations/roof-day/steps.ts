/** Which step is next, which marks are in hand. Pure: no word and no picture. */
import type { Mark, WorkStep } from "../../api/types";

/** The first step that is not done; the last one where all are. */
export function firstOpen(steps: readonly WorkStep[], done: ReadonlySet<string>): number {
  const open = steps.findIndex((s) => !done.has(s.title));
  return open < 0 ? Math.max(steps.length - 1, 0) : open;
}

export function atHand(step: WorkStep, marks: readonly Mark[]): readonly Mark[] {
  if (step.marks === "all") return marks;
  if (step.marks === "none") return [];
  return marks.filter((m) => m.kind === (step.marks === "holes" ? "hole" : "pad"));
}

/** Marks in the order of their numbers, together foot by foot. */
export function marksByFoot(marks: readonly Mark[]): readonly (readonly Mark[])[] {
  const feet = new Map<string, Mark[]>();
  for (const mark of marks) {
    const key = `${mark.panel}.${mark.foot}`;
    feet.set(key, [...(feet.get(key) ?? []), mark]);
  }
  return [...feet.values()];
}

/** Position of the foot that is selected, ``otherwise`` where none is. */
export function footInHand(feet: readonly (readonly Mark[])[], selection: string | null, otherwise = 0): number {
  const at = feet.findIndex((marks) => selection === `panels.${marks[0]?.panel}.feet.${marks[0]?.foot}`);
  return at < 0 ? otherwise : at;
}
