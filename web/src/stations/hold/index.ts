import type { Station } from "../station";
import { FootShapes } from "./FootShapes";
import { HoldStation } from "./HoldStation";
import { RailShapes } from "./RailShapes";
import { SpanShapes } from "./SpanShapes";
import { TetherShapes } from "./TetherShapes";

export const hold: Station = {
  name: "hold",
  title: "Hold",
  question: "Will it stay on?",
  body: HoldStation,
  layers: [
    { level: "feet", draw: RailShapes },
    { level: "feet", draw: SpanShapes },
    { level: "feet", draw: FootShapes },
    { level: "feet", draw: TetherShapes },
  ],
};
