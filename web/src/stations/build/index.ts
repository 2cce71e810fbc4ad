import type { Station } from "../station";

export const build: Station = {
  name: "build",
  title: "Build",
  question: "What do I make?",
  later:
    "Will turn the plan into a rack: sections, bolts, slots, cut list from stock lengths and hole maps of every piece. Not built yet.",
};
