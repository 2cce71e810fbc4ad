/** Paths of a controller's curves on a sheet: pure geometry. */
import type { ArrayCurve } from "../../api/types";

const LEFT = 40;
const TOP = 22;
const BELOW = 34;
const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500];

const ticks = (most: number, about: number): number[] => {
  const step = STEPS.find((s) => most / s <= about) ?? 1000;
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step);
};

export function plotOf(curve: ArrayCurve, width: number, height: number) {
  const base = height - BELOW;
  const mostV = Math.max(curve.volts.at(-1) ?? 1, curve.low_v) * 1.02;
  const mostA = Math.max(...curve.amps, 0.1) * 1.1;
  const mostW = Math.max(...curve.watts, 1) * 1.18;
  const x = (v: number) => LEFT + (v / mostV) * (width - LEFT - 6);
  const yAmps = (a: number) => base - (Math.max(a, 0) / mostA) * (base - TOP);
  const yPower = (w: number) => base - (w / mostW) * (base - TOP);
  const path = (volts: readonly number[], ys: readonly number[], y: (n: number) => number) =>
    volts.map((v, i) => `${i ? "L" : "M"}${x(v).toFixed(1)} ${y(ys[i] ?? 0).toFixed(1)}`).join("");
  return {
    left: LEFT,
    top: TOP,
    base,
    mostV,
    x,
    yAmps,
    yPower,
    joined: path(curve.volts, curve.amps, yAmps),
    power: `${path(curve.volts, curve.watts, yPower)}L${x(curve.volts.at(-1) ?? 0).toFixed(1)} ${base}L${LEFT} ${base}Z`,
    strings:
      curve.strings.length > 1 ? curve.strings.map((s) => ({ id: s.string, path: path(s.volts, s.amps, yAmps) })) : [],
    ticksV: ticks(mostV, 8),
    ticksA: ticks(mostA, 5),
  };
}
