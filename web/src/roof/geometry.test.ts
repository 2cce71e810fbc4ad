import { describe, expect, it } from "vitest";
import { acrossTicks, FRAME, nudge, onTape, RoofScale, ruler } from "./geometry";

const bus = { length: 8400, across: 2350 };

describe("the roof's scale", () => {
  it("is one scale for both directions and fits the room", () => {
    for (const room of [
      { width: 1000, height: 330 },
      { width: 390, height: 330 },
      { width: 1000, height: 150 },
    ]) {
      const scale = new RoofScale(room, bus);
      expect(scale.width).toBeLessThanOrEqual(room.width + 1e-6);
      expect(scale.height).toBeLessThanOrEqual(room.height + 1e-6);
      expect(scale.x(1000) - scale.x(0)).toBeCloseTo(scale.y(500) - scale.y(-500), 9);
    }
  });

  it("leads from millimetres to pixels and back", () => {
    const scale = new RoofScale({ width: 1000, height: 330 }, bus);
    expect(scale.x(0)).toBe(FRAME.left);
    expect(scale.mmX(scale.x(4240))).toBeCloseTo(4240, 9);
    expect(scale.mmY(scale.y(-590))).toBeCloseTo(-590, 9);
  });
});

describe("rulers", () => {
  it("name every half metre, or every foot", () => {
    expect(
      ruler(1200, "metric")
        .filter((t) => t.label)
        .map((t) => t.label),
    ).toEqual(["0", "0.5", "1"]);
    expect(ruler(1000, "imperial").map((t) => t.label)).toEqual(["0'", "1'", "2'", "3'"]);
  });

  it("run from the centre line to both sides", () => {
    const ticks = acrossTicks(2350, "metric");
    expect(ticks.filter((t) => t.mm === 0)).toHaveLength(1);
    expect(ticks.map((t) => t.mm).reduce((a, b) => a + b, 0)).toBeCloseTo(0);
  });
});

describe("moving by hand", () => {
  it("rounds to what a tape shows", () => {
    expect(onTape(1234.6, "metric")).toBe(1235);
    expect(onTape(26.2, "imperial") / (25.4 / 16)).toBeCloseTo(17, 9);
  });

  it("steps 1 and 10 mm, or 1/16 and 1/2 in", () => {
    expect(nudge("ArrowLeft", false, "metric")).toEqual({ dx: -1, dy: 0 });
    expect(nudge("ArrowDown", true, "metric")).toEqual({ dx: 0, dy: 10 });
    expect(nudge("ArrowRight", true, "imperial")).toEqual({ dx: 12.7, dy: 0 });
    expect(nudge("a", false, "metric")).toBeNull();
  });
});
