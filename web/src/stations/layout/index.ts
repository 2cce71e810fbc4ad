import type { Station } from "../station";
import { Dimensions } from "./Dimensions";
import { FreeAreas, SnapLines } from "./LayoutShapes";
import { LayoutStation } from "./LayoutStation";
import { PanelShapes } from "./PanelShapes";
import { ShadowShapes } from "./ShadowShapes";

export const layout: Station = {
  name: "layout",
  title: "Layout",
  question: "What goes where?",
  body: LayoutStation,
  layers: [
    { level: "areas", draw: FreeAreas },
    { level: "panels", draw: PanelShapes },
    { level: "shadows", draw: ShadowShapes },
    { level: "dimensions", draw: Dimensions },
    { level: "snaps", draw: SnapLines },
  ],
};
