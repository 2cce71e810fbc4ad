import type { Station } from "../station";
import { LayoutStation } from "./LayoutStation";

export const layout: Station = {
  name: "layout",
  title: "Layout",
  question: "What goes where?",
  body: LayoutStation,
};
