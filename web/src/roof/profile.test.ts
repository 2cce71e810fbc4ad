import { describe, expect, it } from "vitest";
import type { CrownFinding } from "../api/types";
import { between, cutAcross, doubtAt, heightAt, path, raisedLine, samples } from "./profile";

const crown: CrownFinding = {
  x_mm: [0, 1000, 2000],
  y_mm: [-500, 0, 500],
  height_mm: [
    [-40, 0, -40],
    [-60, 0, -60],
    [-40, 0, -40],
  ],
  sigma_mm: [
    [2, 1, 2],
    [2, 1, 2],
    [2, 1, 2],
  ],
  rise_mm: 60,
  radius_mm: 2100,
  readings: 9,
  worst_residual: 1,
};

describe("heights between grid points", () => {
  it("interpolates in both directions and holds the edge values outside", () => {
    expect(heightAt(crown, 1000, 0)).toBe(0);
    expect(heightAt(crown, 500, 500)).toBeCloseTo(-50);
    expect(heightAt(crown, 1000, 250)).toBeCloseTo(-30);
    expect(heightAt(crown, 9999, 500)).toBeCloseTo(-40);
    expect(doubtAt(crown, 700, -250)).toBeCloseTo(1.5);
  });
  it("is flat where nothing was measured", () => {
    expect(heightAt(null, 100, 100)).toBe(0);
    expect(doubtAt(undefined, 100, 100)).toBe(0);
  });
  it("finds the grid cell", () => {
    expect(between([0, 10, 30], 20)).toEqual({ index: 1, share: 0.5 });
    expect(between([0, 10, 30], -5)).toEqual({ index: 0, share: 0 });
    expect(between([0, 10, 30], 31)).toEqual({ index: 1, share: 1 });
  });
});

describe("cuts of the outline", () => {
  const taper = [
    { x_mm: 0, y_mm: -300 },
    { x_mm: 1000, y_mm: -500 },
    { x_mm: 1000, y_mm: 500 },
    { x_mm: 0, y_mm: 300 },
  ];
  it("gives the width at a place", () => {
    expect(cutAcross(taper, 500)).toEqual({ low: -400, high: 400 });
    expect(cutAcross(taper, 1000)).toEqual({ low: -500, high: 500 });
    expect(cutAcross(taper, 1200)).toBeNull();
  });
});

it("draws a path through samples", () => {
  expect(samples({ from: 0, to: 10 }, 2)).toEqual([0, 5, 10]);
  expect(
    path([
      [0, 1],
      [2, 3],
    ]),
  ).toBe("M0.0 1.0L2.0 3.0");
});

describe("a raised panel cut across", () => {
  const rect = { x_mm: 1000, y_mm: -300, length_mm: 800, width_mm: 600 };

  it("leans where it turns about a side, and lies level at the height of the cut where it turns about an end", () => {
    expect(raisedLine({ rect, up: "starboard", rise_mm: 200, low_mm: 0 }, 1400)).toEqual([
      [-300, 0],
      [300, 200],
    ]);
    expect(raisedLine({ rect, up: "front", rise_mm: 200, low_mm: 0 }, 1200)).toEqual([
      [-300, 150],
      [300, 150],
    ]);
  });

  it("begins over the roof where others of its unit are nearer to the hinges", () => {
    expect(raisedLine({ rect, up: "port", rise_mm: 500, low_mm: 300 }, 1400)).toEqual([
      [-300, 500],
      [300, 300],
    ]);
  });

  it("is not there where it draws back to", () => {
    expect(raisedLine({ rect, up: "rear", rise_mm: 200, low_mm: 0 }, 1900)).toBeNull();
  });
});
