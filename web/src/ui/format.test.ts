import { describe, expect, it } from "vitest";
import type { FootPlace, Panel } from "../api/types";
import { landingWords, panelName } from "../roof/names";
import { linkThickness } from "../stations/hold/Chain";
import { across, inches, length, likely, shown, speed, speedNumber } from "./format";

describe("numbers as people read them", () => {
  it("never tells a chance as certain", () => {
    expect(likely(0.9999)).toBe("over 99 %");
    expect(likely(0.93)).toBe("93 %");
  });
  it("shows inches to the sixteenth, reduced", () => {
    expect(inches(134.9375)).toBe('5 5/16"');
    expect(inches(12.7)).toBe('1/2"');
    expect(inches(-88.9)).toBe('−3 1/2"');
    expect(inches(0.1)).toBe('0"');
  });

  it("rounds speeds down, never up", () => {
    expect(speed(30.9, "metric")).toBe("111 km/h");
    expect(speedNumber(100 / 3.6, "metric")).toBe(100);
    expect(speed(31.2928, "imperial")).toBe("70 mph");
  });

  it("says lengths and sides", () => {
    expect(length(1234.4, "metric")).toBe("1234 mm");
    expect(length(4.25, "metric")).toBe("4.3 mm");
    expect(across(-590, "metric")).toBe("590 mm to port");
    expect(across(0, "metric")).toBe("on the centre line");
  });

  it("keeps the text a person typed", () => {
    expect(shown({ mm: 2350, text: "235 cm" }, "imperial")).toBe("235 cm");
    expect(shown({ mm: 2350, text: null }, "metric")).toBe("2350 mm");
    expect(shown(null, "metric")).toBe("");
  });
});

describe("accessible names", () => {
  const place = { panel: "p1", foot: "f1", landing: "skin", member: 3, off_mm: -121 } as FootPlace;
  it("tell where a foot lands", () => {
    expect(landingWords(place, "metric")).toBe("121 mm in front of member 3");
    expect(landingWords({ ...place, landing: "member" }, "metric")).toBe("in member 3");
    expect(landingWords({ ...place, member: null, off_mm: null }, "metric")).toBe("no member known");
  });
  it("tell a panel's place and its stops", () => {
    const panel = { id: "p1", name: "Front", x: { mm: 230 }, y: { mm: -590 } } as Panel;
    expect(panelName(panel, [], "metric")).toBe("Front, 230 mm along, 590 mm to port");
  });
});

describe("the chain", () => {
  it("draws a link as thick as its margin", () => {
    const sizes = [0.2, 0.5, 1, 2, 10].map(linkThickness);
    expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
    expect(sizes[0]).toBe(34);
    expect(sizes.at(-1)).toBeGreaterThan(0);
  });
});
