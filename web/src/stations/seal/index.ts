import type { Station } from "../station";
import { SealStation } from "./SealStation";
import { WaterShapes } from "./WaterShapes";

export const seal: Station = {
  name: "seal",
  title: "Seal",
  question: "What keeps water out?",
  body: SealStation,
  layers: [{ level: "hints", draw: WaterShapes }],
};
