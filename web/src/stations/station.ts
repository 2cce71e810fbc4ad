/** What a station's folder declares of itself: the shells arrange it, the road names it. */
import type { ComponentType } from "react";
import type { StationName } from "../api/types";
import type { Layer } from "../roof/layer";

export type Station = {
  name: StationName;
  title: string;
  question: string;
  /** Its matter on the desk; without it ``later`` says what it will answer. */
  body?: ComponentType;
  /** Its matter on a phone on the roof, with an order of its own. */
  phone?: ComponentType;
  /** What it draws on the roof, over or under what the others draw. */
  layers?: readonly Layer[];
  later?: string;
};
