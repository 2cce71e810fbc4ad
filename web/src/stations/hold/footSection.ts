/** A foot cut through, in millimetres: u outward from the frame's face, z up from the roof. Display only. */
import type { FootPlace, Job, Mark, Panel } from "../../api/types";
import { breadth, type Section, tall } from "../../roof/carriers";
import type { Mm } from "../../roof/geometry";

export type Cut = { d: string; link: string; look: "metal" | "wood" | "skin" | "soft" | "glass" };
export type Pin = { link: string; u: Mm; z: Mm };
export type FootSection = {
  cuts: Cut[];
  pins: Pin[];
  fasteners: { u: Mm; top: Mm; bottom: Mm; diameter: Mm; head: Mm; nut: boolean }[];
  left: Mm;
  right: Mm;
  bottom: Mm;
  top: Mm;
  baseTop: Mm;
  boltAt: Mm;
};

const FRAME_WALL = 1.8;
const FRAME_FLANGE = 25;
const INSIDE = 70;
const BEYOND = 34;
const RIB_DEEP = 22;
const MEMBRANE = 1.5;

const box = (u0: Mm, u1: Mm, z0: Mm, z1: Mm) => `M${u0} ${-z0}H${u1}V${-z1}H${u0}Z`;

/** A bar along the roof, cut across under the fastener line; its wall where it has one. */
function barCut(section: Section, middle: Mm): string {
  const [high, half] = [tall(section), breadth(section) / 2];
  const wall = "wall" in section ? section.wall.mm : high / 2;
  const sides = box(middle - half, middle - half + wall, 0, high) + box(middle + half - wall, middle + half, 0, high);
  return box(middle - half, middle + half, high - wall, high) + box(middle - half, middle + half, 0, wall) + sides;
}

type Roof = { vehicle: Job["vehicle"]; members: Job["members"] };

/** Where the fasteners of a foot stand out from its frame, by its marks on the drill map; once each. */
export function fastenersOut(place: FootPlace, lever: Mm, marks: readonly Mark[]): Mm[] {
  const out = marks
    .filter((m) => m.panel === place.panel && m.foot === place.foot && m.kind === "hole")
    .map((m) => {
      if (place.side === "port") return lever + place.y_mm - m.y_mm;
      if (place.side === "starboard") return lever + m.y_mm - place.y_mm;
      return place.side === "front" ? lever + place.x_mm - m.x_mm : lever + m.x_mm - place.x_mm;
    })
    .map((u) => Math.round(u * 10) / 10);
  return [...new Set(out)].sort((a, b) => a - b);
}

export function footSection(panel: Panel, place: FootPlace, roof: Roof, marks: readonly Mark[]): FootSection {
  const { hold, model } = panel;
  const { bracket } = hold;
  const stand = panel.stand_off.mm;
  const high = model.frame_height.mm;
  const bar = place.landing === "bar" ? panel.span : null;
  const pad = bar ? tall(bar.section) : hold.school === "tape" ? hold.thickness.mm : 0;
  const thick = bracket.thickness.mm;
  const reach = bracket.lever.mm + bracket.toe.mm;
  const right = Math.max(reach, hold.school === "tape" ? hold.pad_width.mm : 0) + BEYOND;
  const left = -INSIDE;
  const boltAt = stand + Math.min(high * 0.5, 16);
  const cuts: Cut[] = [];
  const pins: Pin[] = [];

  // the panel: frame, flange, laminate
  const flange = model.flange?.mm ?? FRAME_FLANGE;
  cuts.push({ d: box(left, -FRAME_WALL, stand + high - 7, stand + high - 3), link: "", look: "glass" });
  cuts.push({
    d:
      box(-FRAME_WALL, 0, stand, stand + high) +
      box(-Math.min(flange, INSIDE), -FRAME_WALL, stand, stand + FRAME_WALL) +
      box(-9, -FRAME_WALL, stand + high - FRAME_WALL, stand + high) +
      box(-9, -FRAME_WALL, stand + high - 10, stand + high - 10 + FRAME_WALL),
    link: "frame",
    look: "metal",
  });
  pins.push({ link: "frame", u: -FRAME_WALL, z: boltAt });

  // the bracket, on its pad where it has one
  cuts.push({
    d: box(0, thick, pad, boltAt + 9) + box(thick, reach, pad, pad + thick),
    link: "bracket",
    look: "metal",
  });
  pins.push({ link: "bracket", u: reach - 6, z: pad + thick / 2 });
  if (bar) {
    cuts.push({ d: barCut(bar.section, bracket.lever.mm), link: "bar", look: "metal" });
    pins.push({ link: "wall", u: bracket.lever.mm, z: pad - 1 });
    pins.push({ link: "bar", u: bracket.lever.mm + breadth(bar.section) / 2, z: pad / 2 });
  } else if (hold.school === "tape") {
    const from = Math.max(reach - hold.pad_width.mm, 0);
    cuts.push({ d: box(from, from + hold.pad_width.mm, 0, pad), link: "tape", look: "soft" });
    pins.push({ link: "tape", u: from + hold.pad_width.mm / 2, z: pad / 2 });
    pins.push({ link: "tape edge", u: from, z: pad / 2 });
  }

  const under = roofUnder(roof, place, left, right, bracket.lever.mm);
  cuts.push(...under.cuts);
  pins.push({ link: "skin", u: right - 10, z: -under.skin / 2 });

  const fasteners = drawnFasteners(panel, place, marks, pad + thick, under.skin);
  const [first] = fasteners;
  const last = fasteners.at(-1);
  if (first && last) {
    pins.push({ link: "fastener", u: last.u, z: last.top + 2 });
    pins.push({ link: "base", u: first.u, z: -under.skin - (under.bottom < -under.skin ? 2 : 0) });
  }
  const deepest = Math.min(under.bottom, ...fasteners.map((f) => f.bottom)) - 4;
  return {
    cuts,
    pins,
    fasteners,
    left,
    right,
    bottom: deepest,
    top: stand + high + 6,
    baseTop: pad + thick,
    boltAt,
  };
}

