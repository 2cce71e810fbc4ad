/** What a station draws on the roof strip: the strip lays all of them over one another by their level. */
import type { ComponentType } from "react";
import type { RoofScale } from "./geometry";
import type { useDrag } from "./useDrag";

export type LayerProps = { scale: RoofScale; drag: ReturnType<typeof useDrag> };
/** From the ground up. Later layers of one level lie over earlier ones. */
const LEVELS = [
  "ground",
  "members",
  "areas",
  "obstacles",
  "panels",
  "shadows",
  "feet",
  "dimensions",
  "marks",
  "snaps",
  "hints",
] as const;
export type Layer = { level: (typeof LEVELS)[number]; draw: ComponentType<LayerProps> };

export const byLevel = (layers: readonly Layer[]): Layer[] =>
  LEVELS.flatMap((level) => layers.filter((layer) => layer.level === level));
