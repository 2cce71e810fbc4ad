/** The road: every station with its question, and for those that are not built yet what they will answer. */
import type { StationName } from "../api/types";

export type StationInfo = { name: StationName; title: string; question: string; later?: string };

export const STATIONS: readonly StationInfo[] = [
  { name: "survey", title: "Survey", question: "What is this roof?" },
  { name: "structure", title: "Structure", question: "Where is it strong?" },
  { name: "layout", title: "Layout", question: "What goes where?" },
  { name: "hold", title: "Hold", question: "Will it stay on?" },
  {
    name: "build",
    title: "Build",
    question: "What do I make?",
    later:
      "Will turn the plan into a rack: sections, bolts, slots, cut list from stock lengths and hole maps of every piece. Not built yet.",
  },
  {
    name: "seal",
    title: "Seal",
    question: "What keeps water out?",
    later:
      "Will plan each hole, scar and gland: layers, which sealant bonds to this roof, cure before driving. Until then the work sheet lists sealant and bead.",
  },
  {
    name: "wire",
    title: "Wire",
    question: "What plugs into what?",
    later: "Will compute strings, controllers, cable, fuses, the gland and what the meter should read. Not built yet.",
  },
  {
    name: "days",
    title: "Days",
    question: "When can it be done?",
    later:
      "Will find the days: step order, weather windows, crew and lead times. Until then the steps stand on Roof day.",
  },
  { name: "roof-day", title: "Roof day", question: "What do I do now?" },
  {
    name: "log",
    title: "Log",
    question: "What was done, is it still tight?",
    later:
      "Will keep the record: as-built positions, torque, batches, inspections and the handover sheet. Not built yet.",
  },
];

export function stationInfo(name: string | undefined): StationInfo {
  return STATIONS.find((s) => s.name === name) ?? (STATIONS[0] as StationInfo);
}

/** Which station shows the thing a job path names. */
export function stationOf(place: string, fallback: StationName): StationName {
  if (/^(vehicle|obstacles|survey)/.test(place)) return "survey";
  if (/^(readings|scans|members|structure|mounting)/.test(place)) return "structure";
  if (place.includes(".hold") || place.includes(".feet.") || place === "assumptions") return "hold";
  return fallback;
}
