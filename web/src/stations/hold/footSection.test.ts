import { describe, expect, it } from "vitest";
import type { FootPlace, Job, Mark, Panel } from "../../api/types";
import { fastenersOut, footSection } from "./footSection";

const place = {
  panel: "p1",
  foot: "f1",
  x_mm: 900,
  y_mm: -620,
  side: "port",
  landing: "member",
  off_mm: 0,
  member: 2,
} as FootPlace;
const hole = (y_mm: number) => ({ panel: "p1", foot: "f1", kind: "hole", x_mm: 900, y_mm, final_mm: 5 }) as Mark;
const panel = {
  id: "p1",
  stand_off: { mm: 40 },
  model: { frame_height: { mm: 35 } },
  hold: {
    school: "screws",
    length: { mm: 25 },
    bracket: { thickness: { mm: 4 }, lever: { mm: 20 }, toe: { mm: 25 } },
  },
} as unknown as Panel;
const roof = {
  vehicle: { skin: "steel", skin_thickness: { mm: 1 } },
  members: { kind: "hat_rib", wall: { mm: 2 } },
} as unknown as Pick<Job, "vehicle" | "members">;

describe("a foot cut through", () => {
  it("puts fasteners where the drill map has them, out from the frame", () => {
    expect(fastenersOut(place, 20, [hole(-632), hole(-608), hole(-608)])).toEqual([8, 32]);
    expect(fastenersOut({ ...place, side: "starboard", y_mm: 620 }, 20, [hole(632)])).toEqual([32]);
  });

  it("is true to the millimetres typed", () => {
    const cut = footSection(panel, place, roof, [hole(-620)]);
    expect(cut.baseTop).toBe(4);
    expect(cut.right).toBe(45 + 34);
    expect(cut.fasteners).toMatchObject([{ u: 20, top: 4, bottom: -21, nut: false }]);
    expect(cut.cuts.map((c) => c.link)).toEqual(["", "frame", "bracket", "skin", "base"]);
    expect(cut.cuts[2]?.d).toContain("M4 0H45V-4H4Z");
    expect(new Set(cut.pins.map((p) => p.link))).toEqual(new Set(["frame", "bracket", "skin", "fastener", "base"]));
  });
});
