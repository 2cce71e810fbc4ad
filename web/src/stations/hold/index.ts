import type { Station } from "../station";
import { FootShapes } from "./FootShapes";
import { HoldStation } from "./HoldStation";
import { RailShapes } from "./RailShapes";

export const hold: Station = {
  name: "hold",
  title: "Hold",
  question: "Will it stay on?",
  body: HoldStation,
  layers: [
    { level: "feet", draw: RailShapes },
    { level: "feet", draw: FootShapes },
  ],
};
