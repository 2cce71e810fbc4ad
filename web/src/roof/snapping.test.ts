import { expect, it } from "vitest";
import type { Snap } from "../api/types";
import { snapTo } from "./snapping";

const size = { x_mm: 0, y_mm: 0, length_mm: 1000, width_mm: 500 };
const line = (axis: "x" | "y", at_mm: number, low_mm = -1000, high_mm = 9000): Snap => ({
  axis,
  at_mm,
  line_mm: at_mm,
  low_mm,
  high_mm,
  words: "there",
});

it("takes the nearest place within reach on each axis", () => {
  const snaps = [line("x", 1000), line("x", 1012), line("y", -300)];
  const found = snapTo(snaps, size, 1010, -296, 15);
  expect([found.x, found.y]).toEqual([1012, -300]);
  expect(found.lines).toHaveLength(2);
});

it("leaves the panel alone out of reach of any place", () => {
  expect(snapTo([line("x", 1000)], size, 1030, 0, 15)).toEqual({ x: 1030, y: 0, lines: [] });
});

it("does not mind things the panel is nowhere near", () => {
  const farAft = line("y", 10, 6000, 7000);
  expect(snapTo([farAft], size, 1000, 12, 15).y).toBe(12);
  expect(snapTo([farAft], size, 4800, 12, 15).y).toBe(10);
});
