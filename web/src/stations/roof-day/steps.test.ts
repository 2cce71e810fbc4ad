import { describe, expect, it } from "vitest";
import type { Mark, WorkStep } from "../../api/types";
import { atHand, firstOpen, footInHand, marksByFoot } from "./steps";

const step = (title: string, marks: WorkStep["marks"] = "none") =>
  ({ number: 1, title, detail: "", check: "", wait_h: 0, marks, kind: "mark", count: 1 }) satisfies WorkStep;
const mark = (number: number, panel: string, foot: string, kind: Mark["kind"] = "hole") =>
  ({ number, panel, foot, kind, x_mm: 0, y_mm: 0 }) as Mark;

describe("steps on the roof", () => {
  it("begins with the first that is not done", () => {
    const steps = [step("a"), step("b"), step("c")];
    expect(firstOpen(steps, new Set(["a"]))).toBe(1);
    expect(firstOpen(steps, new Set(["b"]))).toBe(0);
    expect(firstOpen(steps, new Set(["a", "b", "c"]))).toBe(2);
    expect(firstOpen([], new Set())).toBe(0);
  });

  it("has the marks in hand that the step is about, foot by foot", () => {
    const marks = [mark(1, "p1", "f1"), mark(2, "p1", "f1"), mark(3, "p2", "f1", "pad"), mark(4, "p1", "f2")];
    expect(atHand(step("drill", "holes"), marks).map((m) => m.number)).toEqual([1, 2, 4]);
    expect(atHand(step("stick", "pads"), marks).map((m) => m.number)).toEqual([3]);
    expect(atHand(step("tidy"), marks)).toEqual([]);
    const feet = marksByFoot(marks);
    expect(feet.map((f) => f.length)).toEqual([2, 1, 1]);
    expect(footInHand(feet, "panels.p1.feet.f2")).toBe(2);
    expect(footInHand(feet, null)).toBe(0);
  });
});
