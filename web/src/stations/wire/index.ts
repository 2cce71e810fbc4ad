import type { Station } from "../station";
import { CableShapes } from "./CableShapes";
import { WireStation } from "./WireStation";

export const wire: Station = {
  name: "wire",
  title: "Wire",
  question: "What plugs into what?",
  body: WireStation,
  layers: [{ level: "hints", draw: CableShapes }],
};
