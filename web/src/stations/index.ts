/** The road: all stations in the order of the work. A new one is a folder and a line here. */
import type { StationName } from "../api/types";
import type { Layer } from "../roof/layer";
import { build } from "./build";
import { days } from "./days";
import { hold } from "./hold";
import { layout } from "./layout";
import { log } from "./log";
import { roofDay } from "./roof-day";
import { seal } from "./seal";
import type { Station } from "./station";
import { structure } from "./structure";
import { survey } from "./survey";
import { wire } from "./wire";

export const STATIONS: readonly Station[] = [survey, structure, layout, hold, build, seal, wire, days, roofDay, log];

/** All that the stations draw on the roof. */
export const LAYERS: readonly Layer[] = STATIONS.flatMap((station) => station.layers ?? []);

export function stationInfo(name: string | undefined): Station {
  return STATIONS.find((s) => s.name === name) ?? survey;
}

/** Which station shows the thing a job path names. */
export function stationOf(place: string, fallback: StationName): StationName {
  if (/^(vehicle|obstacles|survey)/.test(place)) return "survey";
  if (/^(workshop|pieces)/.test(place)) return "build";
  if (/^(readings|scans|members|structure|mounting)/.test(place)) return "structure";
  if (place.startsWith("carriers") || place.includes(".hold") || place.includes(".feet.") || place === "assumptions")
    return "hold";
  if (place.startsWith("days")) return "days";
  if (place.startsWith("built")) return "roof-day";
  if (place.startsWith("care")) return "log";
  return fallback;
}
