import type { Station } from "../station";
import { SealStation } from "./SealStation";
import { GlandShape, WaterShapes } from "./WaterShapes";

export const seal: Station = {
  name: "seal",
  title: "Seal",
  question: "What keeps water out?",
  body: SealStation,
  layers: [
    { level: "marks", draw: GlandShape },
    { level: "hints", draw: WaterShapes },
  ],
};
