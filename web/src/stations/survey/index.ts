import type { Station } from "../station";
import { ObstacleShapes } from "./ObstacleShapes";
import { RoofGround, RoofMarks } from "./SurveyShapes";
import { SurveyStation } from "./SurveyStation";

export const survey: Station = {
  name: "survey",
  title: "Survey",
  question: "What is this roof?",
  body: SurveyStation,
  layers: [
    { level: "ground", draw: RoofGround },
    { level: "obstacles", draw: ObstacleShapes },
    { level: "marks", draw: RoofMarks },
  ],
};
