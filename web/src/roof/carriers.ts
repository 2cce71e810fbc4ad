/** How tall the parts of a carrier are, so that every view draws them alike. */
import type { Carrier, FootPlace, Job } from "../api/types";
import type { Mm } from "./geometry";

export type Section = Carrier["section"];

export const tall = (section: Section): Mm =>
  section.kind === "round" ? section.diameter.mm : section.kind === "angle" ? section.leg.mm : section.height.mm;

export const breadth = (section: Section): Mm =>
  section.kind === "round" ? section.diameter.mm : section.kind === "angle" ? section.leg.mm : section.width.mm;

/** Rails and bars as boxes: from where to where along and across, from which height over the roof at `over` to which. */
export type Box = { key: string; x: readonly [Mm, Mm]; y: readonly [Mm, Mm]; z: readonly [Mm, Mm]; over: Mm };

/** How high the panels on the tallest carrier stand over the roof, frames included; 0 without one. */
export const tallest = (job: Pick<Job, "carriers" | "panels">): Mm =>
  Math.max(0, ...job.panels.filter((p) => p.carrier).map((p) => p.stand_off.mm + p.model.frame_height.mm));

/** Bars and panels of a carrier are level from rail to rail: their heights count from the roof under a rail. */
export const stoodOn = (carrier: Carrier | undefined): Mm | null => carrier?.rails[0]?.y.mm ?? null;

/** Crossbars under the rails: one over every row of feet that stand at one place along the roof. */
export const crossbars = (carrier: Carrier, feet: readonly FootPlace[]): Box[] => {
  const below = carrier.kind === "rack" ? carrier.crossbars : null;
  if (!below) return [];
  const rows = below.feet.map((row) => row.y.mm);
  const half = breadth(below.section) / 2;
  const at = new Set(feet.filter((foot) => foot.panel === carrier.id).map((foot) => foot.x_mm));
  return [...at].map((x) => ({
    key: `${carrier.id} ${x}`,
    x: [x - half, x + half] as const,
    y: [Math.min(...rows) - below.beyond.mm, Math.max(...rows) + below.beyond.mm] as const,
    z: [carrier.height.mm - tall(below.section), carrier.height.mm] as const,
    over: rows[0] ?? 0,
  }));
};

export function boxes(carrier: Carrier, feet: readonly FootPlace[]): Box[] {
  const under = carrier.height.mm;
  const over = under + tall(carrier.section);
  const half = breadth(carrier.section) / 2;
  const rails = carrier.rails.map((rail) => ({
    key: `${carrier.id} ${rail.id}`,
    x: [carrier.start.mm, carrier.end.mm] as const,
    y: [rail.y.mm - half, rail.y.mm + half] as const,
    z: [under, over] as const,
    over: rail.y.mm,
  }));
  if (carrier.kind !== "rack") return rails;
  const wide = breadth(carrier.bar_section) / 2;
  const top = under + Math.max(tall(carrier.section), tall(carrier.bar_section));
  const bars = carrier.bars.map((bar) => ({
    key: `${carrier.id} ${bar.id}`,
    x: [bar.x.mm - wide, bar.x.mm + wide] as const,
    y: [carrier.port.mm, carrier.starboard.mm] as const,
    z: carrier.flush
      ? ([top - tall(carrier.bar_section), top] as const)
      : ([over, over + tall(carrier.bar_section)] as const),
    over: stoodOn(carrier) ?? 0,
  }));
  const thick = carrier.posts ? breadth(carrier.posts.section) / 2 : 0;
  const posts = (carrier.posts?.places ?? []).flatMap((post) =>
    carrier.rails.map((rail) => ({
      key: `${carrier.id} ${rail.id} ${post.id}`,
      x: [post.x.mm - thick, post.x.mm + thick] as const,
      y: [rail.y.mm - thick, rail.y.mm + thick] as const,
      z: [0, under] as const,
      over: rail.y.mm,
    })),
  );
  return [...posts, ...crossbars(carrier, feet), ...rails, ...bars];
}
