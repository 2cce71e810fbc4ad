/** What a station's folder declares of itself: the shells arrange it, the road names it. */
import type { ComponentType } from "react";
import type { StationName } from "../api/types";

export type Station = {
  name: StationName;
  title: string;
  question: string;
  /** Its matter on the desk; without it ``later`` says what it will answer. */
  body?: ComponentType;
  /** Its matter on a phone on the roof, with an order of its own. */
  phone?: ComponentType;
  later?: string;
};
