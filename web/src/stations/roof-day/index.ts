import type { Station } from "../station";
import { BuiltShapes } from "./BuiltShapes";
import { PhoneRoofDay } from "./PhoneRoofDay";
import { RoofDayStation } from "./RoofDayStation";

export const roofDay: Station = {
  name: "roof-day",
  title: "Roof day",
  question: "What do I do now?",
  body: RoofDayStation,
  phone: PhoneRoofDay,
  layers: [{ level: "marks", draw: BuiltShapes }],
};
