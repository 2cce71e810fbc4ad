/** Kinds of vehicle in words. */
import type { Job } from "../api/types";

export const VEHICLES: readonly (readonly [Job["vehicle"]["kind"], string])[] = [
  ["van", "van"],
  ["bus", "bus"],
  ["rv", "RV, motorhome"],
  ["trailer", "trailer"],
  ["boat", "boat"],
  ["truck_bed", "truck bed"],
];
