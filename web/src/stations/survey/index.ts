import type { Station } from "../station";
import { SurveyStation } from "./SurveyStation";

export const survey: Station = {
  name: "survey",
  title: "Survey",
  question: "What is this roof?",
  body: SurveyStation,
};
