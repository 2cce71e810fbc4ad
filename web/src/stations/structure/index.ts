import type { Station } from "../station";
import { CheckFlag, MemberLines, ReadingTicks, ScanBrackets } from "./MemberLines";
import { StructureStation } from "./StructureStation";

export const structure: Station = {
  name: "structure",
  title: "Structure",
  question: "Where is it strong?",
  body: StructureStation,
  layers: [
    { level: "members", draw: MemberLines },
    { level: "hints", draw: ScanBrackets },
    { level: "hints", draw: ReadingTicks },
    { level: "hints", draw: CheckFlag },
  ],
};
