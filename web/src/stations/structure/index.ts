import type { Station } from "../station";
import { StructureStation } from "./StructureStation";

export const structure: Station = {
  name: "structure",
  title: "Structure",
  question: "Where is it strong?",
  body: StructureStation,
};
