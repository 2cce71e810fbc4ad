/** Records of what was really built, as edits of the job. Pure: what follows from them the core says. */
import type { Edit, FootPlace, Job, Mark } from "../../api/types";

export type Pilot = "solid" | "through";
/** A record as it is shown: stored, or as typed while it is on its way. */
export type Shown = {
  x: { mm: number } | string | null;
  y: { mm: number } | string | null;
  mark: { x: number; y: number };
  pilot: Pilot | null;
};
type Found = { x?: string; from_centre?: string; pilot?: Pilot };
type Foot = { holder: string; foot: string };

const isOf = (foot: Foot) => (edit: Edit) =>
  (edit.op === "record_foot" || edit.op === "forget_foot") && edit.holder === foot.holder && edit.foot === foot.foot;

/** What is recorded of a foot, with what is on its way to the server. */
export function recordOf(feet: Job["built"]["feet"], waiting: readonly Edit[], foot: Foot): Shown | null {
  const stored = feet.find((r) => r.holder === foot.holder && r.foot === foot.foot);
  let now: Shown | null = stored
    ? {
        x: stored.x ?? null,
        y: stored.y ?? null,
        mark: { x: stored.mark_x.mm, y: stored.mark_y.mm },
        pilot: stored.pilot ?? null,
      }
    : null;
  for (const edit of waiting.filter(isOf(foot))) {
    if (edit.op === "forget_foot") now = null;
    if (edit.op !== "record_foot") continue;
    const [x, y] = [typeof edit.x === "string" ? edit.x : null, edit.from_centre ?? null];
    const put = x || y ? { x, y, mark: { x: edit.mark_x.mm, y: edit.mark_y.mm } } : {};
    const before: Shown = now ?? { x: null, y: null, mark: { x: edit.mark_x.mm, y: edit.mark_y.mm }, pilot: null };
    now = { ...before, ...put, pilot: edit.pilot ?? before.pilot };
  }
  return now;
}

/** What was found of a foot at one of its marks, where both were planned just now. */
export function recording(known: Shown | null, mark: Mark, place: FootPlace, found: Found): Edit {
  return {
    op: "record_foot",
    holder: mark.panel,
    foot: mark.foot,
    foot_x: { mm: place.x_mm },
    foot_y: { mm: place.y_mm },
    mark_x: { mm: mark.x_mm },
    mark_y: { mm: mark.y_mm },
    anew: known === null,
    ...found,
  };
}

/** What is ticked off of a mark: its foot and its place in it, which stay when marks are numbered anew. */
export const tickItem = (mark: Mark, ofFoot: readonly Mark[]): string =>
  `${mark.panel}.${mark.foot}.${ofFoot.indexOf(mark) + 1}`;
