import type { Station } from "../station";
import { BuildStation } from "./BuildStation";

export const build: Station = {
  name: "build",
  title: "Build",
  question: "What do I make?",
  body: BuildStation,
};