function roofUnder(roof: Roof, place: FootPlace, left: Mm, right: Mm, lever: Mm) {
  const { vehicle, members } = roof;
  const membrane = vehicle.skin === "membrane";
  const sheet = membrane ? MEMBRANE : (vehicle.skin_thickness?.mm ?? 1);
  const ply = membrane ? (vehicle.ply_thickness?.mm ?? 9) : 0;
  const cuts: Cut[] = [{ d: box(left, right, -sheet, 0), link: "skin", look: membrane ? "soft" : "skin" }];
  if (ply) cuts.push({ d: box(left, right, -sheet - ply, -sheet), link: "skin", look: "wood" });
  const skin = sheet + ply;
  let bottom = -skin - 8;
  if ((place.landing === "member" || place.landing === "perhaps") && members.kind) {
    // along the vehicle's sides the cut runs along the member, at its ends across it
    const across = place.side === "front" || place.side === "rear";
    const wide = members.face_width?.mm ?? 40;
    const middle = lever - (place.off_mm ?? 0) * (place.side === "front" ? -1 : 1);
    const [from, to] = across ? [middle - wide / 2, middle + wide / 2] : [left, right];
    if (members.kind === "wood_truss") {
      const deep = Math.min(members.depth?.mm ?? 38, 60);
      cuts.push({ d: box(from, to, -skin - deep, -skin), link: "base", look: "wood" });
      bottom = -skin - deep;
    } else {
      const wall = members.wall?.mm ?? 1.5;
      cuts.push({ d: box(from, to, -skin - wall, -skin), link: "base", look: "metal" });
      if (across)
        cuts.push({
          d:
            box(from, from + wall, -skin - RIB_DEEP, -skin - wall) + box(to - wall, to, -skin - RIB_DEEP, -skin - wall),
          link: "base",
          look: "metal",
        });
      bottom = -skin - RIB_DEEP;
    }
  }
  return { cuts, skin, bottom };
}

function drawnFasteners(panel: Panel, place: FootPlace, marks: readonly Mark[], top: Mm, skin: Mm) {
  const { hold } = panel;
  if (hold.school === "tape") return [];
  const out = fastenersOut(place, hold.bracket.lever.mm, marks);
  const at = out.length ? out : [hold.bracket.lever.mm];
  const mark = marks.find((m) => m.panel === place.panel && m.foot === place.foot);
  const diameter = Math.max((mark?.final_mm ?? mark?.pilot_mm ?? 5) * 0.95, 3);
  return at.map((u) => ({
    u,
    top,
    bottom: top - hold.length.mm,
    diameter,
    head: diameter * 1.9,
    nut: hold.school !== "screws" && top - hold.length.mm < -skin,
  }));
}
