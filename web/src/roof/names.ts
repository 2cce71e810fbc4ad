/** Accessible names of what is drawn on the roof: what it is, where it is, how it stands. */
import type { FootPlace, FootVerdict, Obstacle, Panel, Reading, Snag, Units } from "../api/types";
import { across, length } from "../ui/format";
import { type FootState, stateWords } from "../ui/StateMark";

export function panelName(panel: Panel, snags: readonly Snag[], units: Units): string {
  const stops = snags.filter((s) => s.severity === "stop" && s.place.startsWith(`panels.${panel.id}`)).length;
  const trouble = stops ? `, ${stops} stop${stops > 1 ? "s" : ""}` : "";
  const locked = panel.locked ? ", locked" : "";
  return `${panel.name}, ${length(panel.x.mm, units)} along, ${across(panel.y.mm, units)}${locked}${trouble}`;
}

/** How a foot is drawn and read out: one that a stop refuses never holds, whatever its chain says. */
export function footState(verdict: FootVerdict | undefined, refused: boolean): FootState {
  if (verdict?.state === "lets go") return "lets go";
  return refused ? "refused" : verdict ? verdict.state : "unknown";
}

export function footName(holder: string, place: FootPlace, state: FootState, units: Units): string {
  return `${holder} foot ${place.foot}, ${landingWords(place, units)}, ${stateWords(state)}`;
}

export function landingWords(place: FootPlace, units: Units): string {
  if (place.landing === "point") return "on its factory point";
  if (place.landing === "bar") return "on a bar from member to member";
  if (place.landing === "deck") return "bolted through the deck";
  if (place.member === null || place.off_mm === null || place.member === undefined || place.off_mm === undefined)
    return "no member known";
  if (place.landing === "member") return `in member ${place.member}`;
  if (place.landing === "perhaps") return `over member ${place.member}, not surely in it`;
  return `${length(Math.abs(place.off_mm), units)} ${place.off_mm > 0 ? "behind" : "in front of"} member ${place.member}`;
}

export function obstacleName(obstacle: Obstacle, units: Units): string {
  const lid = obstacle.lid_hinge === "none" ? "" : `, lid hinged ${obstacle.lid_hinge}`;
  return `${obstacle.name}, ${length(obstacle.x.mm, units)} along${lid}`;
}

export const KIND_WORDS: Record<Reading["kind"], string> = {
  seen: "seen",
  rivet_row: "rivet row",
  magnet: "magnet",
  stud_finder: "stud finder",
  knock: "knock",
  pilot_solid: "pilot hole solid",
  pilot_through: "pilot hole through",
};
