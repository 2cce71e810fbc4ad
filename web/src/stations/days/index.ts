import type { Station } from "../station";
import { DaysStation } from "./DaysStation";
import { DoneShapes } from "./DoneShapes";

export const days: Station = {
  name: "days",
  title: "Days",
  question: "When can it be done?",
  body: DaysStation,
  layers: [{ level: "hints", draw: DoneShapes }],
};
